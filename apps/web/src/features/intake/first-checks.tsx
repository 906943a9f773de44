import { causeOf, firstChecks, fuseOut, withCheck } from '@zemble/core';
import { Button } from 'antd';
import { Link } from 'react-router';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { ToneMark } from '../../ui/marks.tsx';
import { StillOut } from '../changes/index.ts';
import { useIntake } from './use-intake.ts';
import styles from './intake.module.css';

/** What is checked before any screw, cheapest first. What was checked counts in the search. */
export function FirstChecks() {
  const { unit, document } = useUnitContext();
  const { intake, setIntake } = useIntake();
  const checks = firstChecks({ kind: unit.kind, hazards: unit.hazards, intake, path: document.path });
  const made = intake.checks ?? {};
  const set = (id: string, outcome: 'fine' | 'was it' | null) =>
    setIntake(withCheck(intake, id, outcome, new Date().toISOString()));
  const cause = causeOf(intake);
  return (
    <section className="zb-block" aria-label="First checks">
      <h2>
        First checks{' '}
        <span className="zb-dim">
          {Object.keys(made).length} of {checks.length} made
        </span>
      </h2>
      {cause?.check !== undefined && (
        <p className="zb-conviction" role="status">
          {cause.words} <Link to="../find">Prove it in Find</Link>
        </p>
      )}
      <ol className={styles.checks}>
        {checks.map((c) => {
          const outcome = made[c.id];
          return (
            <li key={c.id}>
              <span className="zb-check-mark">
                {outcome && <ToneMark tone={outcome === 'fine' ? 'in' : 'out'} />}
              </span>
              <div>
                <p>{c.what}</p>
                <p className="zb-dim">
                  rules out {c.rulesOut} · {c.minutes} min
                </p>
                {c.warning && <p className="zb-edge">{c.warning}</p>}
                {c.id === 'fuse' && outcome && (
                  <StillOut made={fuseOut([], document.circuit)} words="the fuse is still out" />
                )}
              </div>
              {outcome ? (
                <Button
                  size="small"
                  type="text"
                  onClick={() => set(c.id, null)}
                  aria-label={`Undo the check: ${c.what}`}
                >
                  {outcome}
                </Button>
              ) : (
                <span className={styles.checkAnswers}>
                  <Button size="small" onClick={() => set(c.id, 'fine')} aria-label={`Fine: ${c.what}`}>
                    fine
                  </Button>
                  <Button
                    size="small"
                    onClick={() => set(c.id, 'was it')}
                    aria-label={`It was this: ${c.what}`}
                  >
                    it was this
                  </Button>
                </span>
              )}
            </li>
          );
        })}
      </ol>
    </section>
  );
}
