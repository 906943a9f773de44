import type { Observation } from './evidence.ts';
import type { Link, Path } from './path.ts';
import { FAULT_MODES, symptomOfMode, SYMPTOMS, type FaultMode } from './symptom.ts';

/** Of what has several outputs, the share of failures in which only one of them is dead (from memory). */
const OUTPUT_SHARE = 0.15;
/** What a block that bears on a point only round a ring shows there when it fails: in half of all cases (from memory). */
export const ROUND_SHOWS = 0.5;

/** Share of repairs in which two blocks have failed at once, before any evidence (from memory). */
export const PAIR_SHARE = 0.03;
/** Pairs that are this many nepers less likely than the best single fault change no posterior that is shown. */
const NEGLIGIBLE = 25;

const GOOD = SYMPTOMS.indexOf('good');
const NONE = SYMPTOMS.indexOf('none');
const MODE_SYMPTOM = FAULT_MODES.map((m) => SYMPTOMS.indexOf(symptomOfMode(m)));

/** Two blocks that may both have failed. */
export interface PairSuspect {
  readonly blocks: readonly [number, number];
  readonly probability: number;
}

export interface Posterior {
  /** Probability of each block being faulty, alone or with another. */
  readonly marginal: Float64Array;
  /** Probability of each block being the only fault. */
  readonly single: Float64Array;
  /** For each block, how its failing alone is shared over its modes, in the order of FAULT_MODES. */
  readonly modes: readonly Float64Array[];
  /** For each block, which of its outputs it is where only one is dead, in the order of `Path.outputsOf`. */
  readonly outputs: readonly Float64Array[];
  /** Pairs worth naming, likeliest first. */
  readonly pairs: readonly PairSuspect[];
}

export interface InferenceOptions {
  /** Weight of each block, when not the path's own. */
  readonly weights?: readonly number[];
  /** Share given to pairs before any evidence; 0 leaves them out. Default `PAIR_SHARE`. */
  readonly pairShare?: number;
}

/** Shares of a block's modes; a block on no supply drags none down. */
export function modeShares(path: Path, block: number): Float64Array {
  const { modes } = path.blocks[block]!.kind;
  const hasFeeder = path.feeders(block).length > 0;
  const shares = Float64Array.from(FAULT_MODES, (mode: FaultMode) =>
    mode === 'drags' && !hasFeeder ? 0 : (modes[mode] ?? 0),
  );
  const total = shares.reduce((a, b) => a + b, 0);
  const ofOne = path.outputsOf(block).length > 0 ? OUTPUT_SHARE : 0;
  return shares.map((s, mode) => (mode === OUTPUT ? ofOne : ((1 - ofOne) * s) / total));
}

/** Likelihood of an observation when a block fails in a mode. */
function likelihoodOf(
  { relevant, dragged, looped, relieved, likelihood }: Observation,
  block: number,
  mode: number,
): number {
  const shows = mode === DRAGS ? dragged : relevant;
  const whenGood = likelihood[GOOD]!;
  if (shows[block] !== 1)
    return looped[block] === 1
      ? ROUND_SHOWS * likelihood[MODE_SYMPTOM[mode]!]! + (1 - ROUND_SHOWS) * whenGood
      : whenGood;
  const whenShown = likelihood[MODE_SYMPTOM[mode]!]!;
  const relief = mode === SAGS ? relieved[block]! : 0;
  return relief * whenGood + (1 - relief) * whenShown;
}

/** Log likelihood of each output of a block being the one that is dead. */
const outputLogs = (observations: readonly Observation[], outputs: readonly Link[]): Float64Array =>
  Float64Array.from(outputs, (output) =>
    observations.reduce((sum, o) => sum + Math.log(o.likelihood[o.links.has(output) ? NONE : GOOD]!), 0),
  );

/**
 * Exact posterior over all single faults and all pairs of faults, each in all its modes, given the observations. Every
 * observation is an independent look; the worse of two symptoms hides the other.
 */
