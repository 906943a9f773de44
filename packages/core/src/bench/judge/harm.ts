import { readoutDefinitionOf } from '@zemble/contract';
import { resolveLayer } from '../../circuit/changes/index.ts';
import { markedValue, type Circuit, type Part } from '../../circuit/circuit/index.ts';
import {
  evaluateAll,
  outsideBy,
  wantedRange,
  type Readout,
  type ReadoutAnswer,
  type ReadoutsAround,
} from '../../analysis/readouts/index.ts';
import { judgeFound } from './judge-found.ts';

/** What one part's drift does. */
export interface Drift {
  readonly ref: string;
  /** found / marked - 1; null for an open or shorted part, and where something else of it was measured. */
  readonly deviation: number | null;
  /** Largest move of a readout by this drift alone, as a share of the readout's wanted range or of its value. */
  readonly harm: number;
  /** The readout that it pushes out of its range, or where there is none the one moved most. */
  readonly readoutId: string | null;
  readonly advice: 'replace' | 'watch' | 'leave';
  /** One plain sentence. */
  readonly why: string;
}

export interface Replacement {
  /** Parts to make good, fewest first; empty when every readout is in range already, null when no set will do. */
  readonly refs: readonly string[] | null;
  /** Readouts out of range before, and with those parts as marked. */
  readonly before: readonly string[];
  readonly after: readonly string[];
  /** Wanted readouts that have not been looked at: they take runs in time. */
  readonly leftOut: readonly string[];
  /** Wanted readouts that are out of their range with every part as marked: no repair brings them there. */
  readonly outAsMarked: readonly string[];
}

/** A move of half the wanted range is worth an iron, a tenth is worth an eye (common practice). */
const REPLACE_SHARE = 0.5;
const WATCH_SHARE = 0.1;
/** Without a wanted range a decibel, or a tenth of the value, counts as the whole range. */
const USUAL_DB = 2;
const USUAL_SHARE = 0.2;
/** Sets are tried up to this many parts out of this many of the worst. */
const MOST_TOGETHER = 4;
const MOST_TRIED = 12;

/** What the drifts of a unit do, and the fewest parts to make good. */
export interface Weighed {
  /** Worst first. */
  readonly drifts: readonly Drift[];
  readonly replacement: Replacement;
}

export interface Weighing extends Pick<ReadoutsAround, 'settings' | 'mayGoOn'> {
  /** Readouts that take runs in time too; they take seconds. */
  readonly includesSlow?: boolean;
}

/**
 * Every drifted part by what its drift does to the readouts, worst first: each drift alone in a circuit that is otherwise
 * as marked, all readouts recomputed. What was measured beside a part's value is part of its drift: series resistance,
 * leakage, gain, contacts. With it the fewest drifted parts to make good (as marked) so that every readout that the sound
 * circuit has in range is in range again; among sets of one size the one that takes the worst parts.
 */
export function weighDrifts(circuit: Circuit, readouts: readonly Readout[], how: Weighing = {}): Weighed {
  const scales = new Scales(circuit, readouts, how);
  const drifts = scales.drifts();
  return { drifts, replacement: scales.replacement(drifts) };
}

const differs = (part: Part): boolean => {
  if (part.foundParams !== undefined) return true;
  const { found } = part;
  const marked = markedValue(part);
  if (found === undefined || found === null) return false;
  if (found === 'open' || found === 'short') return true;
  return typeof marked === 'number' && found !== marked;
};

/** A readout's move against what is wanted of it. */
function moveOf(readout: Readout, before: ReadoutAnswer, after: ReadoutAnswer): number {
  if (!before.ok) return 0;
  if (!after.ok) return Number.POSITIVE_INFINITY;
  const range = wantedRange(readout.want);
  const width = range && Number.isFinite(range.high - range.low) ? (range.high - range.low) / 2 : null;
  const usual =
    readoutDefinitionOf(readout.kind).unit === 'dB'
      ? USUAL_DB
      : Math.max(USUAL_SHARE * Math.abs(before.value), 1e-12);
  return Math.abs(after.value - before.value) / (width ?? usual);
}

const isSlow = (readout: Readout) => readoutDefinitionOf(readout.kind).isSlow === true;
const isWithin = (readout: Readout, answer: ReadoutAnswer) =>
  answer.ok && outsideBy(answer.value, readout.want) === 0;

/** The circuit with some of its drifts and without the others, weighed by its readouts, each mixture once. */
class Scales {
  private readonly circuit: Circuit;
  private readonly drifted: readonly Part[];
  /** Those that take no run in time, and the others as far as they count. */
  private readonly quick: readonly Readout[];
  private readonly slow: readonly Readout[];
  private readonly leftOut: readonly string[];
  private readonly around: ReadoutsAround;
  private readonly known = new Map<string, readonly ReadoutAnswer[]>();

  constructor(circuit: Circuit, readouts: readonly Readout[], { includesSlow, ...around }: Weighing) {
    this.circuit = circuit;
    this.around = { ...around, readouts };
    this.drifted = circuit.parts.filter(differs);
    this.quick = readouts.filter((r) => !isSlow(r));
    const slow = readouts.filter(isSlow);
    this.slow = includesSlow ? slow : [];
    this.leftOut = slow
      .filter((r) => !this.slow.includes(r) && wantedRange(r.want) !== undefined)
      .map((r) => r.id);
  }

  /** Whether any readout says what is wanted of it. */
  private get isAnyWanted(): boolean {
    return (this.around.readouts ?? []).some((r) => wantedRange(r.want) !== undefined);
  }

