import type { Edit, Effect, UnitResource } from '@zemble/contract';

/** Entries of the log that a page keeps. */
const KEPT_LOG = 500;

/**
 * A unit with an edit carried out on it; whatever the edit does not touch stays the same object. An edit that is in the
 * unit already leaves it as it is; null where edits in between are missing, and the unit has to be fetched.
 */
export function applyEdit(unit: UnitResource, edit: Edit): UnitResource | null {
  if (edit.sequence <= unit.sequence) return unit;
  if (edit.sequence > unit.sequence + 1) return null;
  return { ...edit.effects.reduce(withEffect, unit), sequence: edit.sequence };
}

/** Edits that follow one another, as `applyEdit` carries out each. */
export const applyEdits = (unit: UnitResource, edits: readonly Edit[]): UnitResource | null =>
  edits.reduce<UnitResource | null>((now, edit) => now && applyEdit(now, edit), unit);

function withEffect(unit: UnitResource, effect: Effect): UnitResource {
  switch (effect.of) {
    case 'unit':
      return { ...unit, ...defined(effect.value) };
    case 'part':
      return { ...unit, parts: withPart(unit.parts, effect.value, effect.isNew === true) };
    case 'readout':
      return { ...unit, readouts: byPosition(replaced(unit.readouts, effect.value)) };
    case 'change':
      return { ...unit, changes: byPosition(replaced(unit.changes, effect.value)) };
    case 'reading':
      return { ...unit, readings: byTime(replaced(unit.readings, effect.value)) };
    case 'evidence':
      return { ...unit, evidence: byTime(replaced(unit.evidence, effect.value)) };
    case 'beep':
      return { ...unit, beeps: byTime(replaced(unit.beeps, effect.value)) };
    case 'photo':
      return { ...unit, photos: replaced(unit.photos, effect.value) };
    case 'log':
      return {
        ...unit,
        log: [...replaced(unit.log, effect.value)].sort((a, b) => b.sequence - a.sequence).slice(0, KEPT_LOG),
      };
    case 'gone':
      return without(unit, effect);
  }
}

const defined = <T extends object>(values: T): T =>
  Object.fromEntries(Object.entries(values).filter(([, v]) => v !== undefined)) as T;

interface Named {
  readonly id: string;
}

/** The list with an entity in its place, or at the end when it is new. */
const replaced = <T extends Named>(list: readonly T[], value: T): T[] =>
  list.some((e) => e.id === value.id) ? list.map((e) => (e.id === value.id ? value : e)) : [...list, value];

function withPart(
  parts: UnitResource['parts'],
  value: UnitResource['parts'][number],
  isNew: boolean,
): UnitResource['parts'] {
  const isTaken = isNew && parts.some((p) => p.position === value.position && p.id !== value.id);
  const moved = isTaken
    ? parts.map((p) => (p.position >= value.position ? { ...p, position: p.position + 1 } : p))
    : parts;
  return byPosition(replaced(moved, value));
}

const byPosition = <T extends { readonly position: number }>(list: T[]): T[] =>
  isSorted(list, (a, b) => a.position - b.position)
    ? list
    : [...list].sort((a, b) => a.position - b.position);

const byTime = <T extends Named & { readonly takenAt: string }>(list: T[]): T[] => {
  const order = (a: T, b: T) => a.takenAt.localeCompare(b.takenAt) || a.id.localeCompare(b.id);
  return isSorted(list, order) ? list : [...list].sort(order);
};

const isSorted = <T>(list: readonly T[], order: (a: T, b: T) => number): boolean =>
  list.every((item, i) => i === 0 || order(list[i - 1]!, item) <= 0);

function without(unit: UnitResource, { entity, id }: Extract<Effect, { of: 'gone' }>): UnitResource {
  switch (entity) {
    case 'part':
      return { ...unit, parts: unit.parts.filter((e) => e.id !== id) };
    case 'readout':
      return { ...unit, readouts: unit.readouts.filter((e) => e.id !== id) };
    case 'change':
      return { ...unit, changes: unit.changes.filter((e) => e.id !== id) };
    case 'photo':
      return { ...unit, photos: unit.photos.filter((e) => e.id !== id) };
  }
}
