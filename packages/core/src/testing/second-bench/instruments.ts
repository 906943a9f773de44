import type { LayerCircuit, LayerPart } from '../../circuit/circuit/index.ts';
import { CLOSED_OHM, type Element } from './element.ts';
import { gauss, Nodal } from './nodal.ts';
import { parameter } from './parameters.ts';
import { poweredElements } from './powered.ts';
import { unpowered } from './unpowered.ts';

/** Gains of the amplifiers on the way to their own. */
const GAINS = [1, 3, 10, 30, 100, 300, 1e3, 3e3, 1e4, 3e4, 1e5];

/**
 * Direct voltages that a voltmeter shows at some nets of a unit that is on, V; undefined where this bench cannot tell.
 */
export function voltsAt(circuit: LayerCircuit, nets: readonly string[]): number[] | undefined {
  let start: number[] | null = null;
  let nodal: Nodal | null = null;
  for (const gain of GAINS) {
    const elements: Element[] = [];
    for (const part of circuit.parts) {
      const own = poweredElements(part, gain);
      if (!own) return undefined;
      elements.push(...own);
    }
    nodal = new Nodal(elements, circuit.ground);
    const found: number[] | null = nodal.solvePowered(null, start) ?? nodal.solve('', 0);
    if (!found) return undefined;
    start = found;
    if (!circuit.parts.some((p) => p.kind === 'opamp')) break;
  }
  return nets.map((net) => {
    if (!nodal!.has(net)) return 0;
    const loaded = nodal!.solvePowered(net, start);
    return loaded ? nodal!.at(loaded, net) : Number.NaN;
  });
}

/** What a unit that is off shows an ohmmeter; null for overload, undefined where this bench cannot tell. */
export function ohmsBetween(circuit: LayerCircuit, red: string, black: string): number | null | undefined {
  const nodal = new Nodal(circuit.parts.flatMap(unpowered), black);
  if (!nodal.has(red)) return null;
  for (const ampere of [1e-3, 1e-4, 1e-5, 1e-6, 1e-7, 1e-8]) {
    const x = nodal.solve(red, ampere);
    if (!x) return undefined;
    const volt = nodal.at(x, red);
    // A passive unit gives nothing back: the method has run away.
    if (volt < 0) return undefined;
    if (volt <= 0.4) return volt / ampere;
  }
  return null;
}

/** Capacities of a part's junctions without voltage. */
function layersOf(p: LayerPart): (readonly [string, string, number])[] {
  const pins = p.pins as {
    a: string;
    k: string;
    b: string;
    c: string;
    e: string;
    g: string;
    s: string;
    d: string;
  };
  switch (p.kind) {
    case 'diode':
    case 'zener':
    case 'led':
      return [[pins.a, pins.k, parameter(p, 'CJO', 0)]];
    case 'bjt':
      return [
        [pins.b, pins.e, parameter(p, 'CJE', 0)],
        [pins.b, pins.c, parameter(p, 'CJC', 0)],
      ];
    case 'jfet':
      return [
        [pins.g, pins.s, parameter(p, 'CGS', 0)],
        [pins.g, pins.d, parameter(p, 'CGD', 0)],
      ];
    default:
      return [];
  }
}

type Complex = readonly [re: number, im: number];

/** What a unit that is off shows a capacitance meter, F; null for too little, undefined where this bench cannot tell. */
export function faradBetween(circuit: LayerCircuit, red: string, black: string): number | null | undefined {
  // Windings are coupled coils, which this bench has not.
  if (circuit.parts.some((p) => p.kind === 'transformer')) return undefined;
  const nets = [...new Set(circuit.parts.flatMap((p) => Object.values(p.pins)))].filter(
    (net) => net !== black,
  );
  const index = new Map(nets.map((net, k) => [net, k]));
  const at = (frequency: number): number => {
    const w = 2 * Math.PI * frequency;
    const n = nets.length;
    // The complex equations as real ones of twice the size.
    const a = Array.from({ length: 2 * n }, (_, k) => {
      const row = new Array<number>(2 * n).fill(0);
      row[k] = 1e-11;
      return row;
    });
    const admit = (one: string, other: string, [re, im]: Complex) => {
      const ends = [index.get(one) ?? -1, index.get(other) ?? -1] as const;
      ends.forEach((r, p) =>
        ends.forEach((c, q) => {
          if (r < 0 || c < 0) return;
          const sign = p === q ? 1 : -1;
          a[r]![c]! += sign * re;
          a[r + n]![c + n]! += sign * re;
          a[r]![c + n]! -= sign * im;
          a[r + n]![c]! += sign * im;
        }),
      );
    };
    for (const p of circuit.parts) {
      if (p.kind === 'capacitor') {
        const farad = typeof p.value === 'number' ? p.value : 0;
        if (!(farad > 0)) continue;
        const [r, x] = [p.esr ?? 0, -1 / (w * farad)];
        const size = r * r + x * x;
        admit(p.pins.a!, p.pins.b!, [r / size, -x / size]);
        if (p.leakage !== undefined) admit(p.pins.a!, p.pins.b!, [1 / p.leakage, 0]);
        continue;
      }
      if (p.kind === 'inductor') {
        const [r, x] = [p.dcr ?? CLOSED_OHM, w * (typeof p.value === 'number' ? p.value : 0)];
        const size = r * r + x * x;
        admit(p.pins.a!, p.pins.b!, [r / size, -x / size]);
        continue;
      }
      for (const [one, other, farad] of layersOf(p)) admit(one, other, [0, w * farad]);
      for (const { nets: touched, law } of unpowered(p)) {
        const { g } = law(touched.map(() => 0));
        touched.forEach((one, r) =>
          touched.forEach((other, c) => {
            const [row, column] = [index.get(one) ?? -1, index.get(other) ?? -1];
            if (row < 0 || column < 0) return;
            a[row]![column]! += g[r]![c]!;
            a[row + n]![column + n]! += g[r]![c]!;
          }),
        );
      }
    }
    const b = new Array<number>(2 * n).fill(0);
    b[index.get(red)!] = 1;
    const v = gauss(a, b);
    const [re, im] = [v[index.get(red)!]!, v[index.get(red)! + n]!];
    return -im / (re * re + im * im) / w;
  };
  const quick = at(1000);
  const farad = quick <= 1e-6 ? quick : at(100);
  return farad > 1e-12 ? farad : null;
}
