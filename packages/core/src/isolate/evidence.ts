import type { EvidenceData } from '@halfsplit/contract';
import { formatQuantity } from '../quantity/index.ts';
import type { Path, TestPoint } from './path.ts';
import {
  INTERMITTENT_HIDDEN,
  likelihoods,
  PROVOKED_HIDDEN,
  seenFor,
  UNPROVED_WRONG,
  USUAL_TRUST,
  type Seen,
  type Trust,
} from './symptom.ts';

/** Conditions that a test can be made under. */
export const CONDITIONS = {
  probeProved: 'probe proved',
  unplugged: 'unplugged',
  wiggled: 'wiggled',
  warm: 'warm',
  cold: 'cold',
  unloaded: 'unloaded',
  dummyLoad: 'dummy load',
  /** Followed by the block that was disconnected. */
  disconnected: 'disconnected: ',
} as const;
const PROVOKING = ['wiggled', 'tapped', 'pressed', 'warm', 'cold', 'hot'];

/** An observation as the inference uses it. */
export interface Observation {
  readonly evidence: EvidenceData;
  readonly name: string;
  /** Likelihood of what was seen under each symptom. */
  readonly likelihood: Float64Array;
  readonly seen: Seen;
  /** Blocks whose failing shows there. */
  readonly relevant: Uint8Array;
  /** Blocks whose dragging down a supply shows there. */
  readonly dragged: Uint8Array;
  readonly minutes: number;
}

export interface EvidenceOptions {
  readonly isIntermittent?: boolean;
  readonly trust?: Trust;
  /** What is expected at a net or point in a unit, low and high; for evidence that is a number. */
  readonly expected?: (
    point: TestPoint,
    unit: string,
  ) => { readonly low: number; readonly high: number } | undefined;
}

/** Why a piece of evidence does not count. */
export interface Ignored {
  readonly evidence: EvidenceData;
  readonly reason: string;
}

/**
 * Evidence, in the order it was seen, as observations; what cannot be used comes back with its reason. A first finding
 * that is bad counts less until the probe has been proved: by a good finding, or by the condition "probe proved".
 */
export function readEvidence(
  path: Path,
  evidence: readonly EvidenceData[],
  options: EvidenceOptions = {},
): { readonly observations: readonly Observation[]; readonly ignored: readonly Ignored[] } {
  const observations: Observation[] = [];
  const ignored: Ignored[] = [];
  let isProved = false;
  const expected = withTwins(path, evidence, options.expected);
  for (const e of evidence) {
    if (e.withdrawn === true) continue;
    const conditions = (e.conditions ?? []).map((c) => c.toLowerCase());
    isProved ||= conditions.includes(CONDITIONS.probeProved);
    const read = observationOf(path, e, conditions, isProved, { ...options, expected });
    if (typeof read === 'string') ignored.push({ evidence: e, reason: read });
    else {
      observations.push(read);
      isProved ||= read.seen === 'good';
    }
  }
  return { observations, ignored };
}

