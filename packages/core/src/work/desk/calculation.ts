import type { Drawer } from '../drawer/index.ts';
import { exactText, isMade, nearestPreferred, type QuantityKind } from '../../base/quantity/index.ts';

/** Values of a calculation's fields by their ids, in SI units. */
export type DeskValues = Readonly<Record<string, number>>;

interface Common {
  readonly id: string;
  readonly label: string;
  readonly quantity: QuantityKind;
  /** Whether it may be zero or below, as a level or a temperature. */
  readonly isSigned?: true;
  /** Unit in which it is spoken of where that is not the quantity's own. */
  readonly unit?: string;
}

/** A field that is given, with what it usually is. */
export interface Given extends Common {
  readonly usual: number;
}

/** A field that follows from those given; typed instead, it moves one of them. */
export interface Following extends Common {
  readonly of: (values: DeskValues) => number;
  /** The given field that it moves. */
  readonly moves: string;
  /** What that one must be. */
  readonly inverse: (target: number, values: DeskValues) => number;
}

/** A value above zero as a part that can be had is typed: the nearest of E24; one that nobody makes as it is. */
export const asTyped = (value: number, kind: QuantityKind): string =>
  exactText(isMade(value) ? nearestPreferred(value, 'E24') : value, kind);

/** A quick calculation that belongs to no unit. */
export interface Calculation {
  readonly id: string;
  readonly title: string;
  readonly given: readonly Given[];
  readonly following: readonly Following[];
  /** What else is worth knowing, a sentence each. */
  readonly says?: (values: DeskValues, drawer: Drawer) => readonly string[];
  /** The parts, at their nearest values, as a change that can be typed into a unit; its nets are for whoever takes it there. */
  readonly line?: (values: DeskValues) => string;
  /** Where its equations come from. */
  readonly source: string;
}

export const usualValues = ({ given }: Calculation): DeskValues =>
  Object.fromEntries(given.map((f) => [f.id, f.usual]));

export type DeskAnswer =
  | { readonly ok: true; readonly values: DeskValues }
  /** Which field stands in the way, and why. */
  | { readonly ok: false; readonly field: string; readonly sentence: string };

const isUsable = (field: Common, value: number): boolean =>
  Number.isFinite(value) && (field.isSigned === true || value > 0);

/** All fields of a calculation from those given. */
export function followed(calculation: Calculation, given: DeskValues): DeskAnswer {
  for (const field of calculation.given)
    if (!isUsable(field, given[field.id]!)) return refused(field, 'must be above zero');
  const values: Record<string, number> = { ...given };
  for (const field of calculation.following) {
    const value = field.of(values);
    if (!isUsable(field, value)) return refused(field, 'cannot come out with these');
    values[field.id] = value;
  }
  return { ok: true, values };
}

/** The given fields with one set: itself, or the one that a following field moves. Nothing when no value makes it so. */
export function withField(
  calculation: Calculation,
  given: DeskValues,
  id: string,
  target: number,
): { readonly ok: true; readonly given: DeskValues } | { readonly ok: false; readonly sentence: string } {
  const follows = calculation.following.find((f) => f.id === id);
  if (!follows) return { ok: true, given: { ...given, [id]: target } };
  const moved = calculation.given.find((f) => f.id === follows.moves)!;
  const value = follows.inverse(target, given);
  const next = { ...given, [moved.id]: value };
  if (!isUsable(moved, value)) return { ok: false, sentence: `No ${moved.label} makes it that.` };
  const there = followed(calculation, next);
  if (!there.ok || Math.abs(there.values[id]! - target) > 1e-6 * Math.max(Math.abs(target), 1e-12))
    return { ok: false, sentence: `No ${moved.label} makes it that.` };
  return { ok: true, given: next };
}

const refused = (field: Common, why: string): DeskAnswer => ({
  ok: false,
  field: field.id,
  sentence: `${field.label} ${why}.`,
});
