import type { LayerCircuit, LayerPart } from '../circuit/circuit/index.ts';
import { isMirrored } from './second-bench/parameters.ts';

/** A fault planted in a unit: whose it is (of two at once both), what it is, and the unit with it. */
export interface Planted {
  readonly refs: readonly string[];
  readonly what: string;
  readonly apply: (circuit: LayerCircuit) => LayerCircuit;
}

const instead =
  (ref: string, parts: (part: LayerPart) => readonly LayerPart[]) =>
  (circuit: LayerCircuit): LayerCircuit => ({
    ...circuit,
    parts: circuit.parts.flatMap((p) => (p.ref === ref ? parts(p) : [p])),
  });
const bridge = (part: LayerPart, a: string | undefined, b: string | undefined, ohm: number): LayerPart[] =>
  a === undefined || b === undefined || a === b
    ? [part]
    : [part, { ref: `${part.ref}!`, kind: 'resistor', pins: { a, b }, value: ohm }];
const times = (factor: number) => (part: LayerPart) => [
  { ...part, value: typeof part.value === 'number' ? part.value * factor : part.value },
];

/** Single faults as they are on benches: parts open, short, drifted to three times and a third, leaking between any two pins. */
export function plantedFaults(circuit: LayerCircuit): Planted[] {
  return circuit.parts.flatMap((part): Planted[] => {
    const of = (what: string, parts: (p: LayerPart) => readonly LayerPart[]): Planted => ({
      refs: [part.ref],
      what,
      apply: instead(part.ref, parts),
    });
    const open = of('open', () => []);
    switch (part.kind) {
      case 'resistor':
        return [
          open,
          of('short', (p) => bridge(p, part.pins.a, part.pins.b, 0.5)),
          of('three times', times(3)),
          of('a third', times(1 / 3)),
        ];
      case 'capacitor':
        return [
          open,
          of('short', (p) => bridge(p, part.pins.a, part.pins.b, 1)),
          of('leaky', (p) => bridge(p, part.pins.a, part.pins.b, 15e3)),
        ];
      case 'diode':
      case 'zener':
      case 'led':
        return [open, of('short', (p) => bridge(p, part.pins.a, part.pins.k, 1))];
      case 'bjt': {
        const { c, b, e } = part.pins;
        return [
          open,
          of('collector to emitter', (p) => bridge(p, c, e, 2)),
          of('base to emitter', (p) => bridge(p, b, e, 2)),
          of('collector to base', (p) => bridge(p, c, b, 2)),
          of('leaking, collector to emitter', (p) => bridge(p, c, e, 7e3)),
        ];
      }
      case 'jfet': {
        const { d, g, s } = part.pins;
        return [
          open,
          of('drain to source', (p) => bridge(p, d, s, 2)),
          of('gate to source', (p) => bridge(p, g, s, 2)),
        ];
      }
      case 'triode':
        return [open, of('grid to cathode', (p) => bridge(p, part.pins.g, part.pins.k, 2))];
      case 'opamp':
        return [
          of('stuck high', () => [
            {
              ref: `${part.ref}!`,
              kind: 'resistor',
              pins: { a: part.pins.vplus!, b: part.pins.out! },
              value: 30,
            },
          ]),
          of('stuck low', () => [
            {
              ref: `${part.ref}!`,
              kind: 'resistor',
              pins: { a: part.pins.vminus!, b: part.pins.out! },
              value: 30,
            },
          ]),
        ];
      case 'supply':
        return [of('nothing', times(0)), of('too little', times(0.6))];
      default:
        return [];
    }
  });
}

/** The joint of a pin gone bad: what is left of it, ohm, is in series. */
const dryJoint =
  (pin: string, ohm: number) =>
  (part: LayerPart): LayerPart[] => {
    const net = (part.pins as Readonly<Record<string, string>>)[pin]!;
    const inside = `${part.ref}!${pin}`;
    return [
      { ...part, pins: { ...part.pins, [pin]: inside } } as LayerPart,
      { ref: `${part.ref}!`, kind: 'resistor', pins: { a: net, b: inside }, value: ohm },
    ];
  };

const JOINED: readonly LayerPart['kind'][] = ['resistor', 'diode', 'led', 'zener', 'bjt', 'jfet', 'triode'];

/** Faults that are rarer on benches: values a decade off, dry joints, parts turned round or of the other type, inputs that leak. */
export function oddFaults(circuit: LayerCircuit, random: () => number): Planted[] {
  const between = (low: number, high: number) => low * (high / low) ** random();
  return circuit.parts.flatMap((part): Planted[] => {
    const of = (what: string, parts: (p: LayerPart) => readonly LayerPart[]): Planted => ({
      refs: [part.ref],
      what,
      apply: instead(part.ref, parts),
    });
    const pins = Object.keys(part.pins);
    const joints = JOINED.includes(part.kind)
      ? [of('dry joint', dryJoint(pins[Math.floor(random() * pins.length)]!, between(1e3, 1e8)))]
      : [];
    switch (part.kind) {
      case 'resistor':
        return [...joints, of('tenfold', times(10)), of('a tenth', times(0.1))];
      case 'diode':
      case 'zener':
        return [
          ...joints,
          of('reversed', (p) => [{ ...p, pins: { a: p.pins.k!, k: p.pins.a! } } as LayerPart]),
        ];
      case 'bjt': {
        const { c, b, e } = part.pins as Record<'c' | 'b' | 'e', string>;
        const polarity = isMirrored(part) ? 'npn' : 'pnp';
        return [
          ...joints,
          of('collector and emitter swapped', (p) => [{ ...p, pins: { c: e, b, e: c } } as LayerPart]),
          of('of the other polarity', (p) => [{ ...p, model: undefined, polarity } as LayerPart]),
        ];
      }
      case 'opamp':
        return [
          of('input leaks', (p) => bridge(p, part.pins.minus, part.pins.vminus, between(1e4, 1e6))),
          of('input leaks', (p) => bridge(p, part.pins.plus, part.pins.vplus, between(1e4, 1e6))),
        ];
      default:
        return joints;
    }
  });
}

/** Two of some faults at once, of different parts. */
export function pairsOf(faults: readonly Planted[], random: () => number, count: number): Planted[] {
  const any = () => faults[Math.floor(random() * faults.length)]!;
  return Array.from({ length: count }, () => [any(), any()] as const)
    .filter(([one, other]) => one.refs[0] !== other.refs[0])
    .map(([one, other]) => ({
      refs: [...one.refs, ...other.refs],
      what: `${one.what} and ${other.what}`,
      apply: (circuit) => other.apply(one.apply(circuit)),
    }));
}
