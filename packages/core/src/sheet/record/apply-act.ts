import {
  isUnitField,
  type Act,
  type ActOf,
  type PartResource,
  type SheetPart,
  type UnitResource,
} from '@zemble/contract';
import { renamedEnds, restated } from '../../circuit/continuity/index.ts';

import { withStepTicked } from '../../work/steps/index.ts';
import { readPart } from '../formats/index.ts';
import { withThings } from './apply-edit.ts';
import { dropPlanActs, planActs } from './plan.ts';
import { withClaimedNames, withTracedNets } from './traced.ts';

/**
 * The unit as it will be when the server has an act. What only the server can say (words of the log, a picture that is turned) is
 * shown when it has said it.
 */
export function applyAct(unit: UnitResource, act: Act): UnitResource {
  switch (act.type) {
    case 'add-part':
      return isThere(unit.parts, act.id) ? unit : withAddedPart(unit, act);
    case 'update-part':
      return withEnteredPart(unit, act);
    case 'remove-part':
      return withTracedNets({ ...unit, parts: without(unit.parts, act.partId) });
    case 'add-reading': {
      if (isThere(unit.readings, act.id)) return unit;
      const { type: _type, seen: _seen, ...told } = act;
      return { ...unit, readings: [...unit.readings, { ...BLANK_READING, ...told }] };
    }
    case 'amend-reading':
      return { ...unit, readings: changed(unit.readings, act.readingId, (r) => ({ ...r, ...act.told })) };
    case 'add-readout': {
      if (isThere(unit.readouts, act.id)) return unit;
      const made = { id: act.id, version: 0, position: unit.readouts.length, readout: act.readout };
      return { ...unit, readouts: [...unit.readouts, made] };
    }
    case 'update-readout': {
      const { seen, readout } = act;
      const next = changed(unit.readouts, act.readoutId, (r) => ({ ...r, version: seen + 1, readout }));
      return { ...unit, readouts: next };
    }
    case 'remove-readout':
      return { ...unit, readouts: without(unit.readouts, act.readoutId) };
    case 'add-change': {
      if (isThere(unit.changes, act.id)) return unit;
      const position = (unit.changes.at(-1)?.position ?? -1) + 1;
      return {
        ...unit,
        changes: [...unit.changes, { id: act.id, version: 0, position, change: act.change }],
      };
    }
    case 'update-change': {
      const { seen, change } = act;
      return {
        ...unit,
        changes: changed(unit.changes, act.changeId, (c) => ({ ...c, version: seen + 1, change })),
      };
    }
    case 'plan-values':
      return planActs(unit, act).reduce(applyAct, unit);
    case 'drop-plan':
      return dropPlanActs(unit, act.ref).reduce(applyAct, unit);
    case 'update-unit': {
      const seen = Object.entries(act.seen).filter(([field]) => isUnitField(field));
      const versions = Object.fromEntries(seen.map(([field, version]) => [field, (version ?? 0) + 1]));
      const values = Object.fromEntries(Object.entries(act.values).filter(([, v]) => v !== undefined));
      return { ...unit, ...values, versions: { ...unit.versions, ...versions } };
    }
    case 'put-things':
      return withThings(unit, act.things) ?? unit;
    case 'add-evidence': {
      const { evidence, id, takenAt } = act;
      if (isThere(unit.evidence, id)) return unit;
      return { ...unit, evidence: [...unit.evidence, { ...evidence, id, takenAt, withdrawn: false }] };
    }
    case 'withdraw-evidence':
      return {
        ...unit,
        evidence: changed(unit.evidence, act.evidenceId, (e) => ({ ...e, withdrawn: true })),
      };
    case 'add-beep': {
      const { beep, id, takenAt } = act;
      if (isThere(unit.beeps, id)) return unit;
      return withTracedNets({ ...unit, beeps: [...unit.beeps, { ...beep, id, takenAt, withdrawn: false }] });
    }
    case 'withdraw-beep':
      return withTracedNets({
        ...unit,
        beeps: changed(unit.beeps, act.beepId, (b) => ({ ...b, withdrawn: true })),
      });
    case 'beep-through':
      return withTracedNets({
        ...unit,
        beeps: changed(unit.beeps, act.beepId, (b) => ({ ...b, through: act.through })),
      });
    case 'tick-step':
      return withTick(unit, act);
    case 'update-photo': {
      const { name, points, overlay } = act.values;
      const values = { ...(name === undefined ? {} : { name }), ...(points === undefined ? {} : { points }) };
      const photos = changed(unit.photos, act.photoId, (p) => ({
        ...p,
        ...values,
        overlay: { ...p.overlay, ...overlay },
        version: act.seen + 1,
      }));
      return { ...unit, photos };
    }
    case 'remove-photo':
      return { ...unit, photos: without(unit.photos, act.photoId) };
    case 'add-note':
    case 'undo':
      return unit;
  }
}

