import type { BeepData } from '@zemble/contract';
import { saidPins, type Part } from '../circuit/index.ts';
import { sharedPins, unitOfPackage } from '../pinout/index.ts';
import { endOf, pinsByText, pinText, type Traceable } from './ends.ts';
import { isInForce, JoinGraph, netOfPoint, netPoint } from './graph.ts';
import { beepsThrough } from './low-ohm.ts';
import { namesAfter, type NetPin } from './names.ts';

/** A net as it was found. */
export interface TracedNet {
  readonly name: string;
  /** Its pins by their text, in the order of the sheet. */
  readonly pins: readonly string[];
  /** True where its name was said and not made up. */
  readonly isNamed: boolean;
}

/** Nets as they follow from what was said and what beeped. */
export interface TracedNets {
  readonly nets: readonly TracedNet[];
  /** The net of each pin by the designator. */
  readonly pins: ReadonlyMap<string, Readonly<Record<string, string>>>;
  /** Other names that nets have gone by, with the one that holds. */
  readonly renamed: ReadonlyMap<string, string>;
  /** Pins that are on their net because it was the only one left, and that were not yet heard with it. */
  readonly concluded: ReadonlySet<string>;
  /** What was joined, and why. */
  readonly graph: JoinGraph;
  /** The points of a beep's ends; an end that is not there is left out. */
  readonly points: (beep: BeepData) => readonly string[];
}

/**
 * Forms the nets of a circuit: pins that were said to be on one net, that beep with one another, or that share a pin of their
 * package are one; what beeped with one of several is joined to the only one left. Withdrawn beeps count for nothing, ends of
 * parts that are not there are passed over.
 *
 * Nets are called what was said of them, the ground first, then as they were said; else by what they are: vcc at the supply pin of
 * a chip, `Q2b` at a base. The same parts and beeps give the same names.
 */
export function formNets({ ground, parts, beeps = [] }: Traceable): TracedNets {
  const pins = pinsByText(parts);
  const graph = new JoinGraph();
  const known = new Map<BeepData, readonly string[]>();
  const points = (beep: BeepData): readonly string[] => {
    const made =
      known.get(beep) ??
      beep.ends.flatMap((text) => {
        const end = endOf(pins, text);
        return end ? [end.of === 'pin' ? text : netPoint(end.net)] : [];
      });
    known.set(beep, made);
    return made;
  };
  for (const part of parts)
    for (const [pin, net] of Object.entries(saidPins(part)))
      if (Object.hasOwn(part.pins, pin))
        graph.join(pinText(part.ref, pin), netPoint(net), { by: 'said', net });
  joinPackages(parts, graph);
  joinBeeps(parts, beeps, points, graph);
  const concluded = joinByElimination(parts, beeps, points, graph);
  return { ...named(ground, parts, beeps, points, graph), concluded, graph, points };
}

/** Units of one package share its supply pins. */
function joinPackages(parts: readonly Part[], graph: JoinGraph): void {
  const first = new Map<string, string>();
  for (const part of parts) {
    const of = unitOfPackage(part.ref);
    if (!of) continue;
    for (const pin of sharedPins(part)) {
      if (!Object.hasOwn(part.pins, pin)) continue;
      const key = pinText(of.designator, pin);
      const known = first.get(key);
      if (known === undefined) first.set(key, pinText(part.ref, pin));
      else graph.join(known, pinText(part.ref, pin), { by: 'package', designator: of.designator });
    }
  }
}

type Points = TracedNets['points'];

