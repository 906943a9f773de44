import {
  ZembleError,
  heardFactor,
  parseChangeLine,
  parseValue,
  RECIPES,
  Spot,
  type Answers,
  type Ask,
  type Made,
  type Recipe,
} from '@zemble/core';
import { Button, Input } from 'antd';
import { memo, useMemo, useState } from 'react';
import { useLayer } from '../../unit/layer.tsx';
import { useSelection } from '../../unit/selection.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { valueText } from '../../ui/value-text.ts';
import { useChangeActions } from '../changes/index.ts';
import styles from './rework.module.css';

interface Offered {
  readonly recipe: Recipe;
  readonly asks: readonly Ask[];
}

/** Ways of doing something at what is chosen: each asks for the goal, and makes the change with its values. */
export const Ways = memo(function Ways() {
  const { document } = useUnitContext();
  const { selectedRef, selectedNet } = useSelection();
  const [openId, setOpenId] = useState<string | null>(null);
  const offered = useMemo((): readonly Offered[] => {
    if (selectedRef === null && selectedNet === null) return [];
    const spot = new Spot(document.circuit, { ref: selectedRef, net: selectedNet });
    return RECIPES.flatMap((recipe) => {
      const asks = asksAt(recipe, spot);
      return asks ? [{ recipe, asks }] : [];
    });
  }, [document.circuit, selectedRef, selectedNet]);
  const open = offered.find((o) => o.recipe.id === openId);
  const where = [selectedRef, selectedNet].filter((w) => w !== null).join(', ');
  return (
    <section className="zb-block" aria-label="Ways of doing">
      <h2>Ways of doing</h2>
      {offered.length === 0 ? (
        <p className="zb-dim">
          {where === ''
            ? 'Choose a part or a net: what can be done there is offered with its values.'
            : `Nothing is offered at ${where}.`}
        </p>
      ) : (
        <ul className={styles.ways}>
          {offered.map(({ recipe }) => (
            <li key={recipe.id}>
              <Button
                size="small"
                type={recipe.id === open?.recipe.id ? 'primary' : 'default'}
                aria-expanded={recipe.id === open?.recipe.id}
                onClick={() => setOpenId(recipe.id === openId ? null : recipe.id)}
              >
                {recipe.title}
              </Button>
            </li>
          ))}
        </ul>
      )}
      {open && <Way key={`${open.recipe.id} ${where}`} offered={open} />}
    </section>
  );
});

/** A recipe's questions at a place; none where it does not fit or the circuit cannot be computed yet. */
function asksAt(recipe: Recipe, spot: Spot): readonly Ask[] | null {
  try {
    return recipe.asks(spot);
  } catch (error) {
    if (error instanceof ZembleError) return null;
    throw error;
  }
}

type Outcome =
  | { readonly ok: true; readonly made: Made; readonly name: string; readonly phrase: string }
  | { readonly ok: false; readonly sentence: string };

/** One way: what it asks, what comes of it, to be planned or tried first. */
function Way({ offered: { recipe, asks } }: { readonly offered: Offered }) {
  const { document, unit } = useUnitContext();
  const { selectedRef, selectedNet } = useSelection();
  const { add, put } = useChangeActions();
  const { setLayer } = useLayer();
  const [answers, setAnswers] = useState<Answers>(() => Object.fromEntries(asks.map((a) => [a.id, a.usual])));
  const [typed, setTyped] = useState<{ readonly id: string; readonly text: string } | null>(null);
  const [trialId, setTrialId] = useState<string | null>(null);
  // What is on trial is no part of what the next one starts from.
  const circuit = document.circuit;
  const outcome = useMemo(
    () => outcomeOf(recipe, new Spot(circuit, { ref: selectedRef, net: selectedNet }), answers),
    [recipe, circuit, selectedRef, selectedNet, answers],
  );
  const read = outcome.ok ? parseChangeLine(outcome.phrase, circuit) : null;
  const change = (isTrial: boolean, made = outcome, steps = read) => {
    if (!made.ok || !steps?.ok) return;
    const trial = unit.changes.find((c) => c.id === trialId);
    if (trial?.change.state === 'done') put(trial, 'undone');
    const id = add({
      name: made.name,
      purpose: isTrial ? 'trial' : 'modification',
      steps: steps.steps,
      why: made.made.says[0] ?? '',
      ...(isTrial ? { state: 'done' } : {}),
    });
    setTrialId(isTrial ? id : null);
    // A trial lies on the bench as it was found; what is planned is seen on its own layer.
    setLayer(isTrial ? 'found' : 'planned');
  };
  const hear = (factor: number) => {
    const [first] = asks;
    if (!first) return;
    const value = answers[first.id]!;
    const next = first.quantity === 'level' ? value + 20 * Math.log10(factor) : value * factor;
    const asked = { ...answers, [first.id]: next };
    setAnswers(asked);
    const made = outcomeOf(recipe, new Spot(circuit, { ref: selectedRef, net: selectedNet }), asked);
    if (made.ok) change(true, made, parseChangeLine(made.phrase, circuit));
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
              onPressEnter={() => change(false)}
            />
          </label>
        );
      })}
      <div role="status">
        {!outcome.ok && <p className="zb-refused">{outcome.sentence}</p>}
        {read && !read.ok && <p className="zb-refused">{read.problem.message}</p>}
        {outcome.ok && read?.ok && (
          <>
            <p className="zb-mono zb-planned">{read.words}</p>
            <div className={styles.goalMore}>
              <Button type="primary" onClick={() => change(false)}>
                Plan it
              </Button>
              <Button onClick={() => change(true)}>Clip it on first</Button>
            </div>
            {outcome.made.says.map((s) => (
              <p key={s}>{s}</p>
            ))}
            {outcome.made.traps.map((s) => (
              <p key={s} className="zb-edge">
                {s}
              </p>
            ))}
          </>
        )}
      </div>
      {trialId !== null && asks.length > 0 && (
        <Heard isMoreFaster={recipe.isMoreSlower !== true} onHeard={hear} onRight={() => change(false)} />
      )}
    </div>
  );
}

const valueIn = (text: string, ask: Ask): number | null => {
  const parsed = parseValue(text, { kind: ask.quantity, purpose: 'reading' });
  return parsed.ok ? parsed.readings[0].value : null;
};

function outcomeOf(recipe: Recipe, spot: Spot, answers: Answers): Outcome {
  try {
    const made = recipe.make(spot, answers);
    const at = made.line.indexOf(':');
    return { ok: true, made, name: made.line.slice(0, at), phrase: made.line.slice(at + 1) };
  } catch (error) {
    // What the circuit cannot be computed for is told as it is everywhere.
    if (error instanceof Error) return { ok: false, sentence: error.message };
    throw error;
  }
}

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
