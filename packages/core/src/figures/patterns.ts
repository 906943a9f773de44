import type { Part } from '../circuit/index.ts';
import { MOST_AT_A_NET, otherEnd, type Element, type Match, type Surroundings } from './pattern.ts';

/** A figure of the trade: its elements, and what else makes it one. */
export interface Pattern {
  readonly id: string;
  readonly name: string;
  readonly elements: readonly Element[];
  /** Letters of nets that are no rail; most of a circuit's parts touch one. */
  readonly inner?: readonly string[];
  /** Roles that it is called by. */
  readonly named: readonly string[];
  /** What is asked beside the connections. */
  readonly isIt: (match: Match, around: Surroundings) => boolean;
  /** Plainer figures of the same named parts that it stands for. */
  readonly insteadOf?: readonly string[];
}

const part = (
  role: string,
  kinds: readonly Part['kind'][],
  pins: Readonly<Record<string, string>>,
): Element => ({ role, kinds, pins });
const q = (role: string, c: string, b: string, e: string): Element => part(role, ['bjt'], { c, b, e });
const two =
  (kind: Part['kind']) =>
  (role: string, a: string, b: string): Element => ({
    ...part(role, [kind], { a, b }),
    isSymmetric: true,
  });
const r = two('resistor');
const c = two('capacitor');
const d = (role: string, a: string, k: string): Element => part(role, ['diode', 'zener', 'led'], { a, k });
const u = (plus: string, minus: string, out: string): Element => part('U', ['opamp'], { plus, minus, out });
const maybe = (element: Element): Element => ({ ...element, isOptional: true });

const net = (m: Match, letter: string): string => m.nets.get(letter)!;
const of = (m: Match, role: string): Part => m.parts.get(role)!;
const value = (p: Part | undefined): number => Number(p?.marked ?? Number.NaN);
const apart = (m: Match, ...letters: readonly string[]): boolean =>
  new Set(letters.map((l) => net(m, l))).size === letters.length;
/** Both ends of a match that reads the same from either side: one of them is kept. */
const inOrder = (m: Match, one: string, other: string): boolean => of(m, one).ref < of(m, other).ref;
const sameType = (m: Match, s: Surroundings, one: string, other: string): boolean =>
  s.isP(of(m, one)) === s.isP(of(m, other));
/** A net that a base, gate, grid or an opamp's input is on. */
const isControl = (s: Surroundings, at: string): boolean =>
  s
    .at(at)
    .some(
      (p) =>
        [p.pins.b, p.pins.g, p.pins.plus].includes(at) &&
        ['bjt', 'jfet', 'mosfet', 'triode', 'pentode', 'opamp'].includes(p.kind),
    );
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

