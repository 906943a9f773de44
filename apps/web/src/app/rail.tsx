import { NavLink } from 'react-router';
import { ToneMark } from '../ui/marks.tsx';
import { isStageDone } from '../unit/is-stage-done.ts';
import { RAIL } from '../unit/stages.ts';
import { useUnitContext } from '../unit/unit-context.tsx';
import styles from './frame.module.css';

/** The stages as index tabs of a workshop notebook: numbered, ticked when done, the open one joined to the page. */
export function Rail() {
  const { unit, problems } = useUnitContext();
  return (
    <nav className={styles.rail} aria-label="Stages">
      {RAIL.map(({ stage, word }, i) => {
        const isDone = isStageDone(stage, unit, problems.length);
        return (
          <NavLink
            key={stage}
            to={`/units/${unit.id}/${stage}`}
            className={styles.tab}
            aria-keyshortcuts={`Alt+${i + 1}`}
          >
            <span className={styles.tabNumber}>{isDone ? <ToneMark tone="in" /> : i + 1}</span>
            {word}
            {isDone && <span className="zb-sr">, done</span>}
          </NavLink>
        );
      })}
    </nav>
  );
}
