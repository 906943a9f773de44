import type { Traceable } from './ends.ts';
import { pinText } from './ends.ts';
import { settle, type Candidate, type Known, type Unsettled } from './candidates.ts';
import { isInForce, netPoint } from './graph.ts';
import { apartSets, type TracedNets } from './nets.ts';
import { lowOhmSets } from './low-ohm.ts';
import { expectedWith, type Twins } from './twins.ts';

/** What to hold one lead on, and what to touch with the other. */
export interface BeepQuestion {
  readonly kind:
    /** Draw the other lead over them: does one beep, and which? */
    | 'sweep'
    /** What the other channel says is one net: do they all beep? */
    | 'analogy'
    /** What was found is one net: do they all beep? */
    | 'together'
    /** What was found is a net by itself: does any other beep? */
    | 'alone';
  /** An end as a beep has it. */
  readonly hold: string;
  readonly over: readonly string[];
  /** The chance that one of them beeps; that all do where they are to. */
  readonly chance: number;
}

/** How far a circuit is traced. */
export interface BeepProgress {
  /** Pins whose net is settled, and all. */
  readonly settled: number;
  readonly pins: number;
}

/** What is known beside the beeps. */
export interface NextBeepOptions {
  /** The end on which the lead is held now: it stays there where that costs nothing. */
  readonly held?: string | undefined;
  /** Parts of two channels that mirror one another: what is known of one is proposed for the other. */
  readonly twins?: Twins | undefined;
  /** Ends that cannot be reached, or were passed over. */
  readonly passed?: ReadonlySet<string> | undefined;
}
const NONE: ReadonlySet<string> = new Set();

/** The beep to try next; null when every net is settled and proven. */
export interface NextBeep {
  readonly question: BeepQuestion | null;
  readonly progress: BeepProgress;
}

const bits = (p: number): number => (p <= 0 || p >= 1 ? 0 : -(p * Math.log2(p) + (1 - p) * Math.log2(1 - p)));

/**
 * The beep that settles most. One lead is held on a pin, the other drawn over pins of nets that it may be on, about as likely as
 * not to beep: then either answer tells the most. Once all are settled, each net is proven by one sweep over its pins.
 *
 * @returns the question, null where nothing is left to ask but what was passed over
 */
export function nextBeep(
  traced: Traceable,
  nets: TracedNets,
  { held, passed = NONE, twins }: NextBeepOptions = {},
): NextBeep {
  const ends = new Ends(traced.ground, passed);
  const { settled, open, next } = settle(traced, nets, (net) => ends.of(net) !== undefined);
  const pins = traced.parts.reduce((sum, p) => sum + Object.keys(p.pins).length, 0);
  const left = open.reduce((sum, net) => sum + net.pins.length, 0);
  const progress: BeepProgress = { settled: pins - left, pins };
  if (open.length === 0) return { question: proof(traced, settled, nets, ends), progress };
  if (next.length === 0) return { question: null, progress };
  const analogy = twins && twins.size > 0 ? byAnalogy(traced, open, nets, twins, passed) : undefined;
  if (analogy) return { question: analogy, progress };
  const heldSet = held === undefined ? undefined : nets.graph.setOf(held);
  const best = next
    .map((each) => ({ each, split: halved(each) }))
    .reduce<{ each: Unsettled; split: Split; worth: number } | undefined>((b, { each, split }) => {
      const isHeld = each.net.set === heldSet;
      const worth = bits(split.chance) + (isHeld ? HELD : 0);
      return b === undefined || worth > b.worth ? { each, split, worth } : b;
    }, undefined)!;
  return {
    question: {
      kind: 'sweep',
      hold: ends.of(best.each.net)!,
      over: best.split.over.map((c) => ends.of(c.net) ?? ends.anyOf(c.net)),
      chance: best.split.chance,
    },
    progress,
  };
}

const HELD = 0.1;

/** How likely a channel is as the other one is. */
const TWIN_CHANCE = 0.9;

/** A pin of one channel that is not settled, with those that the other channel says are one net with it. */
function byAnalogy(
  traced: Traceable,
  open: readonly Known[],
  nets: TracedNets,
  twins: Twins,
  passed: ReadonlySet<string>,
): BeepQuestion | undefined {
  const { isApart } = apartSets(traced, nets.points, nets.graph);
  const members = new Map(nets.nets.flatMap((net) => net.pins.map((pin) => [pin, net.pins] as const)));
  for (const net of open)
    for (const { part, pin } of net.pins) {
      const hold = pinText(part.ref, pin);
      if (passed.has(hold)) continue;
      const over = expectedWith(hold, twins, nets, (of) => members.get(of) ?? [], isApart);
      if (over.length > 0) return { kind: 'analogy', hold, over, chance: TWIN_CHANCE };
    }
  return undefined;
}

