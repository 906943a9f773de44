import type { Proposal } from '@zemble/core';
import { useCallback, useEffect, useRef, useState } from 'react';
import { useLayer } from '../../unit/layer.tsx';
import { newId } from '../../api/new-id.ts';
import { useTrial } from '../../unit/trial.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { ChangesPanel, ControlsPanel } from '../changes/index.ts';
import { CircuitPanel } from '../circuit/index.ts';
import { ConvictedList } from './convicted-list.tsx';
import { GoalForm } from './goal-form.tsx';
import { HandTuning } from './hand-tuning.tsx';
import { Limits } from './limits.tsx';
import { ProposalList } from './proposal-list.tsx';
import { useSearch } from './use-search.ts';
import { Ways } from './ways.tsx';

const valuesOf = (proposal: Proposal | null): ReadonlyMap<string, number> =>
  new Map(proposal?.changes.map((c) => [c.ref, c.value]));

/** Say what a readout should be and which parts may change; or turn values by hand and watch. */
export function ReworkStage() {
  const search = useSearch();
  const { trialled, attempt, turn, plan, dropPlan } = usePlanning(search.clear);
  const planProposal = useCallback(
    (p: Proposal, reason: string, twin: ReadonlyMap<string, number>) =>
      plan(new Map([...valuesOf(p), ...twin]), reason),
    [plan],
  );
  const planTurned = useCallback(() => plan(null, 'turned by hand'), [plan]);
  const drop = useCallback(() => attempt(null), [attempt]);
  return (
    <div className="zb-split">
      <section className="zb-panel zb-sheet" aria-label="Rework">
        <div className="zb-scroll" tabIndex={0} role="group" aria-label="Rework, scrolls">
          <ConvictedList />
          <ChangesPanel />
          <Ways />
          <GoalForm search={search} />
          <ProposalList search={search} tried={trialled} onTry={attempt} onPlan={planProposal} />
          <HandTuning onTurn={turn} onDrop={drop} onPlan={planTurned} onClear={dropPlan} />
          <ControlsPanel />
          <Limits />
        </div>
      </section>
      <CircuitPanel hasOffers={false} />
    </div>
  );
}

/** Trying values and planning them. What it answers with stays the same while values are turned. */
function usePlanning(onPlanned: () => void) {
  const { unit, change } = useUnitContext();
  const { setTrial, trial } = useTrial();
  const { setLayer } = useLayer();
  const [trialled, setTrialled] = useState<Proposal | null>(null);
  const latest = useRef({ unit, trial });
  useEffect(() => {
    latest.current = { unit, trial };
  });
  const attempt = useCallback(
    (proposal: Proposal | null) => {
      setTrialled(proposal);
      setTrial(valuesOf(proposal));
      if (proposal) setLayer('planned');
    },
    [setTrial, setLayer],
  );
  const turn = useCallback(
    (ref: string, value: number) => {
      setTrialled(null);
      setTrial(new Map([...latest.current.trial, [ref, value]]));
      setLayer('planned');
    },
    [setTrial, setLayer],
  );
  /** Plans values, or what is being tried. */
  const plan = useCallback(
    (values: ReadonlyMap<string, number> | null, reason: string) => {
      const wanted = values ?? latest.current.trial;
      const plan = { id: newId(), values: Object.fromEntries(wanted), why: reason };
      if (wanted.size > 0) change({ type: 'plan-values', ...plan, purpose: 'modification' });
      attempt(null);
      onPlanned();
      setLayer('planned');
    },
    [change, attempt, onPlanned, setLayer],
  );
  const dropPlan = useCallback((ref: string) => change({ type: 'drop-plan', ref }), [change]);
  return { trialled, attempt, turn, plan, dropPlan };
}
