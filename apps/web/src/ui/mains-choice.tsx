import { MAINS_HZ } from '@zemble/contract';
import { useWorkshopChange } from '../api/outbox-context.tsx';
import { setMains } from '../api/workshop.ts';
import { useMains } from '../api/use-mains.ts';
import { OneOf } from './one-of.tsx';
import styles from './workshop-top.module.css';

const WORDS = MAINS_HZ.map((hz) => `${hz} Hz` as const);

/** The frequency of the mains: asked once, and kept for the whole workshop. */
export function MainsChoice() {
  const { mainsHz, isUnsaid } = useMains();
  const change = useWorkshopChange();
  return (
    <span className={styles.mains}>
      <span className={isUnsaid ? styles.asked : 'zb-dim'}>
        {isUnsaid ? 'Which mains is here?' : 'Mains'}
      </span>
      <OneOf
        label="Frequency of the mains"
        options={WORDS}
        value={isUnsaid ? null : `${mainsHz} Hz`}
        onChange={(word) => change(setMains(MAINS_HZ[WORDS.indexOf(word)]!))}
      />
    </span>
  );
}
