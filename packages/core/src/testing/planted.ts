import type { LayerCircuit, LayerPart } from '../circuit/circuit/index.ts';

/** A fault planted in a unit: what it is, and the unit with it. */
export interface Planted {
  readonly ref: string;
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
      ref: part.ref,
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
