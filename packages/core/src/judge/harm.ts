import { readoutDefinitionOf } from '@halfsplit/contract';
import {
  markedValue,
  ownValue,
  resolveLayer,
  type Circuit,
  type LayerCircuit,
  type Part,
} from '../circuit/index.ts';
import { evaluateAll, outsideBy, wantedRange, type Readout, type ReadoutAnswer } from '../readouts/index.ts';
import { judgeReading } from './verdict.ts';

/** What one part's drift does. */
export interface Drift {
  readonly ref: string;
  /** found / marked - 1; null for an open or shorted part. */
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
  /** Wanted readouts that were not looked at: they take runs in time. */
  readonly leftOut: readonly string[];
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

const drifted = (part: Part): boolean => {
  const [found, marked] = [ownValue(part, 'found'), markedValue(part)];
  if (found === undefined || found === null) return false;
  if (found === 'open' || found === 'short') return true;
  return typeof marked === 'number' && found !== marked;
};

/** The circuit with only some of the found values left; all others as marked. */
function withOnly(circuit: Circuit, kept: ReadonlySet<string>): LayerCircuit {
  const parts = circuit.parts.map((p) => (drifted(p) && !kept.has(p.ref) ? { ...p, found: null } : p));
  return resolveLayer({ ...circuit, parts }, 'found');
}

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

const quick = (readouts: readonly Readout[]) =>
  readouts.filter((r) => readoutDefinitionOf(r.kind).isSlow !== true);

/**
 * Every drifted part by what its drift does to the readouts, worst first: each drift alone in a circuit that is otherwise
 * as marked, all readouts recomputed. Readouts that take runs in time are left out.
 */
export function rankDrifts(circuit: Circuit, readouts: readonly Readout[]): Drift[] {
  const considered = quick(readouts);
  const sound = evaluateAll(withOnly(circuit, new Set()), considered);
  return circuit.parts
    .filter(drifted)
    .map((part): Drift => {
      const moved = evaluateAll(withOnly(circuit, new Set([part.ref])), considered);
      const moves = considered.map((r, i) => moveOf(r, sound[i]!, moved[i]!));
      const harm = Math.max(0, ...moves);
      const most = harm > 0 ? considered[moves.indexOf(harm)]! : null;
      const verdict = judgeReading(part, { value: ownValue(part, 'found')!, condition: 'leg lifted' });
      const isOut = verdict.kind !== 'in' && verdict.kind !== 'edge';
      const out = considered.filter((r, i) => {
        const [a, b] = [sound[i]!, moved[i]!];
        return a.ok && outsideBy(a.value, r.want) === 0 && (!b.ok || outsideBy(b.value, r.want) !== 0);
      });
      // What is out matters more than what moved: it is named, the one that moved most first.
      const worstOut = out.sort((a, b) => moves[considered.indexOf(b)]! - moves[considered.indexOf(a)]!)[0];
      const pushesOut = worstOut !== undefined;
      const advice =
        pushesOut || harm >= REPLACE_SHARE ? 'replace' : harm >= WATCH_SHARE || isOut ? 'watch' : 'leave';
      return {
        ref: part.ref,
        deviation: verdict.deviation,
        harm,
        readoutId: (worstOut ?? most)?.id ?? null,
        advice,
        why: whyOf(advice, worstOut ?? most, harm, pushesOut, verdict.sentence),
      };
    })
    .sort((a, b) => b.harm - a.harm);
}

function whyOf(
  advice: Drift['advice'],
  most: Readout | null,
  harm: number,
  pushesOut: boolean,
  reading: string,
): string {
  if (!most) return `${reading}, and no readout moves.`;
  if (!Number.isFinite(harm)) return `${reading}: ${most.name} cannot be had any more.`;
  if (pushesOut) return `${reading}: alone it pushes ${most.name} out of its range.`;
  if (advice === 'leave') return `${reading}: ${most.name} hardly moves.`;
  return `${reading}: it moves ${most.name} by ${Math.round(harm * 100)} % of what is allowed.`;
}

/**
 * The fewest drifted parts to make good (as marked) so that every readout that the sound circuit has in range is in
 * range again; among sets of one size the one that takes the worst parts. Checked by recomputation.
 */
export function smallestReplacement(circuit: Circuit, readouts: readonly Readout[]): Replacement {
  const considered = quick(readouts);
  const leftOut = readouts
    .filter((r) => !considered.includes(r) && wantedRange(r.want) !== undefined)
    .map((r) => r.id);
  const outOf = (answers: readonly ReadoutAnswer[]) =>
    considered.flatMap((r, i) => {
      const answer = answers[i]!;
      return !answer.ok || outsideBy(answer.value, r.want) !== 0 ? [r.id] : [];
    });
  const hopeless = new Set(outOf(evaluateAll(withOnly(circuit, new Set()), considered)));
  const outWith = (kept: ReadonlySet<string>) =>
    outOf(evaluateAll(withOnly(circuit, kept), considered)).filter((id) => !hopeless.has(id));
  const order = rankDrifts(circuit, readouts).map((d) => d.ref);
  const all = new Set(order);
  const before = outWith(all);
  if (before.length === 0) return { refs: [], before, after: [], leftOut };
  const tried = order.slice(0, MOST_TRIED);
  for (let size = 1; size <= Math.min(MOST_TOGETHER, tried.length); size += 1) {
    for (const set of combinations(tried, size)) {
      const kept = new Set([...all].filter((ref) => !set.includes(ref)));
      if (outWith(kept).length === 0) return { refs: set, before, after: [], leftOut };
    }
  }
  const rest = outWith(new Set([...all].filter((ref) => !tried.includes(ref))));
  return { refs: rest.length === 0 ? tried : null, before, after: rest, leftOut };
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