export function posteriorOf(
  path: Path,
  observations: readonly Observation[],
  options: InferenceOptions = {},
): Posterior {
  const count = path.blocks.length;
  const weights = options.weights ?? path.blocks.map((b) => b.weight);
  const pairShare = count < 2 ? 0 : (options.pairShare ?? PAIR_SHARE);
  const shares = path.blocks.map((_, b) => modeShares(path, b));
  const total = weights.reduce((a, b) => a + b, 0);
  const logSingle = new Float64Array(count);
  const modes = shares.map((s) => new Float64Array(s.length));
  const outputs = shares.map((_, b) => new Float64Array(path.outputsOf(b).length));
  let best = Number.NEGATIVE_INFINITY;
  for (let b = 0; b < count; b += 1) {
    const logs = shares[b]!.map((share, mode) => {
      if (share === 0) return Number.NEGATIVE_INFINITY;
      if (mode === OUTPUT) {
        const each = outputLogs(observations, path.outputsOf(b));
        const likeliest = Math.max(...each);
        const scaled = each.map((l) => Math.exp(l - likeliest));
        const sum = scaled.reduce((a, v) => a + v, 0);
        outputs[b] = scaled.map((v) => v / sum);
        return Math.log(share) + likeliest + Math.log(sum / each.length);
      }
      let sum = Math.log(share);
      for (const o of observations) sum += Math.log(likelihoodOf(o, b, mode));
      return sum;
    });
    const top = Math.max(...logs);
    const scaled = logs.map((l) => Math.exp(l - top));
    const whole = scaled.reduce((a, v) => a + v, 0);
    scaled.forEach((v, mode) => (modes[b]![mode] = v / whole));
    logSingle[b] = Math.log(((1 - pairShare) * weights[b]!) / total) + top + Math.log(whole);
    best = Math.max(best, logSingle[b]!);
  }
  const single = logSingle.map((l) => Math.exp(l - best));
  const marginal = Float64Array.from(single);
  let whole = single.reduce((a, v) => a + v, 0);
  const pairs: { blocks: [number, number]; probability: number }[] = [];
  if (pairShare > 0) {
    const ways = new PairWays(observations, shares.map(asAWhole), count);
    const squares = weights.reduce((a, w) => a + w * w, 0);
    const allPairs = (total * total - squares) / 2;
    for (let a = 0; a < count; a += 1) {
      for (let b = a + 1; b < count; b += 1) {
        const prior = Math.log((pairShare * weights[a]! * weights[b]!) / allPairs);
        const likelihood = ways.likelihoodAbove(a, b, best - NEGLIGIBLE - prior);
        if (likelihood === null) continue;
        const probability = Math.exp(prior + likelihood - best);
        whole += probability;
        marginal[a] = marginal[a]! + probability;
        marginal[b] = marginal[b]! + probability;
        if (probability > 0) pairs.push({ blocks: [a, b], probability });
      }
    }
  }
  return {
    marginal: marginal.map((v) => v / whole),
    single: single.map((v) => v / whole),
    modes,
    outputs,
    pairs: pairs
      .map((p) => ({ ...p, probability: p.probability / whole }))
      .filter((p) => p.probability > LEAST_PAIR)
      .sort((x, y) => y.probability - x.probability)
      .slice(0, MOST_PAIRS),
  };
}

/** Of two blocks that have both failed each has failed as a whole. */
function asAWhole(shares: Float64Array): Float64Array {
  const rest = 1 - shares[OUTPUT]!;
  return shares.map((s, mode) => (mode === OUTPUT ? 0 : s / rest));
}

const LEAST_PAIR = 1e-4;
const MOST_PAIRS = 40;

/** Likelihoods of pairs, with a cheap bound from above that spares most of them. */
class PairWays {
  private readonly observations: readonly Observation[];
  private readonly shares: readonly Float64Array[];
  /** Log likelihood were everything good, and what each observation adds at most where a fault shows. */
  private readonly whenGood: number;
  private readonly gains: Float64Array;
  private readonly shows: readonly Uint8Array[];
  private readonly ways: (readonly Way[])[] = [];
  private readonly onlyA = new Float64Array(SYMPTOMS.length);
  private readonly onlyB = new Float64Array(SYMPTOMS.length);
  private readonly both = new Float64Array(SYMPTOMS.length);
  /** Blocks that cannot be told apart by what was observed share a number. */
  private readonly alike: Int32Array;
  private readonly alikeCount: number;
  private readonly known = new Map<number, number>();
  private readonly bounds = new Map<number, number>();
  /** Log likelihood by observation and symptom. */
  private readonly logs: Float64Array;

