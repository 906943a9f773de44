import { Button } from 'antd';
import { Keys } from '../../ui/keys.tsx';
import type { Question } from './use-run.ts';
import styles from './measure.module.css';

const ARROWS = ['←', '→'] as const;

/** What would decide about a reading, each answer one key while the field is empty. */
export function QuestionLine({
  question: { ref, asks, taken, pins },
  onAnswer,
}: {
  readonly question: Question;
  readonly onAnswer: (index: number) => void;
}) {
  if (asks === 'controls')
    return (
      <p className={styles.leadQuestion} role="group" aria-label={`Controls when ${ref} was read`}>
        <span>All controls as drawn when {ref} was read?</span>
        <Button size="small" onClick={() => onAnswer(1)}>
          they were <Keys keys={ARROWS[1]} />
        </Button>
      </p>
    );
  return (
    <p className={styles.leadQuestion} role="group" aria-label={`Red lead of ${ref}`}>
      <span>
        {taken === null
          ? `Red lead of ${ref} on which pin?`
          : `Red lead of ${ref} taken at ${taken}, as before:`}
      </span>
      {pins.map(([pin, net], i) => (
        <Button
          key={pin}
          size="small"
          type={pin === taken ? 'primary' : 'default'}
          aria-pressed={pin === taken}
          onClick={() => onAnswer(i)}
        >
          {pin}, at {net} <Keys keys={ARROWS[i] ?? ''} />
        </Button>
      ))}
    </p>
  );
}
