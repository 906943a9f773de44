import { spreadParts, type SpreadPart } from '../../analysis/analysis/index.ts';
import { seededRandom } from '../../base/numeric/index.ts';
import { usualTolerance, type Circuit, type LayerPart } from '../../circuit/circuit/index.ts';
import type { Drawer } from '../drawer/index.ts';
import { matching } from '../drawer/index.ts';
import type { ESeries } from '../../base/quantity/index.ts';
import type { GoalField } from './goal-field.ts';
import { valuesOf, type ValueChange } from './value-change.ts';

/** How many of many builds with the same values come out inside all firm goals. */
export interface Yield {
  /** Share of builds, 0 to 1. */
  readonly share: number;
  /** The same with 1 % parts for what is changed, where those at hand are wider; null where it makes no odds. */
  readonly withOnePercent: number | null;
  /** The same with two changed parts picked to agree, and which; null where it makes no odds. */
  readonly withPair: { readonly share: number; readonly refs: readonly [string, string] } | null;
  /** What is worth doing about it, in one sentence; empty where nothing is. */
  readonly advice: string;
}

/** A measured value is known to this (a meter of the workbench, common practice). */
const MEASURED = 0.01;
const ONE_PERCENT = 0.01;
/** Tolerance in which the values of a series are made (IEC 60063, with its usual tolerances). */
const SERIES_TOLERANCE: Readonly<Record<ESeries, number>> = {
  E3: 0.2,
  E6: 0.2,
  E12: 0.1,
  E24: 0.05,
  E48: 0.02,
  E96: 0.01,
  E192: 0.005,
};
/** Builds: the share is known to about one part in a hundred. */
const RUNS = 1_500;
/** Builds that are computed in full to see whether straight slopes tell them, and those that are where slopes do not. */
const TESTED = 24;
const FULL_RUNS = 400;
/** Where slopes explain less than this of the spread of any goal the builds are computed in full. */
const EXPLAINED = 0.9;
/** A yield better by this is worth dearer parts, or an evening's picking. */
const WORTH = 0.1;

export interface YieldRequest {
  readonly circuit: Circuit;
  readonly series: ESeries;
  readonly drawer?: Drawer | undefined;
}

/**
 * The share of builds inside the firm goals with every part somewhere in its tolerance: changed parts in theirs, measured
 * ones in what the meter leaves open, the rest in what is printed or usual. By straight slopes on the logarithms of the
 * values about the proposal where those explain nine tenths of the spread, all deviations of a build summed; at a peak, where
 * they do not, every build is computed.
 */
