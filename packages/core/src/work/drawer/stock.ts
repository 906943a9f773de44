import type { PartKind, StockItem, Technology } from '@zemble/contract';
import { isPassive, KINDS, type LayerPart, type Part } from '../../circuit/circuit/index.ts';
import { formatQuantity, parseValue, QUANTITY_KINDS } from '../../base/quantity/index.ts';

/** What the workshop has. */
export type Drawer = readonly StockItem[];

/** A part that is looked for: what it is, and what it must bear. */
export interface Wanted {
  readonly kind: PartKind;
  readonly value: number | string;
  /** Fraction either way that it may deviate at most. */
  readonly tolerance?: number | undefined;
  /** V that it must be rated for. */
  readonly voltage?: number | undefined;
  /** W that it must be rated for. */
  readonly power?: number | undefined;
  readonly technology?: Technology | undefined;
}

/** Two values are the same part when they differ by less than this part of them. */
const SAME = 1e-3;

export const sameValue = (a: number | string, b: number | string): boolean =>
  typeof a === 'number' && typeof b === 'number'
    ? Math.abs(a / b - 1) < SAME
    : String(a).toLowerCase() === String(b).toLowerCase();

/** Whether two items are one sort of part in one place: they are counted together. */
export const isSameSort = (a: StockItem, b: StockItem): boolean =>
  a.kind === b.kind &&
  sameValue(a.value, b.value) &&
  a.tolerance === b.tolerance &&
  a.voltage === b.voltage &&
  a.power === b.power &&
  a.technology === b.technology &&
  a.place === b.place;

/**
 * Whether an item can do the work of a part whatever its value: its kind, its ratings where it says them, and its technology
 * where the part asks for one.
 */
export function fits(item: StockItem, wanted: Omit<Wanted, 'value'>): boolean {
  if (item.kind !== wanted.kind) return false;
  if (wanted.voltage !== undefined && item.voltage !== undefined && item.voltage < wanted.voltage)
    return false;
  if (wanted.power !== undefined && item.power !== undefined && item.power < wanted.power) return false;
  if (wanted.tolerance !== undefined && (item.tolerance ?? 0) > wanted.tolerance) return false;
  return (
    wanted.technology === undefined || item.technology === undefined || item.technology === wanted.technology
  );
}

/** The items that can stand for a part, those that suit it most narrowly first: what is better is kept for what needs it. */
export function matching(drawer: Drawer, wanted: Wanted): StockItem[] {
  const spare = (item: StockItem) =>
    (item.voltage ?? 0) / (wanted.voltage ?? item.voltage ?? 1) +
    (item.power ?? 0) / (wanted.power ?? item.power ?? 1);
  return drawer
    .filter((item) => item.count > 0 && sameValue(item.value, wanted.value) && fits(item, wanted))
    .sort((a, b) => spare(a) - spare(b) || b.count - a.count);
}

/** The value of an item as it is spoken of: "4.7 kΩ", "TL072". */
export function stockText({
  kind,
  value,
}: {
  readonly kind: PartKind;
  readonly value: number | string;
}): string {
  const quantity = KINDS[kind].value;
  return typeof value === 'number' && quantity !== null
    ? formatQuantity(value, QUANTITY_KINDS[quantity])
    : String(value);
}

/**
 * The items that a text looks for: each of its words is a value in any notation, a place, a technology, a kind or a part of a
 * type.
 */
export function searchDrawer<Item extends StockItem>(drawer: readonly Item[], text: string): Item[] {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  return drawer.filter((item) => {
    const quantity = KINDS[item.kind].value;
    const said = `${item.kind} ${KINDS[item.kind].words} ${item.technology ?? ''} ${item.place} ${item.value} ${stockText(item)}`;
    return words.every((word) => {
      if (said.toLowerCase().includes(word)) return true;
      const parsed = quantity === null ? undefined : parseValue(word, { kind: quantity });
      return parsed?.ok === true && parsed.readings.some((r) => sameValue(r.value, item.value));
    });
  });
}

/** What a part of a circuit asks of an item; undefined for what no drawer holds, as a supply or a box. */
export function wantedFor(part: Part | LayerPart, value: unknown): Wanted | undefined {
  if (NEVER_STOCKED.has(part.kind)) return undefined;
  const main = typeof value === 'number' && KINDS[part.kind].value !== null ? value : part.model;
  if (main === undefined || (typeof main === 'number' && !(main > 0))) return undefined;
  return {
    kind: part.kind,
    value: main,
    ...(isPassive(part.kind) && part.tolerance !== undefined ? { tolerance: part.tolerance } : {}),
    voltage: part.voltage,
    power: part.power,
    technology: part.technology,
  };
}
const NEVER_STOCKED: ReadonlySet<PartKind> = new Set(['supply', 'signal', 'box', 'capsule']);