function joinBeeps(
  parts: readonly Part[],
  beeps: readonly BeepData[],
  points: Points,
  graph: JoinGraph,
): void {
  const through: number[] = [];
  const joinAll = (ends: readonly string[], beep: number) => {
    const [head, ...rest] = ends;
    for (const end of rest) graph.join(head!, end, { by: 'beep', beep });
  };
  const byRef = new Map(parts.map((p) => [p.ref, p]));
  for (const [i, beep] of beeps.entries()) {
    if (!isInForce(beep) || beep.says !== 'together') continue;
    if (typeof beep.through === 'string' && byRef.has(beep.through)) through.push(i);
    else joinAll(points(beep), i);
  }
  // What beeps through a part joins what lies at each of its sides, and not the sides.
  for (const i of through) {
    const beep = beeps[i]!;
    const part = byRef.get(beep.through!)!;
    const ends = points(beep);
    const sideOf = (end: string) =>
      Object.keys(part.pins).find((pin) => graph.isJoined(pinText(part.ref, pin), end));
    const [one, two, ...more] = ends;
    const across = (side: string | undefined) =>
      beepsThrough(part)
        .flatMap(([a, b]) => (side === a ? [b] : side === b ? [a] : []))
        .at(0);
    const home = one === undefined ? undefined : sideOf(one);
    const sides = new Map<string | undefined, string[]>();
    for (const end of ends) {
      // Of two ends the one that is on no side yet lies across from the other; of more it was heard with the first.
      const other = more.length > 0 ? home : across(sideOf(end === one ? (two ?? '') : (one ?? '')));
      const side = sideOf(end) ?? other;
      sides.set(side, [...(sides.get(side) ?? []), end]);
    }
    for (const [side, these] of sides) {
      joinAll(these, i);
      if (side !== undefined && these[0] !== undefined)
        graph.join(pinText(part.ref, side), these[0], { by: 'beep', beep: i });
    }
  }
}

/**
 * Joins what beeped with one of several to the only one that is left, until nothing more follows.
 *
 * @returns what was joined so and was not heard with anything by itself
 */
function joinByElimination(
  parts: readonly Part[],
  beeps: readonly BeepData[],
  points: Points,
  graph: JoinGraph,
): ReadonlySet<string> {
  const heard = new Set(
    beeps.flatMap((beep) => (isInForce(beep) && beep.says === 'together' ? points(beep) : [])),
  );
  const concluded = new Set<string>();
  const isOpen = (i: number) => {
    const [held, ...over] = points(beeps[i]!);
    return held !== undefined && !over.some((o) => graph.isJoined(held, o));
  };
  let open = beeps.flatMap((beep, i) => (isOneOf(beep) ? [i] : []));
  for (let isNew = true; isNew;) {
    isNew = false;
    open = open.filter(isOpen);
    if (open.length === 0) break;
    const { isApart } = apartSets({ parts, beeps }, points, graph);
    for (const i of open) {
      const [held, ...over] = points(beeps[i]!) as [string, ...string[]];
      if (!isOpen(i)) continue;
      const left = new Set(over.map((o) => graph.setOf(o)).filter((set) => !isApart(graph.setOf(held), set)));
      if (left.size !== 1) continue;
      const [only] = left;
      const end = over.find((o) => graph.setOf(o) === only)!;
      graph.join(held, end, { by: 'elimination', beep: i });
      if (!heard.has(held)) concluded.add(held);
      // What is apart is not looked up anew within a round: sets that grew are found in the next one.
      isNew = true;
    }
  }
  return concluded;
}

/** A beep with one of several, and not through a part as far as it was said. */
export const isOneOf = (beep: BeepData): boolean =>
  isInForce(beep) && beep.says === 'one of' && typeof beep.through !== 'string';

/** What is known not to be one net, by the names of the sets. */
export interface Apart {
  readonly isApart: (a: string, b: string) => boolean;
  /** How many sets are known to be apart from one. */
  readonly count: (set: string) => number;
}

/** What is known to be apart, by the names of the sets as they are now: what did not beep, and the ends of what it beeped through. */
export function apartSets(
  { parts, beeps = [] }: Pick<Traceable, 'parts' | 'beeps'>,
  points: Points,
  graph: JoinGraph,
): Apart {
  const known = new Map<string, Set<string>>();
  const note = (a: string, b: string) => {
    const set = known.get(a);
    if (set) set.add(b);
    else known.set(a, new Set([b]));
  };
  const apart = (one: string, other: string) => {
    const [a, b] = [graph.setOf(one), graph.setOf(other)];
    note(a, b);
    note(b, a);
  };
  for (const beep of beeps) {
    if (!isInForce(beep)) continue;
    const [held, ...over] = points(beep);
    if (beep.says === 'apart') for (const other of over) apart(held!, other);
    else if (typeof beep.through === 'string') {
      const part = parts.find((p) => p.ref === beep.through);
      for (const [a, b] of part ? crossed(part, points(beep), graph) : [])
        apart(pinText(part!.ref, a), pinText(part!.ref, b));
    }
  }
  return {
    isApart: (a, b) => known.get(a)?.has(b) === true,
    count: (set) => known.get(set)?.size ?? 0,
  };
}

