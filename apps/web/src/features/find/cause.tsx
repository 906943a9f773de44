import type { Conviction, ProofOutcome } from '@zemble/core';
import { Button } from 'antd';
import dayjs from 'dayjs';
import { Link } from 'react-router';
import styles from './find.module.css';

interface Props {
  readonly cause: Conviction;
  readonly onProve: (outcome: ProofOutcome) => void;
  readonly onGoOn: () => void;
}

/** What ended the search: its cause, and the proof that it was that. */
export function Cause({ cause, onProve, onGoOn }: Props) {
  const { proof } = cause;
  return (
    <section className={styles.cause} aria-label="Cause">
      <h3>{proof ? 'Found and proved' : 'Found'}</h3>
      <p role="status">{cause.words}</p>
      {proof ? (
        <p className="zb-dim">
          Right again on {dayjs(proof.at).format('D MMMM YYYY, HH:mm')}.{' '}
          <Link to="../log">It stands in the log</Link>
        </p>
      ) : (
        <>
          <p>Mend it, then try the unit as it is used. Does it do what it should now?</p>
          <div className="zb-answers">
            <Button type="primary" onClick={() => onProve('right')}>
              It is right now
            </Button>
            <Button onClick={() => onProve('not it')}>It was not that</Button>
          </div>
        </>
      )}
      <Button type="link" onClick={onGoOn}>
        Search on all the same
      </Button>
    </section>
  );
}
