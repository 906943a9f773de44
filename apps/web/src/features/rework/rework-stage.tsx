import { useMemo, useState } from 'react';
import { useTrial } from '../../unit/trial.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { useLayer } from '../../unit/layer.tsx';
import { CircuitPanel } from '../circuit/index.ts';
import { ConvictedList } from './convicted-list.tsx';
import { GoalForm } from './goal-form.tsx';
import { HandTuning } from './hand-tuning.tsx';
import { ProposalList } from './proposal-list.tsx';
import { useSearch } from './use-search.ts';
import type { Proposal } from '@halfsplit/core';

/** Say what a readout should be and which parts may change; or turn values by hand and watch. */
export function ReworkStage() {
  const { unit, change, document } = useUnitContext();
  const { setTrial, trial } = useTrial();
  const { setLayer } = useLayer();
  const search = useSearch();
  const [tried, setTried] = useState<Proposal | null>(null);
  const versions = useMemo(() => new Map(unit.parts.map((p) => [p.part.ref, p])), [unit.parts]);

  const attempt = (proposal: Proposal | null) => {
    setTried(proposal);
    setTrial(new Map(proposal?.changes.map((c) => [c.ref, c.value])));
    if (proposal) setLayer('planned');
  };
  const plan = (values: ReadonlyMap<string, number>, reason: string) => {
    const changes = [...values].flatMap(([ref, planned]) => {
      const part = versions.get(ref);
      return part ? [{ partId: part.id, baseVersion: part.version, planned }] : [];
    });
    if (changes.length > 0) change({ type: 'accept-plan', changes, reason });
    attempt(null);
    search.clear();
    setLayer('planned');
  };
  return (
    <div className="hs-split">
      <section className="hs-panel hs-sheet" aria-label="Rework">
        <div className="hs-scroll">
          <ConvictedList />
          <GoalForm search={search} />
          <ProposalList
            search={search}
            tried={tried}
            onTry={attempt}
            onPlan={(p, reason) => plan(new Map(p.changes.map((c) => [c.ref, c.value])), reason)}
          />
          <HandTuning
            onTurn={(ref, value) => {
              setTried(null);
              setTrial(new Map([...trial, [ref, value]]));
              setLayer('planned');
            }}
            onDrop={() => attempt(null)}
            onPlan={() => plan(trial, 'turned by hand')}
            onClear={(ref) => {
              const part = versions.get(ref);
              if (part)
                change({
                  type: 'accept-plan',
                  changes: [{ partId: part.id, baseVersion: part.version, planned: null }],
                  reason: 'plan dropped',
                });
            }}
            circuit={document.circuit}
          />
        </div>
      </section>
      <CircuitPanel />
    </div>
  );
}