interface Split {
  readonly over: readonly Candidate[];
  readonly chance: number;
}

/** Candidates that together are as likely as not. */
function halved({ candidates }: Unsettled): Split {
  const over: Candidate[] = [];
  let chance = 0;
  for (const candidate of candidates) {
    const next = chance + candidate.chance;
    if (over.length > 0 && Math.abs(next - 0.5) >= Math.abs(chance - 0.5)) continue;
    over.push(candidate);
    chance = next;
  }
  return { over, chance };
}

/** The pins by which nets are touched. */
class Ends {
  private readonly ground: string;
  private readonly passed: ReadonlySet<string>;

  constructor(ground: string, passed: ReadonlySet<string>) {
    this.ground = ground;
    this.passed = passed;
  }

  /** A pin of a net that can be reached, the ground by its name; undefined where every one was passed over. */
  of(net: Known): string | undefined {
    return endsOfNet(net, this.ground).find((end) => !this.passed.has(end));
  }

  anyOf(net: Known): string {
    return endsOfNet(net, this.ground)[0]!;
  }
}

/** Pins of a net as ends, the ground itself first where it is that. */
function endsOfNet({ pins, isGround }: Known, ground: string): string[] {
  const own = pins.map(({ part, pin }) => pinText(part.ref, pin));
  return isGround ? [ground, ...own] : own;
}

/** The next sweep that proves what was found; null when all is proven. */
function proof(
  traced: Traceable,
  settled: readonly Known[],
  nets: TracedNets,
  ends: Ends,
): BeepQuestion | null {
  const disputed = disputedSets(traced, nets);
  const proven = settled.filter((net) => !disputed.has(net.set));
  return togetherProof(traced, proven, nets, ends) ?? aloneProof(traced, proven, nets, ends);
}

/** Nets that contradict themselves are not asked about again and again: that is told, and one of the beeps is withdrawn. */
function disputedSets({ beeps = [] }: Traceable, { graph, points }: TracedNets): ReadonlySet<string> {
  return new Set(
    beeps.flatMap((beep) => {
      if (!isInForce(beep) || beep.says !== 'apart') return [];
      const [held, ...over] = points(beep).map((p) => graph.setOf(p));
      return held !== undefined && over.includes(held) ? [held] : [];
    }),
  );
}

/** A net whose pins were not yet all touched in one sweep: what was concluded is not yet seen. */
function togetherProof(
  { ground, beeps = [] }: Traceable,
  settled: readonly Known[],
  { points }: TracedNets,
  reach: Ends,
): BeepQuestion | null {
  const swept = beeps.filter((b) => isInForce(b) && b.says === 'together').map((b) => new Set(points(b)));
  for (const net of settled) {
    const ends = endsOfNet(net, ground);
    const hold = reach.of(net);
    const over = ends.filter((end) => end !== hold);
    const touches = swept.filter((s) => ends.every((end) => s.has(end) || s.has(netPoint(end)))).length;
    // One beep alone made a net of two: another touch proves it.
    const isSeen = touches >= (ends.length === 2 ? 2 : 1);
    if (hold !== undefined && over.length > 0 && !isSeen)
      return { kind: 'together', hold, over, chance: PROOF_CHANCE };
  }
  return null;
}

/** A net that was not yet held against all others in one sweep: a contact missed made two of one. The smallest first. */
function aloneProof(
  { parts, beeps = [] }: Traceable,
  settled: readonly Known[],
  { graph, points }: TracedNets,
  reach: Ends,
): BeepQuestion | null {
  const low = lowOhmSets(parts, graph);
  const heldAgainst = new Map<string, Set<string>[]>();
  for (const beep of beeps) {
    if (!isInForce(beep) || beep.says !== 'apart') continue;
    const [held, ...over] = points(beep).map((p) => graph.setOf(p));
    if (held !== undefined) heldAgainst.set(held, [...(heldAgainst.get(held) ?? []), new Set(over)]);
  }
  const order = [...settled].sort((a, b) => a.pins.length - b.pins.length);
  for (const [i, net] of order.entries()) {
    // What a coil or a few ohms lead to beeps anyway, and tells nothing.
    const others = order.slice(i + 1).filter((o) => low.find(o.set) !== low.find(net.set));
    const isProven = heldAgainst.get(net.set)?.some((over) => others.every((o) => over.has(o.set))) === true;
    const hold = reach.of(net);
    if (hold !== undefined && others.length > 0 && !isProven)
      return {
        kind: 'alone',
        hold,
        over: others.map((o) => reach.of(o) ?? reach.anyOf(o)),
        chance: 1 - PROOF_CHANCE,
      };
  }
  return null;
}
const PROOF_CHANCE = 0.97;
