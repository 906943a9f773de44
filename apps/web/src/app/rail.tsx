import { NavLink } from 'react-router';
import { ToneMark } from '../ui/marks.tsx';
import { isStageDone, RAIL } from '../unit/stages.ts';
import { useUnitContext } from '../unit/unit-context.tsx';

/** The stages as index tabs of a workshop notebook: numbered, ticked when done, the open one joined to the page. */
export function Rail() {
  const { unit, problems } = useUnitContext();
  return (
    <nav className="hs-rail" aria-label="Stages">
      {RAIL.map(({ stage, word }, i) => {
        const isDone = isStageDone(stage, unit, problems.length);
        return (
          <NavLink
            key={stage}
            to={`/units/${unit.id}/${stage}`}
            className="hs-tab"
            aria-keyshortcuts={`Alt+${i + 1}`}
          >
            <span className="hs-tab-number">{isDone ? <ToneMark tone="in" /> : i + 1}</span>
            {word}
            {isDone && <span className="hs-sr">, done</span>}
          </NavLink>
        );
      })}
    </nav>
  );
}
