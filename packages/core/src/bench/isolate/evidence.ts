import type { EvidenceData } from '@zemble/contract';
import { formatQuantity } from '../../base/quantity/index.ts';
import type { Link, Listening, Path, TestPoint } from './path.ts';
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
  /** Blocks that bear on it only round a ring: their failing may show there. */
  readonly looped: Uint8Array;
  /** Links that it hears: an output of its own that is dead shows on these. */
  readonly links: ReadonlySet<Link>;
  /** Chance that a block, a supply, bears what is left of its load. */
  readonly relieved: Float64Array;
  /** Blocks that were disconnected. */
  readonly without: ReadonlySet<number>;
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
 * Evidence, in the order it was seen, as observations; what cannot be used comes back with its reason. What was seen
 * otherwise later at the same place, the unit standing the same, replaces what was seen before, but where the fault comes and goes. A first finding
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
      if (options.isIntermittent !== true) {
        const stale = observations.filter((o) => isSameLook(path, o, read) && o.seen !== read.seen);
        for (const o of stale) {
          observations.splice(observations.indexOf(o), 1);
          ignored.push({ evidence: o.evidence, reason: 'it was seen otherwise there later, which counts' });
        }
      }
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
    return {
      evidence,
      name: `${name}, unplugged`,
      seen,
      likelihood,
      relevant,
      dragged: relevant,
      looped: new Uint8Array(path.blocks.length),
      links: new Set(),
      relieved: new Float64Array(path.blocks.length),
      without: new Set(),
      minutes,
    };
  }
  const point = path.pointNamed(evidence.at);
  if (!point) return `there is no point, net or block "${evidence.at}"`;
  const seen = seenAt(point, evidence, options);
  if (seen === null) return 'nothing is known of what it should be there';
  const injection = evidence.injectedAt === undefined ? undefined : injectionBlock(path, evidence.injectedAt);
  if (injection === null) return `there is no point or block "${evidence.injectedAt}" to inject at`;
  const how = { injectedAt: injection, channel: path.channelOf(point), on: point.link };
  const heard = path.heard(point.block, how);
  if (!heard) return `what goes in at ${evidence.injectedAt} does not get to ${evidence.at}`;
  const isFloating = evidence.saw === 'floating' && point.carries !== 'audio';
  // What is driven does not float for what comes before its driver: that one is dead, or without its supply.
  const relevant = isFloating ? path.drivingAt(point.block) : heard.blocks;
  const [unknown] = unknownBlocks(path, conditions);
  if (unknown !== undefined)
    return `there is no block "${unknown}" to disconnect; the blocks are ${path.blocks.map((b) => b.id).join(', ')}`;
  const without = disconnectedBy(path, conditions);
  const missing = [...without].find((block) => relevant[block] === 1);
  if (missing !== undefined)
    return `${path.blocks[missing]!.name} is disconnected, and nothing gets there without it`;
  const isProvoked = conditions.some((c) => PROVOKING.includes(c));
  const hidden = options.isIntermittent ? (isProvoked ? PROVOKED_HIDDEN : INTERMITTENT_HIDDEN) : trust.hidden;
  const isVoltage = point.carries === 'supply' || typeof evidence.saw !== 'string';
  const falseAlarm = isProved || seen === 'good' ? trust.wrong : Math.max(trust.wrong, UNPROVED_WRONG);
  return {
    evidence,
    name: `${point.name}${underWords(path, conditions)}`,
    seen,
    likelihood: likelihoods(
      seen,
      { ...trust, wrong: isVoltage ? VOLTAGE_WRONG : trust.wrong, hidden },
      falseAlarm,
    ),
    relevant,
    dragged: draggedAt(path, relevant, conditions),
    looped: isFloating ? new Uint8Array(path.blocks.length) : loopedAt(path, point.block, how, heard.blocks),
    links: isFloating ? new Set(point.link ? [point.link] : []) : heard.links,
    relieved: relievedBy(path, conditions),
    without,
    minutes: point.minutes,
  };
}

/** A slipped probe finds nothing; it finds the right voltage by mistake in this many cases (common practice). */
const VOLTAGE_WRONG = 0.005;

/** Conditions of the test itself rather than of the unit. */
const OF_THE_PROBE: readonly string[] = [CONDITIONS.probeProved, CONDITIONS.unplugged];

/** Under what the unit stood, the same for every order of the words. */
const standing = (conditions: readonly string[] = []): string[] =>
  [...new Set(conditions.map((c) => c.toLowerCase()))].filter((c) => !OF_THE_PROBE.includes(c)).sort();