/** The pins of a part between which a beep goes through it: an end lies at each. */
function crossed(part: Part, ends: readonly string[], graph: JoinGraph) {
  const isAt = (pin: string) => ends.some((end) => graph.isJoined(end, pinText(part.ref, pin)));
  return beepsThrough(part).filter(([a, b]) => a in part.pins && b in part.pins && isAt(a) && isAt(b));
}

/** Names the nets; of two that would be called the same the later one gets a number. */
function named(
  ground: string,
  parts: readonly Part[],
  beeps: readonly BeepData[],
  points: Points,
  graph: JoinGraph,
): Pick<TracedNets, 'nets' | 'pins' | 'renamed'> {
  const members = new Map<string, NetPin[]>();
  for (const part of parts)
    for (const pin of Object.keys(part.pins)) {
      const set = graph.setOf(pinText(part.ref, pin));
      members.set(set, [...(members.get(set) ?? []), { part, pin }]);
    }
  const said = saidNames(ground, parts, beeps, points, graph);
  // A name that was said of no pin yet keeps no net from it.
  const taken = new Set([...said].flatMap(([set, names]) => (members.has(set) ? names : [])));
  const renamed = new Map<string, string>();
  const nets: TracedNet[] = [];
  const nameOf = new Map<string, string>();
  const given = new Set<string>();
  for (const [set, all] of members) {
    const own = said.get(set) ?? [];
    const made = all
      .flatMap(namesAfter)
      .sort((a, b) => a.rank - b.rank)
      .map(({ name }) => name);
    const free = made.filter((name) => !taken.has(name) && !given.has(name));
    const name = own[0] ?? free[0] ?? numbered(made[0]!, (n) => taken.has(n) || given.has(n));
    given.add(name);
    for (const other of [...own, ...free]) {
      given.add(other);
      if (other !== name) renamed.set(other, name);
    }
    nameOf.set(set, name);
    nets.push({
      name,
      pins: all.map(({ part, pin }) => pinText(part.ref, pin)),
      isNamed: own.length > 0,
    });
  }
  // What beeped with one of several, and was then heard with none of them, went by the name of one of them for a while.
  for (const beep of beeps) {
    if (!isInForce(beep) || beep.says !== 'one of') continue;
    const ends = points(beep);
    const now = ends.map((end) => nameOf.get(graph.setOf(end))).find((name) => name !== undefined);
    for (const end of ends) {
      const net = netOfPoint(end);
      const isKnown = net === undefined || nameOf.has(graph.setOf(end)) || renamed.has(net);
      if (now !== undefined && !isKnown) renamed.set(net, now);
    }
  }
  const pins = new Map(
    parts.map((part) => [
      part.ref,
      Object.fromEntries(
        Object.keys(part.pins).map((pin) => [pin, nameOf.get(graph.setOf(pinText(part.ref, pin)))!]),
      ),
    ]),
  );
  return { nets, pins, renamed };
}

function numbered(stem: string, isTaken: (name: string) => boolean): string {
  for (let n = 2; ; n += 1) if (!isTaken(`${stem}${n}`)) return `${stem}${n}`;
}

/** The names that were said of each set, the one that holds first: ground, then in the order of sheet and beeps. */
function saidNames(
  ground: string,
  parts: readonly Part[],
  beeps: readonly BeepData[],
  points: Points,
  graph: JoinGraph,
): ReadonlyMap<string, readonly string[]> {
  const found = new Map<string, string[]>();
  const say = (net: string) => {
    const set = graph.setOf(netPoint(net));
    const names = found.get(set) ?? [];
    if (!names.includes(net)) found.set(set, [...names, net]);
  };
  say(ground);
  for (const part of parts) for (const net of Object.values(saidPins(part))) say(net);
  for (const beep of beeps)
    if (isInForce(beep))
      for (const point of points(beep)) {
        const net = netOfPoint(point);
        if (net !== undefined) say(net);
      }
  return found;
}

/** Parts both of whose ends are one net through which a tester may also beep; with the pins. */
export const shortedBy = (parts: readonly Part[], graph: JoinGraph) =>
  parts.flatMap((part) =>
    beepsThrough(part)
      .filter(([a, b]) => a in part.pins && b in part.pins)
      .filter(([a, b]) => graph.isJoined(pinText(part.ref, a), pinText(part.ref, b)))
      .map(([a, b]) => ({ part, a, b })),
  );
