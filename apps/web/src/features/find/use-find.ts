import { unitAct } from '../../api/unit-act.ts';
import type { CreateEvidence, Damage, IntakeData } from '@zemble/contract';
import {
  partsInPlace,
  causeOf,
  convictDamage,
  withCheck,
  withoutDamage,
  withProof,
  type Conviction,
  type ProofOutcome,
  type School,
  type SearchState,
} from '@zemble/core';
import { useMemo, useState } from 'react';
import useSWR from 'swr';
import { getRepairs } from '../../api/client.ts';
import { newId } from '../../api/new-id.ts';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { useSearch } from '../../compute/use-search.ts';
import type { BlockView, PointView } from '../../ui/path-drawing.tsx';

/** A block that holds this much of the suspicion may be convicted; one with less than this is cleared. */
export const CONVICTING = 0.85;
const CLEARED = 0.01;

/** The search of the unit on the bench: where it stands, and how a test is recorded. */
export function useFind() {
  const { unit, document, change } = useUnitContext();
  const [school, setSchool] = useState<School>('value');
  const { data: repairs } = useSWR('repairs', getRepairs);
  const options = useMemo(
    () => ({ school, ...(repairs ? { history: repairs.kinds } : {}) }),
    [school, repairs],
  );
  const { state, sentence } = useSearch(document, options);
  const record = (evidence: CreateEvidence) =>
    change({ type: 'add-evidence', id: newId(), evidence, takenAt: new Date().toISOString() });
  /** A reading of a part across it in its circuit, with the red lead at a net. */
  const readPart = (ref: string, value: number | 'open' | 'short', redNet: string) => {
    const place = partsInPlace(unit).find((p) => p.part.ref === ref);
    if (!place) return;
    const red = Object.entries(place.part.pins).find(([, net]) => net === redNet)?.[0];
    change({
      type: 'add-reading',
      id: newId(),
      ...place.of,
      seen: place.version,
      value: value === 0 ? 'short' : value,
      condition: 'in circuit',
      ...(red === undefined ? {} : { red }),
      takenAt: new Date().toISOString(),
    });
  };
  const withdraw = (evidenceId: string) => change({ type: 'withdraw-evidence', evidenceId });
  const setIntake = (intake: IntakeData) => change(unitAct(unit, { intake }));
  const now = () => new Date().toISOString();
  const uncheck = (id: string) => setIntake(withCheck(unit.intake, id, null, now()));
  const prove = (conviction: Conviction, outcome: ProofOutcome) =>
    setIntake(withProof(unit.intake, conviction, outcome, now()));
  const forgetDamage = (damage: Damage) => setIntake(withoutDamage(unit.intake, damage));
  const blameDamage = (damage: Damage) => {
    const block = document.path?.blocks.find(
      (b) => b.id === damage.target || (damage.target !== undefined && b.parts?.includes(damage.target)),
    );
    const isPart = unit.parts.some((p) => p.part.ref === damage.target);
    setIntake(
      convictDamage(
        unit.intake,
        damage,
        {
          ...(block ? { blockId: block.id } : {}),
          ...(block?.kind === undefined ? {} : { kind: block.kind }),
          ...(isPart ? { ref: damage.target } : {}),
        },
        now(),
      ),
    );
  };
  const blocks = useMemo(
    () => blockViews(document.path?.blocks ?? [], state, unit.intake.convicted ?? []),
    [document.path, state, unit.intake.convicted],
  );
  const points = useMemo(() => pointViews(state), [state]);
  return {
    state,
    sentence,
    school,
    setSchool,
    record,
    readPart,
    withdraw,
    uncheck,
    prove,
    forgetDamage,
    blameDamage,
    cause: causeOf(unit.intake),
    blocks,
    points,
  };
}

function blockViews(
  blocks: readonly { readonly id: string }[],
  state: SearchState | null,
  convicted: readonly { readonly blockId?: string | undefined }[],
): ReadonlyMap<string, BlockView> {
  if (!state) return new Map();
  const tested = state.observations.length > 0;
  return new Map(
    state.suspects.flatMap(({ block, alone }): [string, BlockView][] => {
      const id = blocks[block]?.id;
      if (id === undefined) return [];
      const isConvicted = convicted.some((c) => c.blockId === id);
      const stand = isConvicted
        ? 'convicted'
        : tested && alone < CLEARED
          ? 'cleared'
          : tested
            ? 'suspected'
            : 'untested';
      return [[id, { stand, share: alone }]];
    }),
  );
}

/** What was last seen at each place, as the search took it. */
function pointViews(state: SearchState | null): ReadonlyMap<string, PointView> {
  return new Map(
    (state?.observations ?? []).map((o) => [o.evidence.at, o.seen === 'good' ? 'good' : 'bad'] as const),
  );
}
