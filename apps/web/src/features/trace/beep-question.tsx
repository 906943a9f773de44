import { whyBeep, type BeepQuestion as Question } from '@zemble/core';
import { Button } from 'antd';
import { useState } from 'react';
import { Keys } from '../../ui/keys.tsx';
import { useSelection } from '../../unit/selection.tsx';
import { allBeep, isEach, MOST_KEYED, noneBeeps, oneBeeps, thisBeeps } from './answer-keys.ts';
import styles from './beeps.module.css';
import type { Beeps } from './use-beeps.ts';

/** The next beep: where one lead is held, what the other is drawn over, and one press for what was heard. */
export function BeepQuestion({ beeps }: { beeps: Beeps }) {
  const { next, passed, takeUpPassed, traced, throughs, contradictions } = beeps;
  const isOpen = throughs.length > 0 || contradictions.length > 0;
  const { question } = next;
  if (traced.parts.length === 0)
    return (
      <p className="zb-empty-words">
        Type the parts as you see them on the board, one a line, without nets. Then hold one lead on a pin and
        draw the other over the rest: what beeps is one net.
      </p>
    );
  if (!question)
    return (
      <div className={styles.question}>
        {passed.size > 0 ? (
          <>
            <p className={styles.hold}>Only what was passed over is left: {[...passed].join(', ')}.</p>
            <Button onClick={takeUpPassed}>Take it up again</Button>
          </>
        ) : (
          <p className={styles.hold}>
            {isOpen
              ? 'Nothing more is to be beeped, but what is asked above is not settled.'
              : 'Every net is settled and proven.'}
          </p>
        )}
      </div>
    );
  return (
    <Asked
      key={`${question.kind} ${question.hold} ${question.over.join(' ')}`}
      question={question}
      beeps={beeps}
    />
  );
}

function Asked({ question, beeps }: { question: Question; beeps: Beeps }) {
  const { placeOf, record, pass, nets } = beeps;
  const [silent, setSilent] = useState<readonly string[]>([]);
  const { hold, over } = question;
  const { selectRef, selectNet } = useSelection();
  const showHeld = () => {
    const [ref, pin] = [hold.slice(0, Math.max(0, hold.indexOf('.'))), hold.slice(hold.indexOf('.') + 1)];
    selectRef(ref === '' ? null : ref);
    selectNet(nets.pins.get(ref)?.[pin] ?? hold);
  };
  const isTogether = isEach(question);
  const toggle = (end: string) =>
    setSilent(silent.includes(end) ? silent.filter((s) => s !== end) : [...silent, end]);
  return (
    <div className={styles.question} role="group" aria-label="The next beep">
      <p className={styles.hold}>
        Hold one lead on{' '}
        <button className={styles.held} title="Show it on the photo and the drawing" onClick={showHeld}>
          {placeOf(hold).words}
        </button>
        .{' '}
        {isTogether
          ? over.length === 1
            ? 'Touch this with the other: does it beep?'
            : 'Touch each of these with the other: do all beep? Press what stays silent.'
          : 'Draw the other over these: where does it beep?'}
      </p>
      <p className="zb-dim">{whyBeep(question)}</p>
      <div className={styles.ends}>
        {over.map((end, i) => (
          <button
            key={end}
            className={styles.end}
            title={placeOf(end).words}
            aria-pressed={isTogether ? !silent.includes(end) : undefined}
            onClick={() => (isTogether ? toggle(end) : record(thisBeeps(question, end)))}
          >
            {placeOf(end).short}
            {!isTogether && i < MOST_KEYED && <Keys keys={String(i + 1)} />}
            {isTogether && silent.includes(end) && <span className={styles.silent}>silent</span>}
          </button>
        ))}
      </div>
      <div className="zb-answers">
        {isTogether ? (
          <button className={styles.answer} onClick={() => record(...allBeep(question, silent))}>
            {allWords(over.length, silent.length)} {silent.length === 0 && <Keys keys="Enter" />}
          </button>
        ) : (
          <>
            <button className={styles.answer} onClick={() => record(noneBeeps(question))}>
              {over.length === 1 ? 'No beep' : 'None beeps'} <Keys keys="0" />
            </button>
            {over.length > 1 && (
              <button className={styles.answer} onClick={() => record(oneBeeps(question))}>
                It beeps, I did not see where <Keys keys="?" />
              </button>
            )}
          </>
        )}
        <button className={styles.plain} onClick={() => pass(hold)}>
          Pass it over <Keys keys="→" />
        </button>
      </div>
    </div>
  );
}

/** How many of those that were touched beep. */
function allWords(touched: number, silent: number): string {
  if (silent === 0) return touched === 1 ? 'It beeps' : 'All beep';
  return silent === touched ? 'None beeps' : `All but ${silent} beep`;
}