  private get considered(): readonly Readout[] {
    return [...this.quick, ...this.slow];
  }

  /** Readouts with only some of the drifts left; all other parts as marked. */
  private answers(kept: ReadonlySet<string>, readouts: readonly Readout[]): readonly ReadoutAnswer[] {
    const key = `${readouts === this.slow ? 'slow' : 'quick'} ${[...kept].sort().join(' ')}`;
    const known = this.known.get(key);
    if (known) return known;
    const parts = this.circuit.parts.map((p) =>
      differs(p) && !kept.has(p.ref) ? { ...p, found: null, foundParams: undefined } : p,
    );
    const made = evaluateAll(resolveLayer({ ...this.circuit, parts }, 'found'), readouts, this.around);
    this.known.set(key, made);
    return made;
  }

  private all(kept: ReadonlySet<string>): readonly ReadoutAnswer[] {
    return [...this.answers(kept, this.quick), ...this.answers(kept, this.slow)];
  }

  /** Ids of what is out of its range; `hopeless` is out in the sound circuit too. */
  private out(kept: ReadonlySet<string>, readouts: readonly Readout[]): string[] {
    const [sound, now] = [this.answers(new Set(), readouts), this.answers(kept, readouts)];
    return readouts.flatMap((r, i) => (isWithin(r, sound[i]!) && !isWithin(r, now[i]!) ? [r.id] : []));
  }

  private allOut(kept: ReadonlySet<string>): string[] {
    return [...this.out(kept, this.quick), ...this.out(kept, this.slow)];
  }

  /** Whether everything is in its range; the slow ones are looked at only where the quick ones are. */
  private isGood(kept: ReadonlySet<string>): boolean {
    return this.out(kept, this.quick).length === 0 && this.out(kept, this.slow).length === 0;
  }

  drifts(): Drift[] {
    const { considered } = this;
    if (this.drifted.length === 0) return [];
    const sound = this.all(new Set());
    return this.drifted
      .map((part): Drift => {
        const moved = this.all(new Set([part.ref]));
        const moves = considered.map((r, i) => moveOf(r, sound[i]!, moved[i]!));
        const harm = Math.max(0, ...moves);
        const most = harm > 0 ? considered[moves.indexOf(harm)]! : null;
        const verdict = judgeFound(this.circuit, part);
        const isOut = verdict.kind !== 'in' && verdict.kind !== 'edge';
        // What is out matters more than what moved: it is named, the one that moved most first.
        const worstOut = considered
          .filter((r, i) => isWithin(r, sound[i]!) && !isWithin(r, moved[i]!))
          .sort((a, b) => moves[considered.indexOf(b)]! - moves[considered.indexOf(a)]!)[0];
        const pushesOut = worstOut !== undefined;
        // Where nothing is wanted, what is beyond its tolerance is what matters.
        const isHarmful = pushesOut || harm >= REPLACE_SHARE || (isOut && !this.isAnyWanted);
        const advice = isHarmful ? 'replace' : harm >= WATCH_SHARE || isOut ? 'watch' : 'leave';
        return {
          ref: part.ref,
          deviation: verdict.deviation,
          harm,
          readoutId: (worstOut ?? most)?.id ?? null,
          advice,
          why: whyOf(advice, worstOut ?? most, harm, pushesOut, verdict.sentence, this.isAnyWanted),
        };
      })
      .sort((a, b) => b.harm - a.harm);
  }

  replacement(drifts: readonly Drift[]): Replacement {
    const order = drifts.map((d) => d.ref);
    const all = new Set(order);
    const { leftOut } = this;
    if (order.length === 0) return { refs: [], before: [], after: [], leftOut, outAsMarked: [] };
    const sound = this.all(new Set());
    const outAsMarked = this.considered.flatMap((r, i) =>
      wantedRange(r.want) !== undefined && !isWithin(r, sound[i]!) ? [r.id] : [],
    );
    const before = this.allOut(all);
    if (before.length === 0) return { refs: [], before, after: [], leftOut, outAsMarked };
    const tried = order.slice(0, MOST_TRIED);
    for (let size = 1; size <= Math.min(MOST_TOGETHER, tried.length); size += 1)
      for (const set of combinations(tried, size)) {
        if (this.isGood(new Set(order.filter((ref) => !set.includes(ref)))))
          return { refs: set, before, after: [], leftOut, outAsMarked };
      }
    const rest = this.allOut(new Set(order.slice(MOST_TRIED)));
    return { refs: rest.length === 0 ? tried : null, before, after: rest, leftOut, outAsMarked };
  }
}

function whyOf(
  advice: Drift['advice'],
  most: Readout | null,
  harm: number,
  pushesOut: boolean,
  reading: string,
  isAnyWanted: boolean,
): string {
  if (advice === 'replace' && !isAnyWanted) return `${reading}, and no readout says what is wanted.`;
  if (!most) return `${reading}, and no readout moves.`;
  if (!Number.isFinite(harm)) return `${reading}: ${most.name} cannot be had any more.`;
  if (pushesOut) return `${reading}: alone it pushes ${most.name} out of its range.`;
  if (advice === 'leave') return `${reading}: ${most.name} hardly moves.`;
  return `${reading}: it moves ${most.name} by ${Math.round(harm * 100)} % of what is allowed.`;
}

/** Combinations of a size, those of the first items first. */
function* combinations<T>(items: readonly T[], size: number, from = 0): Generator<T[]> {
  if (size === 0) {
    yield [];
    return;
  }
  for (let i = from; i <= items.length - size; i += 1)
    for (const rest of combinations(items, size - 1, i + 1)) yield [items[i]!, ...rest];
}
