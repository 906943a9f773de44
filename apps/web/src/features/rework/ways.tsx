import type { Step } from '@zemble/contract';
import { changeWords, heardFactor, parseValue, type Answers, type Ask, type Made } from '@zemble/core';
import { Button, Input } from 'antd';
import { memo, useMemo, useState } from 'react';
import { useMains } from '../../api/use-mains.ts';
import { useWay, useWays, wayOf } from '../../compute/use-ways.ts';
import type { Offered, WayRequest } from '../../compute/ways.ts';
import { useLayer } from '../../unit/layer.tsx';
import { useSelection } from '../../unit/selection.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { valueText } from '../../ui/value-text.ts';
import { BothChannelsBox, useBothChannels, useChangeActions } from '../changes/index.ts';
import { useDrawer } from '../drawer/index.ts';
import styles from './rework.module.css';

/** Ways of doing something at what is chosen: each asks for the goal, and makes the change with its values. */
export const Ways = memo(function Ways() {
  const { document } = useUnitContext();
  const { selectedRef, selectedNet } = useSelection();
  const [openId, setOpenId] = useState<string | null>(null);
  const { mainsHz } = useMains();
  const { made, isCurrent, why } = useWays(document.circuit, selectedRef, selectedNet, mainsHz);
  const where = [selectedRef, selectedNet].filter((w) => w !== null).join(', ');
  const isHere = made !== null && made.of.chosen.ref === selectedRef && made.of.chosen.net === selectedNet;
  const offered = isHere ? made.answer : [];
  const open = offered.find((o) => o.id === openId);
  return (
    <section className="zb-block" aria-label="Ways of doing" aria-busy={where !== '' && !isCurrent}>
      <h2>Ways of doing</h2>
      {offered.length === 0 ? (
        <p className="zb-dim">
          {where === ''
            ? 'Choose a part or a net: what can be done there is offered with its values.'
            : (why ??
              (isCurrent ? `Nothing is offered at ${where}.` : `Looking what can be done at ${where}…`))}
        </p>
      ) : (
        <ul className={styles.ways}>
          {offered.map(({ id, title }) => (
            <li key={id}>
              <Button
                size="small"
                type={id === open?.id ? 'primary' : 'default'}
                aria-expanded={id === open?.id}
                onClick={() => setOpenId(id === openId ? null : id)}
              >
                {title}
              </Button>
            </li>
          ))}
        </ul>
      )}
      {open && <Way key={`${open.id} ${where}`} offered={open} />}
    </section>
  );
});

const NO_STEPS: readonly Step[] = [];

