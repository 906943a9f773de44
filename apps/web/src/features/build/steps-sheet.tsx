import type { BenchStep, LayerPart, TickedStep } from '@zemble/core';
import { printedParts } from '@zemble/core';
import { SoundOutlined } from '@ant-design/icons';
import { Button, Select } from 'antd';
import { useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { Keys } from '../../ui/keys.tsx';
import { ToneMark } from '../../ui/marks.tsx';
import { useSelection } from '../../unit/selection.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { workChoices } from './choose-work.ts';
import { PartPicture } from './part-picture.tsx';
import { speak } from './speak.ts';
import { useBenchWork, type BenchWork } from './use-bench-work.ts';
import { whenWords } from '../../ui/when.ts';
import styles from './build.module.css';

/** The bench work: the step at hand in large type, and all of them below it. */
export function StepsSheet({ tabs }: { readonly tabs: ReactNode }) {
  const { unit } = useUnitContext();
  const [openedAt] = useState(() => Date.now());
  const choices = useMemo(() => workChoices(unit, openedAt), [unit, openedAt]);
  const [key, setKey] = useState<string | null>(null);
  const choice = choices.find((c) => c.key === key) ?? choices[0]!;
  const work = useBenchWork(choice.wish);
  const [shownId, setShownId] = useState<string | null>(null);
  const shown = work.steps?.find((s) => s.step.id === shownId) ?? work.next;
  const doneCount = work.steps?.filter((s) => s.done).length ?? 0;
  return (
    <section className="zb-panel zb-sheet" aria-label="Steps">
      <header className="zb-panel-head">
        {tabs}
        <span className="zb-grow" />
        <Button size="small" type="text" onClick={() => window.print()} disabled={!work.steps?.length}>
          Print
        </Button>
      </header>
      <div className={styles.choice}>
        <Select
          size="small"
          value={choice.key}
          onChange={(value) => {
            setKey(value);
            setShownId(null);
          }}
          options={choices.map((c) => ({ value: c.key, label: c.words }))}
          aria-label="Which work"
          className={styles.choiceField}
          popupMatchSelectWidth={false}
        />
        <span className="zb-dim zb-nowrap">
          {work.steps
            ? `${doneCount} of ${work.steps.length} done`
            : work.why === null
              ? 'working it out…'
              : 'not worked out'}
        </span>
        <span className="zb-grow" />
        {doneCount > 0 && (
          <Button
            size="small"
            type="text"
            onClick={work.beginAnew}
            title="Take the ticks away, those of changes apart"
          >
            Begin anew
          </Button>
        )}
      </div>
      {work.why !== null && (
        <p className="zb-problem" role="alert">
          The work could not be made out: {work.why} What is shown is of an earlier state.
        </p>
      )}
      {work.problems.map((p) => (
        <p key={p.message} className="zb-problem">
          {p.message}
        </p>
      ))}
      {work.steps?.length === 0 && (
        <p className="zb-empty-words">
          Nothing is planned. What is planned under Rework stands here as steps, in the order of good hands;
          above, the whole unit can be chosen, from nothing.
        </p>
      )}
      {work.steps && work.steps.length > 0 && !shown && (
        <p className="zb-empty-words" role="status">
          All {work.steps.length} steps are done. Prove says whether the unit does what was wished for.
        </p>
      )}
      {shown && <StepAtHand key={shown.step.id} ticked={shown} work={work} onShow={setShownId} />}
      {work.steps && work.steps.length > 0 && (
        <StepList steps={work.steps} shownId={shown?.step.id} onShow={setShownId} />
      )}
    </section>
  );
}

interface AtHandProps {
  readonly ticked: TickedStep;
  readonly work: BenchWork;
  readonly onShow: (id: string | null) => void;
}

/** One step in large type. Space ticks it and goes on; the arrows look forward and back; R reads it aloud. */
function StepAtHand({ ticked, work, onShow }: AtHandProps) {
  const { step, done, lapsed } = ticked;
  const { selectRef, selectNet } = useSelection();
  const steps = work.steps ?? [];
  const at = steps.findIndex((s) => s.step.id === step.id);
  const part = usePart(step);
  const open = work.missingBefore(step.id);
  const tick = () => {
    // On to the next that is open; null follows the work. What is not its turn stays at hand.
    if (work.tick(step, !done)) onShow(null);
  };
  const go = (by: number) => {
    const to = steps[at + by];
    if (to) onShow(to.step.id);
  };
  useEffect(() => {
    const [ref] = step.refs;
    const [net] = step.nets;
    selectRef(ref ?? null);
    selectNet(ref === undefined ? (net ?? null) : null);
  }, [step, selectRef, selectNet]);
  const keys = useRef({ tick, go, step });
  useEffect(() => {
    keys.current = { tick, go, step };
  });
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const field = event.target instanceof HTMLElement ? event.target : null;
      const isTyping =
        field !== null && field.closest('input, textarea, select, [role=combobox], .ant-drawer') !== null;
      if (isTyping || event.ctrlKey || event.metaKey || event.altKey) return;
      // A key that is held does once what it does.
      if (event.key === ' ' && !isPressed(field)) {
        if (!event.repeat) keys.current.tick();
      } else if (event.key === 'ArrowDown' || event.key === 'ArrowRight') keys.current.go(1);
      else if (event.key === 'ArrowUp' || event.key === 'ArrowLeft') keys.current.go(-1);
      else if (event.key.toLowerCase() === 'r') speak(wordsOf(keys.current.step));
      else return;
      event.preventDefault();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
  return (
    <div className={styles.atHand} role="group" aria-label="The step at hand">
      <p className={styles.kind} role="status">
        Step {at + 1} of {steps.length}, {step.kind}
      </p>
      <p className={styles.say}>{step.say}</p>
      {step.caution !== undefined && <p className={styles.caution}>{step.caution}</p>}
      {part && <PartPicture part={part} />}
      {step.place !== undefined && <p>On the board: {step.place}.</p>}
      <p className="zb-dim">{step.why}</p>
      {lapsed !== undefined && <p className="zb-edge">{lapsed}</p>}
      {open.length > 0 && !done && (
        <p className="zb-edge">
          Before it:{' '}
          {open
            .slice(0, 3)
            .map((s) => s.say.split(/[:.]/)[0])
            .join('; ')}
          {open.length > 3 ? ` and ${open.length - 3} more` : ''}.
        </p>
      )}
      <div className={styles.acts}>
        <Button type="primary" size="large" onClick={tick} disabled={!done && open.length > 0}>
          {done ? 'Not done after all' : 'Done'} <Keys keys="Space" />
        </Button>
        <Button size="large" onClick={() => go(-1)} disabled={at <= 0} aria-label="The step before">
          Back
        </Button>
        <Button
          size="large"
          onClick={() => go(1)}
          disabled={at >= steps.length - 1}
          aria-label="The step after"
        >
          Next
        </Button>
        <Button
          size="large"
          type="text"
          icon={<SoundOutlined aria-hidden />}
          onClick={() => speak(wordsOf(step))}
          aria-label="Read it aloud"
          title="Read it aloud (R)"
        />
        {done && <span className="zb-dim zb-nowrap">{whenWords(done.at)}</span>}
      </div>
    </div>
  );
}

/** Whether Space presses what has the focus. A row of the list is chosen by Enter or a tap, and leaves Space to the step. */
const isPressed = (field: HTMLElement | null): boolean =>
  field !== null && field.closest('button, a') !== null && field.closest('ol') === null;

const wordsOf = ({ say, caution }: BenchStep): string => (caution === undefined ? say : `${say} ${caution}`);

/** The part that a step puts in, as it is planned. */
function usePart(step: BenchStep): LayerPart | undefined {
  const { document } = useUnitContext();
  const parts = useMemo(() => printedParts(document.circuit, 'planned'), [document.circuit]);
  const isPutIn = step.kind === 'fit' || step.kind === 'chip';
  return isPutIn ? parts.find((p) => p.ref === step.refs[0]) : undefined;
}

interface ListProps {
  readonly steps: readonly TickedStep[];
  readonly shownId: string | undefined;
  readonly onShow: (id: string) => void;
}

/** All steps, each with its tick. */
function StepList({ steps, shownId, onShow }: ListProps) {
  const at = useRef<HTMLLIElement | null>(null);
  // The list follows the step at hand; the page, which scrolls on a phone, stays.
  useEffect(() => {
    const [row, list] = [at.current, at.current?.closest('.zb-scroll')];
    if (row && list instanceof HTMLElement)
      list.scrollTop = row.offsetTop - list.offsetTop - list.clientHeight / 3;
  }, [shownId]);
  return (
    <div className={`zb-scroll ${styles.list}`} tabIndex={0} role="group" aria-label="All steps, scrolls">
      <ol>
        {steps.map(({ step, done }, i) => (
          <li
            key={step.id}
            ref={step.id === shownId ? at : undefined}
            className={step.id === shownId ? styles.rowOn : styles.row}
          >
            <button
              className="zb-link"
              onClick={() => onShow(step.id)}
              aria-current={step.id === shownId ? 'step' : undefined}
            >
              <span className={styles.number}>
                {done ? <ToneMark tone="in" /> : i + 1}
                {done && <span className="zb-sr"> done </span>}
              </span>
              <span className={done ? 'zb-dim' : undefined}>{step.say}</span>
            </button>
            {step.caution !== undefined && <p className={styles.onPaper}>{step.caution}</p>}
          </li>
        ))}
      </ol>
    </div>
  );
}