  constructor(observations: readonly Observation[], shares: readonly Float64Array[], count: number) {
    this.observations = observations;
    this.shares = shares;
    this.logs = Float64Array.from(observations.flatMap((o) => [...o.likelihood].map((l) => Math.log(l))));
    this.whenGood = observations.reduce((sum, o) => sum + Math.log(o.likelihood[GOOD]!), 0);
    this.gains = Float64Array.from(observations, (o) => {
      const bad = Math.max(...o.likelihood.filter((_, s) => s !== GOOD));
      return Math.log(bad) - Math.log(o.likelihood[GOOD]!);
    });
    // A block that can drag shows where it does either way: only the better of both bounds the pair.
    this.shows = Array.from({ length: count }, (_, b) => {
      const drags = shares[b]![DRAGS]! > 0;
      const sags = shares[b]![SAGS]! > 0;
      return Uint8Array.from(observations, (o) => {
        if (o.relevant[b] === 1) return sags && isRelieved(o, b) ? MAY_NOT : 1;
        return drags && o.dragged[b] === 1 ? MAY : 0;
      });
    });
    const numbers = new Map<string, number>();
    this.alike = Int32Array.from(this.shows, (shows, b) => {
      const key = `${shows.join('')} ${shares[b]!.join(' ')}`;
      if (!numbers.has(key)) numbers.set(key, numbers.size);
      return numbers.get(key)!;
    });
    this.alikeCount = numbers.size;
  }

  /**
   * Log likelihood of a pair, or null when it is surely below a limit. Blocks that show alike at every observation, and
   * fail alike, are computed once.
   */
  likelihoodAbove(a: number, b: number, limit: number): number | null {
    const place = this.alike[a]! * this.alikeCount + this.alike[b]!;
    const known = this.known.get(place);
    if (known !== undefined) return known < limit ? null : known;
    const bounded = this.bounds.get(place) ?? this.bound(a, b);
    this.bounds.set(place, bounded);
    if (bounded < limit) return null;
    const likelihood = this.logLikelihood(a, b);
    this.known.set(place, likelihood);
    return likelihood;
  }

  private bound(a: number, b: number): number {
    const [showsA, showsB] = [this.shows[a]!, this.shows[b]!];
    let sum = this.whenGood;
    for (let o = 0; o < showsA.length; o += 1) {
      const shows = showsA[o]! | showsB[o]!;
      if (shows === 0) continue;
      const gain = this.gains[o]!;
      sum += (shows & 1) === 1 ? gain : Math.max(0, gain);
    }
    return sum;
  }

  private logLikelihood(a: number, b: number): number {
    const [waysA, waysB] = [this.waysOf(a), this.waysOf(b)];
    const base = this.bound(a, b);
    const { onlyA, onlyB, both } = this;
    let total = 0;
    for (const wayA of waysA) {
      for (const wayB of waysB) {
        const neither = this.sum(wayA.shows, wayB.shows) - base;
        for (let i = 0; i < wayA.symptoms.length; i += 1) {
          const symptomA = wayA.symptoms[i]!;
          for (let j = 0; j < wayB.symptoms.length; j += 1) {
            const symptomB = wayB.symptoms[j]!;
            const log = neither + onlyA[symptomA]! + onlyB[symptomB]! + both[Math.max(symptomA, symptomB)]!;
            total += wayA.shares[i]! * wayB.shares[j]! * Math.exp(log);
          }
        }
      }
    }
    return Math.log(total) + base;
  }

  /** A block's ways of failing by where they show: in itself, and where it drags a supply down. */
  private waysOf(block: number): readonly Way[] {
    const known = this.ways[block];
    if (known) return known;
    const shares = this.shares[block]!;
    const drags = shares[DRAGS]!;
    const sags = shares[SAGS]!;
    const own = FAULT_MODES.flatMap((_, mode) =>
      shares[mode]! > 0 && mode !== DRAGS && mode !== SAGS && mode !== OUTPUT ? [mode] : [],
    );
    const plain: Way = {
      shows: Uint8Array.from(this.observations, (o) => o.relevant[block]!),
      symptoms: own.map((mode) => MODE_SYMPTOM[mode]!),
      shares: own.map((mode) => shares[mode]!),
    };
    const ways: Way[] = [plain];
    if (drags > 0)
      ways.push({
        shows: Uint8Array.from(this.observations, (o) => o.dragged[block]!),
        symptoms: [NONE],
        shares: [drags],
      });
    if (sags > 0)
      ways.push({
        shows: Uint8Array.from(this.observations, (o) => (isRelieved(o, block) ? 0 : o.relevant[block]!)),
        symptoms: [NONE],
        shares: [sags],
      });
    return (this.ways[block] = ways);
  }