function observationOf(
  path: Path,
  evidence: EvidenceData,
  conditions: readonly string[],
  isProved: boolean,
  options: EvidenceOptions,
): Observation | string {
  const trust = options.trust ?? USUAL_TRUST;
  const ownBlock = path.indexOf(evidence.at);
  if (conditions.includes(CONDITIONS.unplugged) && ownBlock !== undefined) {
    const seen = typeof evidence.saw === 'string' ? seenFor(evidence.saw, 'audio') : null;
    if (seen === null) return 'it does not say whether the block is good';
    const relevant = new Uint8Array(path.blocks.length);
    relevant[ownBlock] = 1;
    const { name, minutes } = path.blocks[ownBlock]!;
    const likelihood = likelihoods(seen === 'good' ? seen : 'bad', trust);
    return { evidence, name: `${name}, unplugged`, seen, likelihood, relevant, dragged: relevant, minutes };
  }
  const point = path.pointNamed(evidence.at);
  if (!point) return `there is no point, net or block "${evidence.at}"`;
  const seen = seenAt(point, evidence, options);
  if (seen === null) return 'nothing is known of what it should be there';
  const injection = evidence.injectedAt === undefined ? undefined : injectionBlock(path, evidence.injectedAt);
  if (injection === null) return `there is no point or block "${evidence.injectedAt}" to inject at`;
  const relevant = path.relevant(point.block, injection);
  if (!relevant) return `what goes in at ${evidence.injectedAt} does not get to ${evidence.at}`;
  const isProvoked = conditions.some((c) => PROVOKING.includes(c));
  const hidden = options.isIntermittent ? (isProvoked ? PROVOKED_HIDDEN : INTERMITTENT_HIDDEN) : trust.hidden;
  const falseAlarm = isProved || seen === 'good' ? trust.wrong : Math.max(trust.wrong, UNPROVED_WRONG);
  return {
    evidence,
    name: point.name,
    seen,
    likelihood: likelihoods(seen, { ...trust, hidden }, falseAlarm),
    relevant,
    dragged: draggedAt(path, relevant, conditions),
    minutes: point.minutes,
  };
}

/** Block whose input a tone goes into: the block named, or the one after the point named. */
function injectionBlock(path: Path, name: string): number | null {
  const block = path.indexOf(name);
  if (block !== undefined) return block;
  const point = path.pointNamed(name);
  if (!point) return null;
  return point.link?.to ?? point.block;
}

/** Blocks that show at a point by dragging down a supply it depends on, unless they are disconnected. */
export function draggedAt(path: Path, relevant: Uint8Array, conditions: readonly string[] = []): Uint8Array {
  const dragged = Uint8Array.from(relevant);
  if (conditions.includes(CONDITIONS.unloaded) || conditions.includes(CONDITIONS.dummyLoad)) return dragged;
  const off = new Set(
    conditions
      .filter((c) => c.startsWith(CONDITIONS.disconnected.trim()))
      .map((c) => c.slice(CONDITIONS.disconnected.trim().length).trim()),
  );
  path.blocks.forEach((b, i) => {
    if (off.has(b.id.toLowerCase())) return;
    if (path.feeders(i).some((feeder) => relevant[feeder] === 1)) dragged[i] = 1;
  });
  return dragged;
}

/** A twin's reading holds for the other channel within this share of it, and never closer than this, V (common practice). */
const TWIN_SHARE = 0.15;
const TWIN_LEAST_V = 0.05;

/** What is expected at a point: what its twin channel reads there, before what the circuit computes. */
function withTwins(
  path: Path,
  evidence: readonly EvidenceData[],
  computed: EvidenceOptions['expected'],
): NonNullable<EvidenceOptions['expected']> {
  return (point, unit) => {
    const twin = path.twinOf(point);
    const seen = twin
      ? evidence.filter(
          (e) =>
            e.withdrawn !== true &&
            typeof e.saw !== 'string' &&
            voltsOf(e.saw).unit === unit &&
            path.pointNamed(e.at)?.id === twin.id,
        )
      : [];
    const saw = seen.at(-1)?.saw;
    if (saw === undefined || typeof saw === 'string') return computed?.(point, unit);
    const { value } = voltsOf(saw);
    const room = Math.max(TWIN_LEAST_V, TWIN_SHARE * Math.abs(value));
    return { low: value - room, high: value + room };
  };
}

const PREFIXES: Readonly<Record<string, number>> = { '': 1, m: 1e-3, u: 1e-6, µ: 1e-6, k: 1e3 };

/** A voltage of the evidence without its prefix: `12 mV` as 0.012 V. Another unit is left as it is. */
function voltsOf({ value, unit }: { readonly value: number; readonly unit: string }): {
  readonly value: number;
  readonly unit: string;
} {
  const [, prefix, plain] = /^([muµk]?)(V(?:rms|pp)?)$/.exec(unit) ?? [];
  return plain === undefined ? { value, unit } : { value: value * PREFIXES[prefix!]!, unit: plain };
}

