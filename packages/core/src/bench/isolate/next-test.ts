import type { Carries, Hazard } from '@zemble/contract';
import { CONDITIONS, draggedAt, loopedAt, relievedBy, type Observation } from './evidence.ts';
import { SAFE_V } from './stored.ts';
import type { Link, Path } from './path.ts';
import { entropyOf, ROUND_SHOWS, type Posterior } from './suspects.ts';
import { FAULT_MODES, USUAL_TRUST, type Trust } from './symptom.ts';

/** The schools of searching: by value (default), inject a tone backwards, trace it forwards, or halve by count. */
export const SCHOOLS = ['value', 'inject', 'trace', 'halve'] as const;
export type School = (typeof SCHOOLS)[number];

/** A test that can be made. */
export interface Test {
  readonly id: string;
  readonly how: 'trace' | 'inject' | 'check';
  /** Point or block where it is looked. */
  readonly at: string;
  readonly injectedAt?: string;
  readonly minutes: number;
  /** What is asked, as one question. */
  readonly question: string;
  /** What the place carries, by which the probe is proved: a tone, a voltage, pulses. */
  readonly carries: Carries;
  /** Under which conditions the unit has to stand for it. */
  readonly conditions?: readonly string[];
  readonly relevant: Uint8Array;
  readonly dragged: Uint8Array;
  /** Blocks that bear on it only round a ring. */
  readonly looped: Uint8Array;
  /** Links that it hears. */
  readonly links: ReadonlySet<Link>;
  /** Chance that a supply bears what is left of its load. */
  readonly relieved: Float64Array;
}

export interface ForbiddenTest {
  readonly test: Test;
  readonly reason: string;
}

/** A test with what it is expected to tell. */
export interface RatedTest {
  readonly test: Test;
  /** Expected information about which fault it is. */
  readonly bits: number;
  /** Chance that it comes out good. */
  readonly good: number;
}

/** Connecting the tone and listening takes this long beside getting at the place, min. */
const LISTEN_MINUTES = 0.5;

/**
 * Every test of a path: look at each point, put a tone into each block and listen at the outputs, judge by itself what
 * can be judged unplugged.
 */
export function testsOf(path: Path): Test[] {
  const loaded = new Float64Array(path.blocks.length);
  const traces = path.points.flatMap((p): Test[] => {
    const how = { channel: path.channelOf(p), on: p.link };
    const heard = path.heard(p.block, how);
    if (!heard) return [];
    const { blocks: relevant, links } = heard;
    return [
      {
        id: p.id,
        how: 'trace',
        at: p.id,
        minutes: p.minutes,
        question: questionAt(p.name, p.carries),
        carries: p.carries,
        relevant,
        dragged: draggedAt(path, relevant),
        looped: loopedAt(path, p.block, how, relevant),
        links,
        relieved: loaded,
      },
    ];
  });
  const sinks = path.sinks();
  const injections = path.injectable().flatMap((block) =>
    sinks.flatMap((sink): Test[] => {
      const heard = path.heard(sink, { injectedAt: block });
      if (!heard) return [];
      const { blocks: relevant, links } = heard;
      const [into, out] = [path.blocks[block]!, path.blocks[sink]!];
      return [
        {
          id: `${into.id}=>${out.id}`,
          how: 'inject',
          at: out.id,
          injectedAt: into.id,
          minutes: into.minutes + LISTEN_MINUTES,
          question: `With a tone into ${into.name}, is it there at ${out.name}?`,
          carries: 'audio',
          relevant,
          dragged: draggedAt(path, relevant),
          looped: loopedAt(path, sink, { injectedAt: block }, relevant),
          links,
          relieved: loaded,
        },
      ];
    }),
  );
  const checks = path.blocks.flatMap((b, i): Test[] => {
    if (!b.kind.coldCheck) return [];
    const relevant = new Uint8Array(path.blocks.length);
    relevant[i] = 1;
    return [
      {
        id: `${b.id}, unplugged`,
        how: 'check',
        at: b.id,
        minutes: b.minutes,
        question: `Is ${b.name} good by itself? Unplug: ${b.kind.coldCheck}.`,
        carries: 'audio',
        conditions: [CONDITIONS.unplugged],
        relevant,
        dragged: relevant,
        looped: new Uint8Array(path.blocks.length),
        links: new Set(),
        relieved: loaded,
      },
    ];
  });
  return [...traces, ...injections, ...checks];
}

/**
 * Where a supply was found wrong: look there again with one of its loads disconnected. When it comes back, that load, its
 * wiring or what the supply can bear is the fault; when it does not, that load is not.
 */