/** One way: what it asks, what comes of it, to be planned or tried first. */
function Way({ offered: { id, asks, isMoreSlower } }: { readonly offered: Offered }) {
  const { document, unit } = useUnitContext();
  const { selectedRef, selectedNet } = useSelection();
  const { items: drawer } = useDrawer();
  const { mainsHz } = useMains();
  const { add, put } = useChangeActions();
  const { setLayer } = useLayer();
  const [answers, setAnswers] = useState<Answers>(() => Object.fromEntries(asks.map((a) => [a.id, a.given])));
  const [typed, setTyped] = useState<{ readonly id: string; readonly text: string } | null>(null);
  const [trialId, setTrialId] = useState<string | null>(null);
  const { circuit } = document;
  const request = useMemo(
    (): WayRequest => ({
      circuit,
      chosen: { ref: selectedRef, net: selectedNet, mainsHz },
      id,
      answers,
      drawer,
    }),
    [circuit, selectedRef, selectedNet, mainsHz, id, answers, drawer],
  );
  const { made: computed, isCurrent, why } = useWay(request);
  const outcome = computed?.of.id === id ? computed.answer : null;
  const both = useBothChannels(circuit, outcome?.ok ? outcome.made.steps : NO_STEPS);
  const change = (isTrial: boolean, { name, sentences }: Made, steps = both.steps) => {
    const trial = unit.changes.find((c) => c.id === trialId);
    if (trial?.change.state === 'done') put(trial, 'undone');
    const changeId = add({
      name,
      purpose: isTrial ? 'trial' : 'modification',
      steps,
      why: sentences[0] ?? '',
      ...(isTrial ? { state: 'done' } : {}),
    });
    setTrialId(isTrial ? changeId : null);
    // A trial lies on the bench as it was found; what is planned is seen on its own layer.
    setLayer(isTrial ? 'found' : 'planned');
  };
  const plan = (isTrial: boolean) => {
    if (isCurrent && outcome?.ok) change(isTrial, outcome.made);
  };
  const hear = (factor: number) => {
    const [first] = asks;
    if (!first) return;
    const value = answers[first.id]!;
    const wanted = first.quantity === 'level' ? value + 20 * Math.log10(factor) : value * factor;
    const asked = { ...answers, [first.id]: wanted };
    setAnswers(asked);
    void wayOf({ ...request, answers: asked }).then((next) => {
      if (next.ok) change(true, next.made, next.made.steps);
    });
  };
  return (
    <div className={styles.way}>
      {asks.map((ask) => {
        const isTyped = typed?.id === ask.id;
        return (
          <label key={ask.id} className={styles.ask}>
            <span>{ask.label}</span>
            <Input
              size="small"
              className="zb-mono"
              maxLength={40}
              value={isTyped ? typed.text : valueText(answers[ask.id], ask.quantity)}
              status={isTyped && valueIn(typed.text, ask) === null ? 'error' : ''}
              onFocus={(event) => event.target.select()}
              onChange={(event) => {
                const { value: text } = event.target;
                setTyped({ id: ask.id, text });
                const value = valueIn(text, ask);
                if (value !== null) setAnswers({ ...answers, [ask.id]: value });
              }}
              onBlur={() => setTyped(null)}
              onPressEnter={() => plan(false)}
            />
          </label>
        );
      })}
      <div role="status" data-state={isCurrent ? 'current' : 'working'}>
        {why !== null && <p className="zb-refused">{why}</p>}
        {outcome === null && why === null && <p className="zb-dim">Finding the values…</p>}
        {outcome && !outcome.ok && <p className="zb-refused">{outcome.sentence}</p>}
        {outcome?.ok && (
          <>
            <p className="zb-mono zb-planned">{changeWords(outcome.made)}</p>
            <BothChannelsBox {...both} />
            <div className={styles.goalMore}>
              <Button type="primary" disabled={!isCurrent} onClick={() => plan(false)}>
                Plan it
              </Button>
              <Button disabled={!isCurrent} onClick={() => plan(true)}>
                Clip it on first
              </Button>
            </div>
            {outcome.made.sentences.map((s) => (
              <p key={s}>{s}</p>
            ))}
            {outcome.made.warnings.map((s) => (
              <p key={s} className="zb-edge">
                {s}
              </p>
            ))}
          </>
        )}
      </div>
      {trialId !== null && asks.length > 0 && (
        <Heard isMoreFaster={!isMoreSlower} onHeard={hear} onRight={() => plan(false)} />
      )}
    </div>
  );
}

const valueIn = (text: string, ask: Ask): number | null => {
  const parsed = parseValue(text, { kind: ask.quantity, purpose: 'reading' });
  return parsed.ok ? parsed.readings[0].value : null;
};

/** What the trial sounded like: the next one follows from it. */
function Heard({
  isMoreFaster,
  onHeard,
  onRight,
}: {
  readonly isMoreFaster: boolean;
  readonly onHeard: (factor: number) => void;
  readonly onRight: () => void;
}) {
  const [text, setText] = useState('');
  const factor = heardFactor(text, isMoreFaster);
  return (
    <div className={styles.goalMore}>
      <Input
        size="small"
        className={styles.heard}
        aria-label="What it was like"
        placeholder="too slow, half"
        value={text}
        maxLength={80}
        status={text !== '' && factor === null ? 'warning' : ''}
        onChange={(event) => setText(event.target.value)}
        onPressEnter={() => {
          if (factor === null) return;
          onHeard(factor);
          setText('');
        }}
      />
      <Button size="small" onClick={onRight}>
        Just right, plan it
      </Button>
      <span className="zb-dim">
        {text !== '' && factor === null
          ? 'Say less, more, half, twice, or x 1.5.'
          : 'It is on the ledger until it is back.'}
      </span>
    </div>
  );
}