/** Every figure, those that stand for plainer ones before them. */
export const PATTERNS: readonly Pattern[] = [
  {
    id: 'complementary-output',
    inner: ['out'],
    name: 'complementary output',
    elements: [
      q('QN', 'top', 'bn', 'en'),
      r('RN', 'en', 'out'),
      r('RP', 'out', 'ep'),
      q('QP', 'low', 'bp', 'ep'),
    ],
    named: ['QN', 'QP'],
    isIt: (m, s) =>
      !s.isP(of(m, 'QN')) &&
      value(of(m, 'RN')) <= EMITTER_OHM &&
      value(of(m, 'RP')) <= EMITTER_OHM &&
      s.isRail(net(m, 'top')) &&
      s.isRail(net(m, 'low')) &&
      apart(m, 'top', 'low') &&
      apart(m, 'bn', 'bp', 'out'),
    insteadOf: ['emitter-follower', 'common-emitter'],
  },
  {
    id: 'complementary-output',
    inner: ['out'],
    name: 'complementary output',
    elements: [q('QN', 'top', 'bn', 'out'), q('QP', 'low', 'bp', 'out')],
    named: ['QN', 'QP'],
    isIt: (m, s) =>
      !s.isP(of(m, 'QN')) &&
      s.isP(of(m, 'QP')) &&
      s.isRail(net(m, 'top')) &&
      s.isRail(net(m, 'low')) &&
      apart(m, 'top', 'low'),
    insteadOf: ['emitter-follower', 'common-emitter'],
  },
  {
    id: 'complementary-drivers',
    inner: ['en', 'ep', 'out'],
    name: 'complementary drivers',
    elements: [
      q('QN', 'top', 'bn', 'en'),
      r('RN', 'en', 'out'),
      r('RP', 'out', 'ep'),
      q('QP', 'low', 'bp', 'ep'),
    ],
    named: ['QN', 'QP'],
    isIt: (m, s) =>
      !s.isP(of(m, 'QN')) &&
      s.isP(of(m, 'QP')) &&
      value(of(m, 'RN')) > EMITTER_OHM &&
      value(of(m, 'RP')) > EMITTER_OHM &&
      s.isRail(net(m, 'top')) &&
      s.isRail(net(m, 'low')) &&
      apart(m, 'top', 'low', 'out'),
    insteadOf: ['emitter-follower', 'common-emitter'],
  },
  ...FAMILIES.map(longTailedPair),
  {
    id: 'current-mirror',
    inner: ['b'],
    name: 'current mirror',
    elements: [q('Q1', 'b', 'b', 'e1'), q('Q2', 'out', 'b', 'e2')],
    named: ['Q1', 'Q2'],
    isIt: (m, s) => {
      const [one, other] = [net(m, 'e1'), net(m, 'e2')];
      const footOf = (at: string) =>
        s.isRail(at)
          ? at
          : s.at(at).flatMap((p) => (p.kind === 'resistor' ? (otherEnd(p, at) ?? []) : []))[0];
      return (
        sameType(m, s, 'Q1', 'Q2') &&
        net(m, 'out') !== net(m, 'b') &&
        footOf(one) !== undefined &&
        footOf(one) === footOf(other)
      );
    },
    insteadOf: ['common-emitter'],
  },
  {
    id: 'darlington',
    inner: ['m'],
    name: 'Darlington pair',
    elements: [q('Q1', 'c', 'b', 'm'), q('Q2', 'c', 'm', 'e')],
    named: ['Q1', 'Q2'],
    isIt: (m, s) => sameType(m, s, 'Q1', 'Q2') && apart(m, 'b', 'm', 'e') && !s.isRail(net(m, 'm')),
    insteadOf: ['emitter-follower'],
  },
  {
    id: 'feedback-pair',
    inner: ['m', 'x'],
    name: 'complementary feedback pair',
    elements: [q('Q1', 'm', 'b', 'x'), q('Q2', 'x', 'm', 'e')],
    named: ['Q1', 'Q2'],
    isIt: (m, s) => !sameType(m, s, 'Q1', 'Q2') && !s.isRail(net(m, 'x')) && apart(m, 'b', 'm', 'x', 'e'),
    insteadOf: ['common-emitter', 'emitter-follower'],
  },
  {
    id: 'vbe-multiplier',
    inner: ['top', 'b', 'low'],
    name: 'Vbe multiplier',
    elements: [q('Q', 'top', 'b', 'low'), r('R1', 'top', 'b'), r('R2', 'b', 'low')],
    named: ['Q'],
    isIt: (m, s) => !s.isRail(net(m, 'top')) && !s.isRail(net(m, 'low')),
    insteadOf: ['common-emitter', 'emitter-follower'],
  },
  {
    id: 'cascode',
    inner: ['m'],
    name: 'cascode',
    elements: [q('Q1', 'm', 'b1', 'e1'), q('Q2', 'c', 'b2', 'm')],
    named: ['Q1', 'Q2'],
    isIt: (m, s) =>
      sameType(m, s, 'Q1', 'Q2') &&
      s.at(net(m, 'm')).length === 2 &&
      s.isQuiet(net(m, 'b2')) &&
      !s.isQuiet(net(m, 'b1')) &&
      !s.isRail(net(m, 'c')),
    insteadOf: ['common-emitter'],
  },
  {
    id: 'bootstrap',
    inner: ['out', 'm', 'x'],
    name: 'bootstrap',
    elements: [c('C', 'out', 'm'), r('R1', 'rail', 'm'), r('R2', 'm', 'x')],
    named: ['C'],
    isIt: (m, s) =>
      s.isRail(net(m, 'rail')) &&
      !s.isQuiet(net(m, 'out')) &&
      !s.isRail(net(m, 'x')) &&
      apart(m, 'out', 'm', 'x') &&
      s.at(net(m, 'm')).length === 3 &&
      isDrivenBy(s, net(m, 'out')) &&
      s.at(net(m, 'x')).some((p) => p.kind === 'bjt'),
  },
  {
    id: 'all-pass',
    inner: ['m', 'p'],
    name: 'all-pass stage',
    elements: [
      u('p', 'm', 'out'),
      r('R1', 'in', 'm'),
      r('R2', 'm', 'out'),
      c('C', 'in', 'p'),
      maybe(r('R3', 'p', 'foot')),
      maybe(part('J', ['jfet', 'mosfet'], { d: 'p', s: 'foot' })),
    ],
    named: ['U'],
    isIt: (m) => apart(m, 'in', 'm', 'p', 'out') && nearly(value(of(m, 'R1')), value(of(m, 'R2'))),
    insteadOf: ['inverting', 'non-inverting'],
  },
  {
    id: 'wien',
    inner: ['x', 'p'],
    name: 'Wien network',
    elements: [
      u('p', 'm', 'out'),
      r('R1', 'out', 'x'),
      c('C1', 'x', 'p'),
      r('R2', 'p', 'quiet'),
      c('C2', 'p', 'quiet'),
    ],
    named: ['U'],
    isIt: (m, s) => s.isQuiet(net(m, 'quiet')) && apart(m, 'x', 'p', 'out', 'm'),
  },
  {
    id: 'opamp-follower',
    inner: ['out'],
    name: 'follower',
    elements: [u('p', 'out', 'out')],
    named: ['U'],
    isIt: (m) => apart(m, 'p', 'out'),
    insteadOf: ['inverting', 'non-inverting'],
  },
  {
    id: 'integrator',
    inner: ['m', 'out'],
    name: 'integrator',
    elements: [u('p', 'm', 'out'), r('R', 'in', 'm'), c('C', 'm', 'out')],
    named: ['U'],
    isIt: (m, s) =>
      s.isQuiet(net(m, 'p')) &&
      apart(m, 'in', 'm', 'out') &&
      !s.isQuiet(net(m, 'in')) &&
      !s.at(net(m, 'm')).some((p) => p.kind === 'resistor' && otherEnd(p, net(m, 'm')) === net(m, 'out')),
  },
  {
    id: 'inverting',
    inner: ['m', 'out'],
    name: 'inverting amplifier',
    elements: [u('p', 'm', 'out'), r('RG', 'in', 'm'), r('RF', 'm', 'out'), maybe(c('CF', 'm', 'out'))],
    named: ['U'],
    isIt: (m, s) => s.isQuiet(net(m, 'p')) && !s.isQuiet(net(m, 'in')) && apart(m, 'in', 'm', 'out'),
  },
  {
    id: 'non-inverting',
    inner: ['m', 'out'],
    name: 'non-inverting amplifier',
    elements: [u('p', 'm', 'out'), r('RF', 'm', 'out'), r('RG', 'm', 'g'), maybe(c('CF', 'm', 'out'))],
    named: ['U'],
    isIt: (m, s) => {
      const g = net(m, 'g');
      const isHeld =
        s.isQuiet(g) || s.at(g).some((p) => p.kind === 'capacitor' && s.isQuiet(otherEnd(p, g) ?? g));
      return isHeld && !s.isQuiet(net(m, 'p')) && apart(m, 'p', 'm', 'out', 'g');
    },
  },
  {
    id: 'phase-shift',
    inner: ['x1', 'x2', 'x3'],
    name: 'phase-shift ladder',
    elements: [
      c('C1', 'x0', 'x1'),
      r('R1', 'x1', 'quiet'),
      c('C2', 'x1', 'x2'),
      r('R2', 'x2', 'quiet'),
      c('C3', 'x2', 'x3'),
      r('R3', 'x3', 'quiet'),
    ],
    named: ['C1', 'C2', 'C3'],
    isIt: (m, s) =>
      s.isQuiet(net(m, 'quiet')) && apart(m, 'x0', 'x1', 'x2', 'x3', 'quiet') && !s.isQuiet(net(m, 'x0')),
  },
  {
    id: 'bass-control',
    inner: ['a', 'w', 'b'],
    name: 'bass control',
    elements: [
      part('P', ['potentiometer'], { 1: 'a', 2: 'w', 3: 'b' }),
      c('C1', 'a', 'w'),
      c('C2', 'w', 'b'),
    ],
    named: ['P'],
    isIt: (m) => apart(m, 'a', 'w', 'b'),
  },
  {
    id: 'treble-control',
    inner: ['a', 'w', 'b'],
    name: 'treble control',
    elements: [
      part('P', ['potentiometer'], { 1: 'a', 2: 'w', 3: 'b' }),
      c('C1', 'in', 'a'),
      c('C2', 'b', 'out'),
    ],
    named: ['P'],
    isIt: (m, s) =>
      apart(m, 'in', 'a', 'w', 'b', 'out') &&
      s.at(net(m, 'a')).length === 2 &&
      s.at(net(m, 'b')).length === 2,
  },
  {
    id: 'bridge-rectifier',
    name: 'bridge rectifier',
    elements: [
      d('D1', 'x', 'top'),
      d('D2', 'y', 'top'),
      d('D3', 'low', 'x'),
      d('D4', 'low', 'y'),
      maybe(c('C', 'top', 'low')),
    ],
    named: ['D1', 'D2', 'D3', 'D4'],
    isIt: (m) => apart(m, 'x', 'y', 'top', 'low'),
    insteadOf: ['rectifier'],
  },
  {
    id: 'rectifier',
    name: 'rectifier and reservoir',
    elements: [d('D', 'x', 'top'), c('C', 'top', 'ground')],
    named: ['D', 'C'],
    isIt: (m, s) =>
      s.isGround(net(m, 'ground')) &&
      value(of(m, 'C')) >= RESERVOIR_F &&
      s.at(net(m, 'x')).some((p) => p.kind === 'transformer' || p.kind === 'signal'),
  },
  {
    id: 'clipping-diodes',
    name: 'clipping diodes',
    elements: [d('D1', 'x', 'y'), d('D2', 'y', 'x')],
    named: ['D1', 'D2'],
    isIt: (m) => apart(m, 'x', 'y') && inOrder(m, 'D1', 'D2'),
  },
  {
    id: 'zobel',
    inner: ['z'],
    name: 'Zobel network',
    elements: [r('R', 'out', 'z'), c('C', 'z', 'ground')],
    named: ['R', 'C'],
    isIt: (m, s) =>
      s.isGround(net(m, 'ground')) &&
      s.at(net(m, 'z')).length === 2 &&
      value(of(m, 'R')) <= ZOBEL_OHM &&
      value(of(m, 'C')) <= HELD_F &&
      s.at(net(m, 'out')).some((p) => ['speaker', 'load', 'headphone'].includes(p.kind)),
  },
  {
    id: 'supply-cell',
    inner: ['to'],
    name: 'RC cell in the supply',
    elements: [r('R', 'from', 'to'), c('C', 'to', 'ground')],
    named: ['R', 'C'],
    isIt: (m, s) =>
      s.isGround(net(m, 'ground')) &&
      !s.isGround(net(m, 'from')) &&
      s.isQuiet(net(m, 'from')) &&
      !s.isRail(net(m, 'to')) &&
      s.isQuiet(net(m, 'to')) &&
      s.at(net(m, 'to')).length > 2 &&
      !s.at(net(m, 'to')).some((p) => p.kind === 'resistor' && s.isGround(otherEnd(p, net(m, 'to')) ?? '')),
  },
  {
    id: 'half-supply',
    inner: ['x'],
    name: 'reference between the rails',
    elements: [r('R1', 'rail', 'x'), r('R2', 'x', 'ground'), c('C', 'x', 'ground')],
    named: ['R1', 'R2'],
    isIt: (m, s) =>
      s.isGround(net(m, 'ground')) &&
      s.isRail(net(m, 'rail')) &&
      !s.isGround(net(m, 'rail')) &&
      !s.isRail(net(m, 'x')) &&
      s.isQuiet(net(m, 'x')),
    insteadOf: ['divider-bias'],
  },
  {
    id: 'divider-bias',
    inner: ['x'],
    name: 'divider bias',
    elements: [r('R1', 'rail', 'x'), r('R2', 'x', 'low')],
    named: ['R1', 'R2'],
    isIt: (m, s) =>
      s.isRail(net(m, 'low')) &&
      s.isQuiet(net(m, 'rail')) &&
      apart(m, 'rail', 'low') &&
      !s.isGround(net(m, 'rail')) &&
      !s.isRail(net(m, 'x')) &&
      isControl(s, net(m, 'x')),
  },
  ...FAMILIES.map(follower),
  ...FAMILIES.map(gainStage),
  {
    id: 'transformer-coupling',
    name: 'transformer coupling',
    elements: [part('T', ['transformer'], { p1: 'p1', p2: 'p2', s1: 's1', s2: 's2' })],
    named: ['T'],
    isIt: (m, s) =>
      [net(m, 'p1'), net(m, 'p2')].some((at) => !s.isRail(at)) &&
      [net(m, 's1'), net(m, 's2')].some((at) => !s.isRail(at)),
  },
];

/** Emitter resistors of an output stage are not larger than this, ohm; those of drivers are. */
const EMITTER_OHM = 22;
const ZOBEL_OHM = 100;
const RESERVOIR_F = 10e-6;
const HELD_F = 1e-6;
/** Two resistors this alike are meant to be equal, as a share. */
const ALIKE = 0.06;

const nearly = (a: number, b: number): boolean => Math.abs(a - b) <= ALIKE * Math.max(a, b);

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

/** Whether a device's output is on a net. */
const isDrivenBy = (s: Surroundings, at: string): boolean =>
  s.at(at).some((p) => p.pins.e === at || p.pins.out === at || p.kind === 'resistor');