export function disconnectingTests(path: Path, observations: readonly Observation[]): Test[] {
  const bad = new Set(
    observations.flatMap((o) =>
      o.seen !== 'good' && (o.evidence.conditions ?? []).every((c) => !c.startsWith(CONDITIONS.disconnected))
        ? [path.pointNamed(o.evidence.at)]
        : [],
    ),
  );
  return [...bad].flatMap((point) => {
    const heard = point?.carries === 'supply' ? path.heard(point.block) : null;
    if (!point || !heard) return [];
    const { blocks: relevant, links } = heard;
    return path.loadsOf(point.block).map((load): Test => {
      const { id, name, minutes } = path.blocks[load]!;
      const conditions = [`${CONDITIONS.disconnected}${id}`];
      return {
        id: `${point.id}, ${id} disconnected`,
        how: 'trace',
        at: point.id,
        minutes: point.minutes + minutes,
        question: `Switched off and discharged, disconnect ${name}; then: is the supply right at ${point.name}?`,
        carries: 'supply',
        conditions,
        relevant,
        dragged: draggedAt(path, relevant, conditions),
        looped: loopedAt(path, point.block, {}, relevant),
        links,
        relieved: relievedBy(path, conditions),
      };
    });
  });
}

function questionAt(name: string, carries: string): string {
  switch (carries) {
    case 'supply':
      return `Is the supply right at ${name}?`;
    case 'clock':
      return `Does the clock pulse at ${name}?`;
    case 'data':
      return `Does the data pulse at ${name}?`;
    case 'control':
      return `Is the control line right at ${name}, and not floating?`;
    default:
      return `Is the signal there at ${name}?`;
  }
}

/** What decides whether a test may be made live. */
export interface LiveLimits {
  readonly hazards?: readonly Hazard[] | undefined;
  /** Direct voltages as they are computed, V by net: above 60 V nothing is measured live, whatever the block is called. */
  readonly volts?: ReadonlyMap<string, number> | undefined;
}

/**
 * Why a test is not offered; null when it may be made. Nothing is measured live on the mains side or at high tension, and
 * no tone is put into it, be it known by the kind of block, by its name, or by the voltage computed there; what is judged
 * unplugged may be made.
 */
export function forbiddenBy(path: Path, test: Test, limits: LiveLimits = {}): string | null {
  if (test.how === 'check') return null;
  const block = path.indexOf(test.injectedAt ?? '') ?? path.pointNamed(test.at)?.block;
  if (block === undefined) return null;
  const { hazards = [], volts } = limits;
  const { name, kind } = path.blocks[block]!;
  const isBattery = hazards.includes('battery only') && hazards.length === 1;
  if (kind.isMainsSide && !isBattery)
    return `${name} is on the mains side: nothing is measured there live. Unplug, let it discharge, and leave mains work to licensed people, as local codes ask.`;
  const net = path.pointNamed(test.at)?.net;
  const volt = net === undefined ? undefined : volts?.get(net);
  if (volt !== undefined && Math.abs(volt) > SAFE_V)
    return `${net} stands at about ${Math.round(Math.abs(volt))} V: no probe goes there live. Measure it switched off, unplugged and discharged, or have it done by somebody trained for it.`;
  if (kind.isHighTension && !isBattery)
    return `${name} carries lethal high tension while it is on and after: no probe goes there live. Measure it switched off, unplugged and discharged, or have it done by somebody trained for it.`;
  return null;
}

/** Splits tests into those that hazards allow and those they forbid, with the reason. */
export function offeredTests(
  path: Path,
  limits: LiveLimits = {},
  tests: readonly Test[] = testsOf(path),
): { readonly offered: readonly Test[]; readonly forbidden: readonly ForbiddenTest[] } {
  const offered: Test[] = [];
  const forbidden: ForbiddenTest[] = [];
  for (const test of tests) {
    const reason = forbiddenBy(path, test, limits);
    if (reason === null) offered.push(test);
    else forbidden.push({ test, reason });
  }
  return { offered, forbidden };
}