  /** Log likelihoods where only the one shows, only the other, or both, by symptom, into the sums; answers the rest. */
  private sum(a: Uint8Array, b: Uint8Array): number {
    const { onlyA, onlyB, both, logs } = this;
    const count = SYMPTOMS.length;
    for (let s = 0; s < count; s += 1) {
      onlyA[s] = 0;
      onlyB[s] = 0;
      both[s] = 0;
    }
    let neither = 0;
    for (let o = 0; o < a.length; o += 1) {
      const at = o * count;
      if (a[o] === 0 && b[o] === 0) {
        neither += logs[at + GOOD]!;
        continue;
      }
      const shown = a[o] === 0 ? onlyB : b[o] === 0 ? onlyA : both;
      for (let s = 0; s < count; s += 1) shown[s] = shown[s]! + logs[at + s]!;
    }
    return neither;
  }
}

/** Ways of failing that show at the same observations, with their shares. */
interface Way {
  readonly shows: Uint8Array;
  readonly symptoms: readonly number[];
  readonly shares: readonly number[];
}

const DRAGS = FAULT_MODES.indexOf('drags');
const SAGS = FAULT_MODES.indexOf('sags');
const OUTPUT = FAULT_MODES.indexOf('output');
/** Of two faults at once, a supply that is relieved of this much of its load is taken to bear the rest. */
const MOSTLY = 0.5;
const isRelieved = ({ relieved }: Observation, block: number) => relieved[block]! >= MOSTLY;

/** Set where a block shows in one of its modes only: where it drags, or where it does not sag. */
const MAY = 2;
const MAY_NOT = 4;

/** Entropy of what is left to find, bit: over single faults and the pairs worth naming. */
export function entropyOf(posterior: Posterior): number {
  return entropy([...posterior.single, ...posterior.pairs.map((p) => p.probability)]);
}

/** Shannon entropy, bit, of weights that need not add up to 1. */
export function entropy(weights: readonly number[]): number {
  const total = weights.reduce((a, b) => a + b, 0);
  if (total <= 0) return 0;
  return weights.reduce((sum, w) => (w > 0 ? sum - (w / total) * Math.log2(w / total) : sum), 0);
}

/** The last look at each place. */
const distinct = (observations: readonly Observation[]): Observation[] => [
  ...new Map(observations.map((o) => [o.name, o])).values(),
];

/** One plain sentence why a block is suspected, or not. */
export function whySuspect(path: Path, observations: readonly Observation[], block: number): string {
  const shows = (o: Observation) => o.relevant[block] === 1;
  const bad = distinct(observations.filter((o) => o.seen !== 'good'));
  const good = distinct(observations.filter((o) => o.seen === 'good'));
  const { name, kind } = path.blocks[block]!;
  if (observations.length === 0)
    return kind.name === 'block'
      ? 'Nothing is tested yet; this is its weight against the others.'
      : `Nothing is tested yet; this is how often ${/^[aeiou]/.test(kind.name) ? 'an' : 'a'} ${kind.name} is the culprit.`;
  const explained = bad.filter(shows);
  const clearing = good.filter(shows);
  const relieving = good.find((o) => shows(o) && o.relieved[block]! > 0);
  if (relieving && explained.length > 0 && clearing.every((o) => o.relieved[block]! > 0))
    return `${explained.at(-1)!.name} was bad, but right as ${relieving.name}: ${name} may not bear its load.`;
  if (clearing.length > 0 && explained.length === 0)
    return `${clearing.at(-1)!.name} was good, and depends on ${name}.`;
  if (clearing.length > 0)
    return `${explained.at(-1)!.name} was bad, but ${clearing.at(-1)!.name} was good and depends on ${name} too.`;
  const missed = bad.filter((o) => !shows(o));
  const cameBack = good.find((o) => o.without.has(block));
  if (explained.length === 0 && cameBack && missed.some((o) => o.dragged[block] === 1))
    return `${missed.find((o) => o.dragged[block] === 1)!.name} was bad, and right as ${cameBack.name}: ${name}, or its wiring, drags the supply down.`;
  const dragging = bad.find((o) => !shows(o) && o.dragged[block] === 1);
  if (explained.length === 0 && dragging && path.feeders(block).length > 0)
    return `It could drag down the supply of ${dragging.name}, which was bad: disconnect it and look again.`;
  if (explained.length === 0)
    return missed.length > 0
      ? `It would not show at ${missed.at(-1)!.name}, which was bad.`
      : 'No test has touched it yet.';
  const many =
    explained.length > 1
      ? `All ${explained.length} bad points depend on ${name}`
      : `${explained[0]!.name} was bad and depends on ${name}`;
  const spared = good.length > 0 ? `, and ${good.at(-1)!.name}, which does not, was good` : '';
  const also = missed.length > 0 ? `; it does not explain ${missed.at(-1)!.name}` : '';
  return `${many}${spared}${also}.`;
}
