import {
  rowKind,
  type AnyRowKind,
  type Edit,
  type Effect,
  type RowOf,
  type RowValue,
  type Thing,
  type UnitResource,
} from '@zemble/contract';
import { putThing } from './things.ts';

/** Entries of the log that a page keeps. */
const KEPT_LOG = 500;

/**
 * A unit with an edit carried out on it; whatever the edit does not touch stays the same object. An edit that is in the
 * unit already leaves it as it is; null where edits in between are missing, or it meets something else than it was made on:
 * then the unit has to be fetched.
 */
export function applyEdit(unit: UnitResource, edit: Edit): UnitResource | null {
  if (edit.sequence <= unit.sequence) return unit;
  if (edit.sequence > unit.sequence + 1) return null;
  const next = edit.effects.reduce<UnitResource | null>(
    (now, effect) => now && withEffect(now, effect),
    unit,
  );
  return next && { ...next, sequence: edit.sequence };
}

/** Edits that follow one another, as `applyEdit` carries out each. */
export const applyEdits = (unit: UnitResource, edits: readonly Edit[]): UnitResource | null =>
  edits.reduce<UnitResource | null>((now, edit) => now && applyEdit(now, edit), unit);

/** A unit with things put into its fields; null where one of them finds something else than it is put on. */
export function withThings(unit: UnitResource, things: readonly Thing[]): UnitResource | null {
  const values = new Map<string, unknown>();
  for (const thing of things) {
    const field = thing.at[0]!;
    const result = putThing(values.has(field) ? values.get(field) : Reflect.get(unit, field), thing);
    if (!result.ok) return null;
    values.set(field, result.value);
  }
  return { ...unit, ...Object.fromEntries(values) };
}

function withEffect(unit: UnitResource, effect: Effect): UnitResource | null {
  switch (effect.of) {
    case 'unit':
      return { ...unit, ...defined(effect.value) };
    case 'things':
      return withThings(unit, effect.things);
    case 'gone': {
      const { list } = rowKind(effect.entity);
      return { ...unit, [list]: listOf(unit, list).filter(({ id }) => id !== effect.id) };
    }
    default:
      return withRow(unit, rowKind(effect.of), effect.value, effect.isNew === true);
  }
}

type Row = RowValue<RowOf>;
const listOf = (unit: UnitResource, list: AnyRowKind['list']): readonly Row[] => unit[list];

const defined = <T extends object>(values: T): T =>
  Object.fromEntries(Object.entries(values).filter(([, v]) => v !== undefined)) as T;

/** A unit with a row as it is now, in its place in the list of its kind. */
function withRow(unit: UnitResource, { list, order }: AnyRowKind, value: Row, isNew: boolean): UnitResource {
  const known = listOf(unit, list);
  const moved = isNew && order === 'position' ? movedOn(known, value) : known;
  const isThere = moved.some(({ id }) => id === value.id);
  const next = isThere ? moved.map((row) => (row.id === value.id ? value : row)) : [...moved, value];
  const sorted = inOrder(next, ORDERS[order]);
  return { ...unit, [list]: order === 'newest' ? sorted.slice(0, KEPT_LOG) : sorted };
}

/** Rows of which those at the place of a new one, and after it, have moved on by one. */
function movedOn(rows: readonly Row[], value: Row): readonly Row[] {
  const at = numberIn(value, 'position');
  if (!rows.some((row) => numberIn(row, 'position') === at && row.id !== value.id)) return rows;
  return rows.map((row) => {
    const position = numberIn(row, 'position');
    return position >= at ? ({ ...row, position: position + 1 } as Row) : row;
  });
}

/** A number that rows of some kinds have; 0 in others, which are not sorted by it. */
function numberIn(row: Row, name: 'position' | 'sequence'): number {
  const value: unknown = Reflect.get(row, name);
  return typeof value === 'number' ? value : 0;
}
const takenAt = (row: Row): string => ('takenAt' in row ? row.takenAt : '');
const ORDERS: Readonly<Record<AnyRowKind['order'], (a: Row, b: Row) => number>> = {
  position: (a, b) => numberIn(a, 'position') - numberIn(b, 'position'),
  added: () => 0,
  time: (a, b) => takenAt(a).localeCompare(takenAt(b)) || a.id.localeCompare(b.id),
  newest: (a, b) => numberIn(b, 'sequence') - numberIn(a, 'sequence'),
};

const inOrder = (list: Row[], order: (a: Row, b: Row) => number): Row[] =>
  list.every((item, i) => i === 0 || order(list[i - 1]!, item) <= 0) ? list : list.toSorted(order);
