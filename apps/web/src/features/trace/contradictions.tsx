import { beepSentence } from '@zemble/core';
import { Button } from 'antd';
import { useUnitContext } from '../../unit/unit-context.tsx';
import styles from './beeps.module.css';
import type { Beeps } from './use-beeps.ts';

/** What beeps cannot both be, with the beeps to take back; and what may have beeped through a coil or a small resistor. */
export function Contradictions({ beeps }: { beeps: Beeps }) {
  const { unit } = useUnitContext();
  const { contradictions, throughs, differences, withdraw, sayThrough } = beeps;
  return (
    <>
      {throughs.map((question) => {
        const beep = unit.beeps[question.beep]!;
        return (
          <div key={beep.id} className={styles.asked} role="group" aria-label="Is it through a part?">
            <p>{question.sentence}</p>
            <p className={styles.row}>
              <Button size="small" type="primary" onClick={() => sayThrough(beep, question.ref)}>
                Through {question.ref}
              </Button>
              <Button size="small" onClick={() => sayThrough(beep, null)}>
                No, directly
              </Button>
              <Button size="small" type="text" onClick={() => withdraw(beep)}>
                Withdraw it
              </Button>
            </p>
          </div>
        );
      })}
      {differences.map(({ sentence }) => (
        <p key={sentence} className={styles.asked}>
          The channels differ: {sentence}
        </p>
      ))}
      {contradictions.map(({ sentence, beeps: which }) => (
        <div key={sentence} className={styles.contradiction} role="alert">
          <p>{sentence}</p>
          <ul>
            {which.map((i) => {
              const beep = unit.beeps[i]!;
              return (
                <li key={beep.id}>
                  <span>{beepSentence(beep)}</span>
                  <Button
                    size="small"
                    type="link"
                    aria-label={`Withdraw: ${beepSentence(beep)}`}
                    onClick={() => withdraw(beep)}
                  >
                    Withdraw
                  </Button>
                </li>
              );
            })}
          </ul>
        </div>
      ))}
    </>
  );
}