const BLANK_READING = {
  partId: null,
  readoutId: null,
  changeId: null,
  ref: null,
  instrument: null,
  esr: null,
  aspect: null,
  red: null,
  isAsDrawn: false,
  between: null,
  withdrawn: false,
} as const;

interface Named {
  readonly id: string;
}
const isThere = (list: readonly Named[], id: string): boolean => list.some((each) => each.id === id);
const without = <T extends Named>(list: readonly T[], id: string): T[] =>
  list.filter((each) => each.id !== id);
const changed = <T extends Named>(list: readonly T[], id: string, make: (row: T) => T): T[] =>
  list.map((each) => (each.id === id ? make(each) : each));

/** A unit with a tick: in the change that has the step, or beside its fields. */
function withTick(unit: UnitResource, { id, isDone, at, step }: ActOf<'tick-step'>): UnitResource {
  const row = unit.changes.find(({ change }) => change.id === step?.change);
  if (row && step) {
    const change = withStepTicked(row.change, step.step, isDone ? { at } : undefined, at);
    return {
      ...unit,
      changes: changed(unit.changes, row.id, (c) => ({ ...c, version: c.version + 1, change })),
    };
  }
  const { [id]: _gone, ...others } = unit.ticks;
  return { ...unit, ticks: isDone ? { ...unit.ticks, [id]: { at } } : others };
}

/** A unit with a new part, on the nets that it says. */
function withAddedPart(unit: UnitResource, act: ActOf<'add-part'>): UnitResource {
  const claimed = withClaimedNames(unit, readPart(act.part, act.part.ref, []), act.id);
  return withTracedNets({ ...claimed, parts: withNewPart(claimed.parts, act) });
}

/** A unit with a part entered anew, and the beeps of its designator. */
function withEnteredPart(unit: UnitResource, act: ActOf<'update-part'>): UnitResource {
  const known = unit.parts.find((p) => p.id === act.partId);
  if (!known) return unit;
  const before = readPart(known.part, known.part.ref, []);
  const part = restated(before, readPart(act.part, act.part.ref, [])) as SheetPart;
  const beeps =
    part.ref === before.ref
      ? unit.beeps
      : unit.beeps.map((b) => ({ ...b, ends: renamedEnds(b.ends, before.ref, part.ref) }));
  const claimed = withClaimedNames({ ...unit, beeps }, readPart(part, part.ref, []), act.partId);
  return withTracedNets({
    ...claimed,
    parts: claimed.parts.map((p) => (p === known ? { ...p, version: act.seen + 1, part } : p)),
  });
}

/** Parts with a new one at its position, those from there on moved down. */
function withNewPart(
  parts: readonly PartResource[],
  { id, part, position }: ActOf<'add-part'>,
): PartResource[] {
  const last = parts.at(-1)?.position ?? -1;
  const at = position ?? last + 1;
  const made = { id, version: 0, position: at, part };
  const moved = parts.map((p) => (p.position >= at ? { ...p, position: p.position + 1 } : p));
  return [...moved, made].sort((a, b) => a.position - b.position);
}