/** Expected information of a test about the fault, in bit, from a posterior. */
export function rateTest(
  path: Path,
  test: Test,
  posterior: Posterior,
  trust: Trust = USUAL_TRUST,
): RatedTest {
  const missed = trust.wrong + (1 - trust.wrong) * trust.hidden;
  let total = 0;
  let good = 0;
  let noise = 0;
  const add = (probability: number, shows: number) => {
    const chance = shows * missed + (1 - shows) * (1 - trust.wrong);
    total += probability;
    good += probability * chance;
    noise += probability * binaryEntropy(chance);
  };
  const showing = (block: number): number => {
    const modes = posterior.modes[block]!;
    const ofOne = modes[OUTPUT]!;
    const shown =
      test.relevant[block] === 1
        ? 1 - ofOne - test.relieved[block]! * modes[SAGS]!
        : test.looped[block] === 1
          ? ROUND_SHOWS * (1 - ofOne)
          : test.dragged[block] === 1
            ? modes[DRAGS]!
            : 0;
    if (ofOne === 0) return shown;
    const heard = path
      .outputsOf(block)
      .reduce((sum, l, i) => sum + (test.links.has(l) ? posterior.outputs[block]![i]! : 0), 0);
    return shown + ofOne * heard;
  };
  posterior.single.forEach((p, block) => add(p, showing(block)));
  for (const { blocks, probability } of posterior.pairs)
    add(probability, 1 - (1 - showing(blocks[0])) * (1 - showing(blocks[1])));
  if (total === 0) return { test, bits: 0, good: 0.5 };
  return { test, bits: Math.max(0, binaryEntropy(good / total) - noise / total), good: good / total };
}

const [DRAGS, SAGS, OUTPUT] = (['drags', 'sags', 'output'] as const).map((mode) =>
  FAULT_MODES.indexOf(mode),
) as [number, number, number];

const binaryEntropy = (p: number): number =>
  p <= 0 || p >= 1 ? 0 : -p * Math.log2(p) - (1 - p) * Math.log2(1 - p);

/** Information below which a test is not worth a walk to the bench, bit. */
const WORTHLESS_BITS = 1e-3;
/** Halving by count counts the blocks that have at least this share of the likeliest one's suspicion. */
const STILL_SUSPECTED = 0.05;

/** Tests in the order in which a school would make them; those that tell nothing are left out. */
export function rankTests(
  path: Path,
  tests: readonly Test[],
  posterior: Posterior,
  school: School = 'value',
  trust: Trust = USUAL_TRUST,
): RatedTest[] {
  const rated = tests.map((t) => rateTest(path, t, posterior, trust)).filter((r) => r.bits > WORTHLESS_BITS);
  const likeliest = Math.max(...posterior.single);
  const left = Uint8Array.from(posterior.single, (p) => (p > STILL_SUSPECTED * likeliest ? 1 : 0));
  const worth = (r: RatedTest): number => {
    switch (school) {
      case 'value':
        return r.bits / r.test.minutes;
      case 'halve':
        return -Math.abs(2 * count(r.test.relevant.map((v, b) => v * left[b]!)) - count(left));
      case 'inject':
        // From the output backwards: the fewest blocks behind the tone first.
        return (r.test.how === 'inject' ? 1e6 : 0) - count(r.test.relevant);
      case 'trace':
        return (r.test.how === 'trace' ? 1e6 : 0) - count(r.test.relevant);
    }
  };
  const places = new Map(tests.map((t, i) => [t, i]));
  return rated.sort((a, b) => worth(b) - worth(a) || places.get(a.test)! - places.get(b.test)!);
}

const count = (mask: Uint8Array) => mask.reduce((a, b) => a + b, 0);

/** About how many more tests the search needs, from what is left to find and what the best test tells. */
export function testsToCome(posterior: Posterior, ranked: readonly RatedTest[]): number {
  const left = entropyOf(posterior);
  const bits = Math.max(0, ...ranked.map((r) => r.bits));
  if (bits <= WORTHLESS_BITS) return 0;
  return Math.max(left > SURE_BITS ? 1 : 0, Math.round(left / bits));
}
const SURE_BITS = 0.3;

/** Why a test is proposed, in one sentence. */
export function whyTest(path: Path, rated: RatedTest, posterior: Posterior): string {
  const { test, bits, good } = rated;
  const inside = share(posterior, (b) => test.relevant[b] === 1);
  const minutes = `${Number(test.minutes.toPrecision(2))} min`;
  const told = `${bits.toFixed(2)} bit in ${minutes}`;
  if (test.how === 'check')
    return `It judges ${path.blocks[path.indexOf(test.at)!]!.name} alone, ${percent(inside)} of the suspicion, without a circuit: ${told}.`;
  const odds = good > 0.45 && good < 0.55 ? 'as likely good as bad' : `${percent(good)} likely good`;
  const split = `If it is good, what comes before is cleared; if not, the fault is among ${percent(inside)} of the suspicion`;
  return `${split}: ${odds}, ${told}.`;
}

const percent = (share: number) => `${Math.round(share * 100)} %`;

function share(posterior: Posterior, isIn: (block: number) => boolean): number {
  let [inside, whole] = [0, 0];
  posterior.single.forEach((p, b) => {
    whole += p;
    if (isIn(b)) inside += p;
  });
  return whole > 0 ? inside / whole : 0;
}