/** " with Power amplifier disconnected", " (warm)": under which conditions something was seen. */
function underWords(path: Path, conditions: readonly string[]): string {
  const words = standing(conditions).map((c) => {
    const [block] = disconnectedBy(path, [c]);
    return block === undefined ? c : `with ${path.blocks[block]!.name} disconnected`;
  });
  return words.length === 0 ? '' : ` (${words.join(', ')})`;
}

/** What is said to be disconnected under conditions, in small letters. */
const disconnectedIds = (conditions: readonly string[]): string[] => {
  const prefix = CONDITIONS.disconnected.trim();
  return conditions
    .filter((c) => c.startsWith(prefix))
    .map((c) => c.slice(prefix.length).trim().toLowerCase());
};

/** Whether two looks are at the same place, with the same going in, the unit standing the same. */
export const isSameLook = (
  path: Path,
  a: Pick<Observation, 'evidence'>,
  b: Pick<Observation, 'evidence'>,
): boolean => lookKey(path, a.evidence) === lookKey(path, b.evidence);

function lookKey(path: Path, { at, injectedAt = '', conditions = [] }: EvidenceData): string {
  const isCold = conditions.some((c) => c.toLowerCase() === CONDITIONS.unplugged);
  const point = isCold ? undefined : path.pointNamed(at);
  const place = point?.link ? `${point.link.from} to ${point.link.to}` : (point?.id ?? at);
  return [place, injectedAt, isCold ? CONDITIONS.unplugged : '', ...standing(conditions)].join('\n');
}

/** Blocks that are disconnected under conditions. */
function disconnectedBy(path: Path, conditions: readonly string[]): ReadonlySet<number> {
  const ids = disconnectedIds(conditions);
  return new Set(path.blocks.flatMap((b, i) => (ids.includes(b.id.toLowerCase()) ? [i] : [])));
}

/** What is said to be disconnected and is no block. */
const unknownBlocks = (path: Path, conditions: readonly string[]): string[] =>
  disconnectedIds(conditions).filter((id) => !path.blocks.some((b) => b.id.toLowerCase() === id));

/** Blocks that bear on a point only by what comes back round a ring. */
export function loopedAt(path: Path, block: number, how: Listening, direct: Uint8Array): Uint8Array {
  if (!path.hasRing) return new Uint8Array(direct.length);
  const all = path.heard(block, { ...how, withRings: true })?.blocks;
  return Uint8Array.from(direct, (d, i) => (d === 0 && all?.[i] === 1 ? 1 : 0));
}

/** A supply that cannot bear its load bears what is left when one of several loads is off, in this many cases (common practice). */
const RELIEF = 0.5;

/** The chance that each supply bears what is left of its load under conditions. */
export function relievedBy(path: Path, conditions: readonly string[]): Float64Array {
  const isUnloaded = conditions.includes(CONDITIONS.unloaded);
  const off = new Set([...disconnectedBy(path, conditions)].flatMap((b) => [b, ...path.fedBy(b)]));
  return Float64Array.from(path.blocks, (_, block) => {
    if (isUnloaded) return 1;
    const loads = path.fedBy(block);
    const count = [...loads].filter((load) => off.has(load)).length;
    return count === 0 ? 0 : count === loads.size ? 1 : RELIEF;
  });
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
  const off = disconnectedBy(path, conditions);
  path.blocks.forEach((_, i) => {
    if (off.has(i)) return;
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

/** Pairs of tests under the same conditions that contradict each other; none where the fault comes and goes. */
export function contradictions(observations: readonly Observation[]): Contradiction[] {
  const found: Contradiction[] = [];
  for (const good of observations) {
    if (good.seen !== 'good') continue;
    for (const bad of observations) {
      if (bad.seen === 'good' || !isAlike(good, bad)) continue;
      const isInside = bad.relevant.every((r, i) => r === 0 || good.relevant[i] === 1);
      const isDragInside = bad.dragged.every((d, i) => d === 0 || good.dragged[i] === 1);
      const areLinksInside = [...bad.links].every((l) => good.links.has(l));
      if (!isInside || !isDragInside || !areLinksInside || bad.looped.includes(1)) continue;
      const cheaper = good.minutes <= bad.minutes ? good : bad;
      const sentence = `${bad.name} was bad, yet ${good.name}, which comes after it, was good: they cannot both be right. Repeat the cheaper one, ${cheaper.name}.`;
      found.push({ good, bad, sentence });
    }
  }
  return found;
}

/** Whether the unit stood the same for both: what is otherwise may be so because of that. */
const isAlike = (a: Observation, b: Observation): boolean =>
  standing(a.evidence.conditions).join() === standing(b.evidence.conditions).join();