/** A number this far below the expected range is nothing at all. */
const NOTHING_SHARE = 0.1;

function seenAt(point: TestPoint, evidence: EvidenceData, options: EvidenceOptions): Seen | null {
  const { saw } = evidence;
  if (typeof saw === 'string') return seenFor(saw, point.carries);
  const { value, unit } = voltsOf(saw);
  const expected = options.expected?.(point, unit);
  if (!expected) return null;
  if (value >= expected.low && value <= expected.high) return 'good';
  const middle = (expected.low + expected.high) / 2;
  return Math.abs(value) < NOTHING_SHARE * Math.abs(middle) ? 'none' : 'bad';
}

const SAW_WORDS: Readonly<Record<string, string>> = {
  good: 'it is there',
  weak: 'it is weak',
  distorted: 'it is distorted',
  hum: 'there is hum',
  none: 'nothing there',
  pulsing: 'the pin pulses',
  high: 'the pin is high',
  low: 'the pin is low',
  floating: 'the pin floats',
};

/** One test and its result as a sentence for the log. */
export function evidenceSentence(path: Path, evidence: EvidenceData): string {
  const { at, injectedAt, saw } = evidence;
  const conditions = evidence.conditions ?? [];
  const block = path.indexOf(at);
  const isCold = block !== undefined && conditions.includes(CONDITIONS.unplugged);
  const where = isCold ? path.blocks[block]!.name : (path.pointNamed(at)?.name ?? at);
  const from = injectedAt === undefined ? '' : ` with a tone into ${nameOf(path, injectedAt)}`;
  const result =
    typeof saw === 'string'
      ? isCold
        ? saw === 'good'
          ? 'it is good'
          : 'it is bad'
        : (SAW_WORDS[saw] ?? saw)
      : numberWords(saw.value, saw.unit);
  const under = conditions.length > 0 ? ` (${conditions.join(', ')})` : '';
  return `Tested ${where}${from}${under}: ${result}.`;
}

/** A number of the evidence as it is said: `4.1 V`, `240 mV of tone (rms)`, `12 mV of ripple (peak to peak)`. */
function numberWords(value: number, unit: string): string {
  const known = NUMBERS[unit];
  return known === undefined ? `${value} ${unit}` : `${formatQuantity(value, 'V', { digits: 4 })}${known}`;
}
const NUMBERS: Readonly<Record<string, string>> = {
  V: '',
  Vrms: ' of tone (rms)',
  Vpp: ' of ripple (peak to peak)',
};

const nameOf = (path: Path, id: string): string => {
  const block = path.indexOf(id);
  return block === undefined ? (path.pointNamed(id)?.name ?? id) : path.blocks[block]!.name;
};

/** Two tests that cannot both be right: the fault that one asks for would have shown in the other. */
export interface Contradiction {
  readonly good: Observation;
  readonly bad: Observation;
  readonly sentence: string;
}

/** Pairs of tests that contradict each other; none where the fault comes and goes. */
export function contradictions(observations: readonly Observation[]): Contradiction[] {
  const found: Contradiction[] = [];
  for (const good of observations) {
    if (good.seen !== 'good') continue;
    for (const bad of observations) {
      if (bad.seen === 'good') continue;
      const isInside = bad.relevant.every((r, i) => r === 0 || good.relevant[i] === 1);
      const isDragInside = bad.dragged.every((d, i) => d === 0 || good.dragged[i] === 1);
      if (!isInside || !isDragInside) continue;
      const cheaper = good.minutes <= bad.minutes ? good : bad;
      const sentence = `${bad.name} was bad, yet ${good.name}, which comes after it, was good: they cannot both be right. Repeat the cheaper one, ${cheaper.name}.`;
      found.push({ good, bad, sentence });
    }
  }
  return found;
}
