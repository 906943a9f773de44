import type { Part } from '../circuit/index.ts';
import { apart, c, inOrder, maybe, net, of, part, r, sameType, type Pattern } from './elements.ts';
import { MOST_AT_A_NET, otherEnd, type Element, type Match, type Surroundings } from './pattern.ts';

/** Devices that are used alike: what goes in, comes out and stands at the foot, and what the trade calls their stages. */
interface Family {
  readonly kinds: readonly Part['kind'][];
  readonly pins: readonly [out: string, into: string, foot: string];
  readonly follower: string;
  readonly stage: string;
}

const FAMILIES: readonly Family[] = [
  { kinds: ['bjt'], pins: ['c', 'b', 'e'], follower: 'emitter', stage: 'common-emitter' },
  { kinds: ['jfet', 'mosfet'], pins: ['d', 'g', 's'], follower: 'source', stage: 'common-source' },
  { kinds: ['triode', 'pentode'], pins: ['a', 'g', 'k'], follower: 'cathode', stage: 'common-cathode' },
];

/** A device of a family with its pins on the nets of a figure. */
const device = (
  { kinds, pins: [out, into, foot] }: Family,
  role: string,
  nets: readonly [string, string, string],
): Element => part(role, kinds, { [out]: nets[0], [into]: nets[1], [foot]: nets[2] });

const longTailedPair = (family: Family): Pattern => ({
  id: 'long-tailed-pair',
  inner: ['tail'],
  name: 'long-tailed pair',
  elements: [
    device(family, 'Q1', ['c1', 'b1', 'tail']),
    device(family, 'Q2', ['c2', 'b2', 'tail']),
    maybe(r('tail', 'tail', 'ground')),
  ],
  named: ['Q1', 'Q2'],
  isIt: isPair,
  insteadOf: [family.stage, `${family.follower}-follower`],
});

const follower = (family: Family): Pattern => ({
  id: `${family.follower}-follower`,
  name: `${family.follower} follower`,
  elements: [device(family, 'Q', ['top', 'b', 'e']), maybe(r('RE', 'e', 'ground'))],
  named: ['Q'],
  isIt: isFollower,
});

const gainStage = (family: Family): Pattern => ({
  id: family.stage,
  name: `${family.stage} stage`,
  elements: [
    device(family, 'Q', ['c', 'b', 'e']),
    maybe(c('CE', 'e', 'ground')),
    maybe(r('RE', 'e', 'ground')),
  ],
  named: ['Q'],
  isIt: isGainStage,
});

/** Pairs of equal devices with one tail. */
export const PAIRS: readonly Pattern[] = FAMILIES.map(longTailedPair);
/** Single devices: followers first, then what amplifies. */
export const STAGES: readonly Pattern[] = [...FAMILIES.map(follower), ...FAMILIES.map(gainStage)];

/** Two of a type with one tail between them, which no rail holds, each driven by itself. */
function isPair(m: Match, s: Surroundings): boolean {
  const tail = net(m, 'tail');
  return (
    inOrder(m, 'Q1', 'Q2') &&
    of(m, 'Q1').kind === of(m, 'Q2').kind &&
    sameType(m, s, 'Q1', 'Q2') &&
    apart(m, 'b1', 'b2') &&
    !s.isQuiet(tail) &&
    net(m, 'c1') !== tail &&
    net(m, 'c2') !== tail &&
    (net(m, 'c1') !== net(m, 'c2') || !s.isRail(net(m, 'c1')))
  );
}

/** What follows its input: the far side holds still, and what comes out leaves where it is weakest to be moved. */
function isFollower(m: Match, s: Surroundings): boolean {
  const [top, input, foot] = [net(m, 'top'), net(m, 'b'), net(m, 'e')];
  const isDriven = s.isQuiet(top) && !s.isGround(top) && !s.isQuiet(foot) && !s.isQuiet(input);
  const isLoaded = s.at(foot).some((p) => p.kind === 'resistor' || p.kind === 'load' || p.kind === 'speaker');
  return isDriven && isLoaded && apart(m, 'top', 'b', 'e');
}

/** What amplifies: driven at its input, with a load that leads on, its foot at a rail or at a part to one. */
function isGainStage(m: Match, s: Surroundings): boolean {
  const [out, input, foot] = [net(m, 'c'), net(m, 'b'), net(m, 'e')];
  const footLeads =
    s.isQuiet(foot) || s.at(foot).some((p) => p.kind === 'resistor' && s.isQuiet(otherEnd(p, foot) ?? foot));
  return (
    apart(m, 'c', 'b', 'e') && !s.isQuiet(out) && !s.isQuiet(input) && footLeads && hasLoad(s, out, foot)
  );
}

/** What a collector, drain or anode works into: direct current comes to it from a supply, and not over its own foot. */
function hasLoad(s: Surroundings, out: string, foot: string): boolean {
  const seen = new Set([out, foot]);
  let reached = [out];
  for (let hop = 0; hop < LOAD_HOPS && reached.length > 0; hop += 1) {
    const next = reached
      .filter((at) => s.at(at).length <= MOST_AT_A_NET)
      .flatMap((at) => s.at(at).flatMap((p) => onward(p, at)))
      .filter((n) => !seen.has(n));
    if (next.some((n) => s.isRail(n) && !s.isGround(n))) return true;
    next.forEach((n) => seen.add(n));
    reached = [...new Set(next)].filter((n) => !s.isRail(n));
  }
  return false;
}

/** Where direct current goes on from a net through a part. */
function onward(p: Part, at: string): string[] {
  if (p.kind === 'resistor' || p.kind === 'inductor' || p.kind === 'diode' || p.kind === 'jumper')
    return [otherEnd(p, at) ?? []].flat();
  const ends =
    p.kind === 'transformer' ? [p.pins.p1, p.pins.p2] : p.kind === 'bjt' ? [p.pins.c, p.pins.e] : [];
  return ends.includes(at) ? ends.flatMap((n) => (n === undefined || n === at ? [] : [n])) : [];
}

/** Parts between a device and its supply. */
const LOAD_HOPS = 5;
