import type { StockItem } from '@zemble/contract';
import { KINDS, printedText, type LayerPart } from '../../circuit/circuit/index.ts';
import { unitOfPackage } from '../../circuit/pinout/index.ts';
import { wantedFor, type Drawer } from './stock.ts';
import { supplyFor, type Need } from './needs.ts';
import { substitutesFor } from './substitutes.ts';

/** Parts of one sort that a unit is built from. */
export interface PartsListLine {
  /** "R 4k7", "Q 2N3904". */
  readonly words: string;
  readonly refs: readonly string[];
  readonly count: number;
  /** Where they come from, place by place. */
  readonly from: readonly { readonly item: StockItem; readonly count: number }[];
  /** What must be bought. */
  readonly buy: number;
  /** What can stand for what must be bought, each with its reason in a sentence. */
  readonly substitutes: readonly string[];
}

/** Kinds that stand for what is connected from outside: nobody buys them for the unit. */
const OUTSIDE: ReadonlySet<string> = new Set(['supply', 'signal', 'load']);

/** What a unit is built from, parts of one sort together in the order of the circuit, with where in the drawer they lie. */
export function partsList(parts: readonly LayerPart[], drawer: Drawer): PartsListLine[] {
  // Units of one package are one part.
  const isFirstUnit = (part: LayerPart, i: number) => {
    const name = unitOfPackage(part.ref)?.designator;
    return name === undefined || parts.findIndex((p) => unitOfPackage(p.ref)?.designator === name) === i;
  };
  const bought = parts.filter((p, i) => !OUTSIDE.has(p.kind) && isFirstUnit(p, i));
  const needs: Need[] = [];
  const plain: LayerPart[] = [];
  for (const part of bought) {
    const wanted = wantedFor(part, part.value);
    if (wanted) needs.push({ wanted, ref: part.ref, changeId: '' });
    else plain.push(part);
  }
  const byRef = new Map(bought.map((p) => [p.ref, p]));
  const lines = supplyFor(needs, drawer).map(({ count, reserved, buy, of, wanted }): PartsListLine => {
    const refs = of.map((i) => nameOf(needs[i]!.ref));
    const substitutes = buy > 0 ? substitutesFor(wanted, drawer) : [];
    return { words: wordsOf(byRef.get(needs[of[0]!]!.ref)!), refs, count, from: reserved, buy, substitutes };
  });
  const others = plain.map((part): PartsListLine => ({
    words: wordsOf(part),
    refs: [nameOf(part.ref)],
    count: 1,
    from: [],
    buy: 1,
    substitutes: [],
  }));
  const place = (line: PartsListLine) => bought.findIndex((p) => nameOf(p.ref) === line.refs[0]);
  return [...lines, ...others].sort((a, b) => place(a) - place(b));
}

/** A package goes by its designator. */
const nameOf = (ref: string): string => unitOfPackage(ref)?.designator ?? ref;

function wordsOf(part: LayerPart): string {
  const rating =
    part.voltage === undefined ? (part.power === undefined ? '' : ` ${part.power} W`) : ` ${part.voltage} V`;
  const technology = part.technology === undefined ? '' : ` ${part.technology}`;
  return `${KINDS[part.kind].words} ${printedText(part, part.value)}${rating}${technology}`.trim();
}