export function yieldOf(
  field: GoalField,
  request: YieldRequest,
  changes: readonly ValueChange[],
): Yield | undefined {
  const values = valuesOf(changes);
  const session = field.sessionAt(values);
  const changed = new Map(changes.map((c) => [c.ref, c]));
  const measured = new Set(
    request.circuit.parts.flatMap((p) => (typeof p.found === 'number' ? [p.ref] : [])),
  );
  const parts = spreadParts(session.circuit, usualTolerance)
    .filter((p) => session.system.canTurn(p.ref))
    .map((p): SpreadPart => {
      const change = changed.get(p.ref);
      if (!change) return measured.has(p.ref) ? { ...p, tolerance: MEASURED, group: p.ref } : p;
      const part = session.circuit.parts.find((q) => q.ref === p.ref)!;
      return { ...p, tolerance: toleranceOf(part, change, request), group: p.ref };
    });
  const slopes = field.slopes(
    values,
    parts.map(({ ref, value }) => ({ ref, value })),
  );
  if (!slopes) return undefined;
  const now = field.at(values);
  const firm = [...field.aims.keys()].filter((i) => field.aims[i]!.wish === null);
  const bySlopes = (moves: readonly number[]): Float64Array =>
    Float64Array.from(slopes, (row, i) => row.reduce((sum, slope, k) => sum + slope * moves[k]!, now[i]!));
  const inFull = (moves: readonly number[]): Float64Array =>
    field.at(new Map([...values, ...parts.map((p, k) => [p.ref, p.value * Math.exp(moves[k]!)] as const)]));
  const builds = (spread: readonly SpreadPart[], count: number): (readonly number[])[] => {
    const random = seededRandom(1);
    const groups = [...new Set(spread.map((p) => p.group))];
    const groupOf = spread.map((p) => groups.indexOf(p.group));
    return Array.from({ length: count }, () => {
      const deviations = groups.map(() => 2 * random() - 1);
      return spread.map((p, k) => Math.log1p(p.tolerance * deviations[groupOf[k]!]!));
    });
  };
  const tested = builds(parts, TESTED);
  const isStraight = isExplained(firm, tested.map(inFull), tested.map(bySlopes));
  const [build, runs] = isStraight ? [bySlopes, RUNS] : [inFull, FULL_RUNS];
  const shareWith = (as: (part: SpreadPart) => SpreadPart) => {
    const inside = builds(parts.map(as), runs).filter((moves) => {
      const made = build(moves);
      return firm.every((i) => made[i]! >= field.aims[i]!.low && made[i]! <= field.aims[i]!.high);
    });
    return inside.length / runs;
  };
  const share = shareWith((p) => p);
  const isWide = (p: SpreadPart) => changed.has(p.ref) && p.tolerance > ONE_PERCENT;
  const tight = parts.some(isWide)
    ? shareWith((p) => (isWide(p) ? { ...p, tolerance: ONE_PERCENT } : p))
    : share;
  const pair = pairOf(changes, session.circuit.parts);
  // Two that were picked to agree are off by as much, whatever is printed on them.
  const wider = Math.max(0, ...parts.filter((p) => pair?.includes(p.ref)).map((p) => p.tolerance));
  const paired = pair
    ? shareWith((p) => (pair.includes(p.ref) ? { ...p, group: pair[0], tolerance: wider } : p))
    : share;
  const withOnePercent = tight - share >= WORTH ? tight : null;
  const withPair = pair && paired - share >= WORTH ? { share: paired, refs: pair } : null;
  return { share, withOnePercent, withPair, advice: adviceOf(share, withOnePercent, withPair, changes) };
}

/** Whether what slopes say of builds explains nearly all of how each goal spreads over them. */
function isExplained(
  firm: readonly number[],
  made: readonly Float64Array[],
  told: readonly Float64Array[],
): boolean {
  return firm.every((i) => {
    const mean = made.reduce((sum, m) => sum + m[i]!, 0) / made.length;
    const spread = made.reduce((sum, m) => sum + (m[i]! - mean) ** 2, 0);
    const rest = made.reduce((sum, m, run) => sum + (m[i]! - told[run]![i]!) ** 2, 0);
    return spread === 0 || 1 - rest / spread >= EXPLAINED;
  });
}

/** Two changed parts of one kind, of which a pair that agrees could be picked. */
function pairOf(changes: readonly ValueChange[], parts: readonly LayerPart[]): [string, string] | null {
  const kindOf = (ref: string) => parts.find((p) => p.ref === ref)?.kind;
  for (const [i, a] of changes.entries())
    for (const b of changes.slice(i + 1)) if (kindOf(a.ref) === kindOf(b.ref)) return [a.ref, b.ref];
  return null;
}

/** What a new part may deviate by: as its item of the drawer says, as those of a narrow series are made, or as usual. */
function toleranceOf(part: LayerPart, change: ValueChange, { series, drawer }: YieldRequest): number {
  const [item] = drawer ? matching(drawer, { kind: part.kind, value: change.of[0]! }) : [];
  if (item?.tolerance !== undefined) return item.tolerance;
  const usual = usualTolerance(part);
  return part.kind === 'resistor' ? Math.min(usual, SERIES_TOLERANCE[series]) : usual;
}

const percent = (share: number) => `${Math.round(100 * share)} %`;

function adviceOf(
  share: number,
  tight: number | null,
  pair: Yield['withPair'],
  changes: readonly ValueChange[],
): string {
  if (pair && (tight === null || pair.share >= tight))
    return `${pair.refs.join(' and ')} picked as a pair that agrees: ${percent(pair.share)} of builds come out inside instead of ${percent(share)}.`;
  if (tight !== null)
    return `With 1 % for ${changes.map((c) => c.ref).join(' and ')}, ${percent(tight)} of builds come out inside instead of ${percent(share)}.`;
  return '';
}
