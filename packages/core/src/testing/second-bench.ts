import type { LayerCircuit, LayerPart } from '../circuit/index.ts';
import { MODELS } from '../models/index.ts';

/**
 * A second bench, to check the first against: it draws a real unit within its tolerances and spreads, and reads it with
 * its own instruments. It shares the types and the published parameters with the engine, and none of its methods: dense
 * nodal equations by Gauss, currents by Newton's method with every junction's step held to a few kT/q.
 */

const VT = 0.025865;
const CLOSED_OHM = 0.02;
const OPEN_OHM = 1e10;
const HOLDING_S = 1e-12;

type Law = (v: readonly number[]) => {
  readonly i: readonly number[];
  readonly g: readonly (readonly number[])[];
};
interface Element {
  readonly nets: readonly string[];
  readonly law: Law;
  /** The most a control voltage may move in a step, V; without it the element is a straight line. */
  readonly stepV?: number;
}

const parameter = (p: LayerPart, name: string, usual: number): number => {
  const own = new Map<string, unknown>(Object.entries(p.params ?? {})).get(name);
  if (typeof own === 'number') return own;
  const model = MODELS.find((m) => m.name === p.model);
  const value = model && new Map<string, unknown>(Object.entries(model.params)).get(name);
  return typeof value === 'number' ? value : usual;
};
const isMirrored = (p: LayerPart): boolean => {
  const own = 'polarity' in p ? p.polarity : undefined;
  const model = MODELS.find((m) => m.name === p.model)?.params['polarity' as never] as string | undefined;
  return ['pnp', 'p'].includes(own ?? model ?? 'npn');
};

const ohmic = (a: string | undefined, b: string | undefined, ohm: number): Element[] =>
  a === undefined || b === undefined
    ? []
    : [
        {
          nets: [a, b],
          law: ([u = 0, v = 0]) => ({
            i: [(u - v) / ohm, (v - u) / ohm],
            g: [
              [1 / ohm, -1 / ohm],
              [-1 / ohm, 1 / ohm],
            ],
          }),
        },
      ];

function exponential(v: number, is: number, scale: number): [number, number] {
  const e = Math.exp(Math.min(v / scale, 60));
  return [is * (e - 1), (is * e) / scale];
}

function diodeOf(a: string, k: string, is: number, n: number): Element {
  return {
    nets: [a, k],
    stepV: 2 * n * VT,
    law: ([u = 0, v = 0]) => {
      const [i, g] = exponential(u - v, is, n * VT);
      return {
        i: [i, -i],
        g: [
          [g, -g],
          [-g, g],
        ],
      };
    },
  };
}

/** Ebers and Moll's transistor (1954), in its transport form. */
function transistor(
  c: string,
  b: string,
  e: string,
  sign: number,
  is: number,
  bf: number,
  br: number,
): Element {
  return {
    nets: [c, b, e],
    stepV: 2 * VT,
    law: ([vc = 0, vb = 0, ve = 0]) => {
      const [f, gf] = exponential(sign * (vb - ve), is, VT);
      const [r, gr] = exponential(sign * (vb - vc), is, VT);
      const ic = sign * (f - r - r / br);
      const ib = sign * (f / bf + r / br);
      const [icB, icC, icE] = [gf - gr - gr / br, gr + gr / br, -gf];
      const [ibB, ibC, ibE] = [gf / bf + gr / br, -gr / br, -gf / bf];
      return {
        i: [ic, ib, -ic - ib],
        g: [
          [icC, icB, icE],
          [ibC, ibB, ibE],
          [-icC - ibC, -icB - ibB, -icE - ibE],
        ],
      };
    },
  };
}

/** The square law of a junction FET with its two gate junctions. */
function junctionFet(p: LayerPart): Element[] {
  const { d, g, s } = p.pins as { d: string; g: string; s: string };
  const sign = isMirrored(p) ? -1 : 1;
  const [beta, pinchOff] = [parameter(p, 'BETA', 1e-4), parameter(p, 'VTO', -2)];
  const current = (vgs: number, vds: number): number => {
    if (vds < 0) return -current(vgs - vds, -vds);
    const over = vgs - pinchOff;
    if (over <= 0) return 0;
    return vds >= over ? beta * over * over : beta * vds * (2 * over - vds);
  };
  const channel: Element = {
    nets: [d, g, s],
    stepV: 0.5,
    law: ([vd = 0, vg = 0, vs = 0]) => {
      const at = (x: number, y: number, z: number) => sign * current(sign * (y - z), sign * (x - z));
      const i = at(vd, vg, vs);
      const h = 1e-6;
      const row = [(at(vd + h, vg, vs) - i) / h, (at(vd, vg + h, vs) - i) / h, (at(vd, vg, vs + h) - i) / h];
      return { i: [i, 0, -i], g: [row, [0, 0, 0], row.map((x) => -x)] };
    },
  };
  const is = parameter(p, 'IS', 1e-14);
  const ends = [d, s].map((end) => (sign > 0 ? diodeOf(g, end, is, 1) : diodeOf(end, g, is, 1)));
  return [channel, ...ends];
}

const fractionOf = (taper: string | undefined, x: number): number => {
  const log = (y: number) => (81 ** y - 1) / 80;
  return taper === 'log' ? log(x) : taper === 'antilog' ? 1 - log(1 - x) : x;
};

/** What a part is to a meter while the unit is off. */
function unpowered(p: LayerPart): Element[] {
  const value = typeof p.value === 'number' ? p.value : 0;
  if (p.value === 'open') return [];
  if (p.value === 'short') {
    const nets = Object.values(p.pins);
    return nets.slice(1).flatMap((net) => ohmic(nets[0], net, CLOSED_OHM));
  }
  switch (p.kind) {
    case 'resistor':
      return ohmic(p.pins.a, p.pins.b, value);
    case 'load':
    case 'speaker':
    case 'headphone':
      return ohmic(p.pins.a, p.pins.b, p.re ?? (value || 8));
    case 'inductor':
      return ohmic(p.pins.a, p.pins.b, p.dcr ?? CLOSED_OHM);
    case 'potentiometer': {
      const part = Math.min(1, Math.max(0, fractionOf(p.taper, p.position ?? 0.5)));
      return [
        ...ohmic(p.pins[1], p.pins[2], Math.max(CLOSED_OHM, value * part)),
        ...ohmic(p.pins[2], p.pins[3], Math.max(CLOSED_OHM, value * (1 - part))),
      ];
    }
    case 'switch':
    case 'jumper':
    case 'fuse':
      return ohmic(p.pins.a, p.pins.b, p.closed === false ? OPEN_OHM : CLOSED_OHM);
    case 'changeover':
      return p.position === 'open'
        ? []
        : ohmic(p.pins.com, p.position === 'b' ? p.pins.b : p.pins.a, CLOSED_OHM);
    case 'transformer':
      return [
        ...ohmic(p.pins.p1, p.pins.p2, p.rp ?? CLOSED_OHM),
        ...ohmic(p.pins.s1, p.pins.s2, p.rs ?? CLOSED_OHM),
      ];
    case 'diode':
    case 'zener':
    case 'led':
      return [diodeOf(p.pins.a!, p.pins.k!, parameter(p, 'IS', 1e-14), parameter(p, 'N', 1))];
    case 'bjt':
      return [
        transistor(
          p.pins.c!,
          p.pins.b!,
          p.pins.e!,
          isMirrored(p) ? -1 : 1,
          parameter(p, 'IS', 1e-14),
          parameter(p, 'BF', 100),
          parameter(p, 'BR', 1),
        ),
      ];
    case 'jfet':
      return junctionFet(p);
    default:
      return [];
  }
}

function gauss(a: number[][], b: number[]): number[] {
  const n = b.length;
  for (let k = 0; k < n; k += 1) {
    let top = k;
    for (let r = k + 1; r < n; r += 1) if (Math.abs(a[r]![k]!) > Math.abs(a[top]![k]!)) top = r;
    [a[k], a[top]] = [a[top]!, a[k]!];
    [b[k], b[top]] = [b[top]!, b[k]!];
    for (let r = k + 1; r < n; r += 1) {
      const factor = a[r]![k]! / a[k]![k]!;
      if (factor === 0) continue;
      for (let c = k; c < n; c += 1) a[r]![c]! -= factor * a[k]![c]!;
      b[r]! -= factor * b[k]!;
    }
  }
  const x = new Array<number>(n).fill(0);
  for (let k = n - 1; k >= 0; k -= 1) {
    let sum = b[k]!;
    for (let c = k + 1; c < n; c += 1) sum -= a[k]![c]! * x[c]!;
    x[k] = sum / a[k]![k]!;
  }
  return x;
}

/** Voltages with a current driven into a net, by net; null where Newton's method does not come to rest. */
export class Nodal {
  private readonly elements: readonly Element[];
  private readonly index = new Map<string, number>();
  private last: number[];

  constructor(elements: readonly Element[], ground: string) {
    this.elements = elements;
    for (const element of elements)
      for (const net of element.nets)
        if (net !== ground && !this.index.has(net)) this.index.set(net, this.index.size);
    this.last = new Array<number>(this.index.size).fill(0);
  }

  has(net: string): boolean {
    return this.index.has(net);
  }

  at(x: readonly number[], net: string): number {
    const k = this.index.get(net);
    return k === undefined ? 0 : x[k]!;
  }

  solve(into: string, ampere: number): number[] | null {
    let x = [...this.last];
    for (const hold of [1e-6, 1e-9, HOLDING_S]) {
      const next =
        this.newton(x, into, ampere, hold) ??
        (hold > HOLDING_S ? null : this.newton(new Array<number>(x.length).fill(0), into, ampere, hold));
      if (next) x = next;
      else if (hold === HOLDING_S) return null;
    }
    this.last = x;
    return x;
  }

  private newton(start: readonly number[], into: string, ampere: number, hold: number): number[] | null {
    const n = start.length;
    const x = [...start];
    for (let round = 0; round < 400; round += 1) {
      const a = Array.from({ length: n }, (_, k) => {
        const row = new Array<number>(n).fill(0);
        row[k] = hold;
        return row;
      });
      const b = x.map((v) => -hold * v);
      const target = this.index.get(into);
      if (target !== undefined) b[target]! += ampere;
      for (const { nets, law } of this.elements) {
        const at = nets.map((net) => this.index.get(net) ?? -1);
        const { i, g } = law(at.map((k) => (k < 0 ? 0 : x[k]!)));
        at.forEach((row, r) => {
          if (row < 0) return;
          b[row]! -= i[r]!;
          at.forEach((column, c) => {
            if (column >= 0) a[row]![column]! += g[r]![c]!;
          });
        });
      }
      const step = gauss(a, b);
      if (step.some((s) => !Number.isFinite(s))) return null;
      let share = 1;
      for (const { nets, stepV } of this.elements) {
        if (stepV === undefined) continue;
        const moves = nets.map((net) => this.at(step, net));
        const values = nets.map((net) => this.at(x, net));
        for (let p = 0; p < nets.length; p += 1)
          for (let q = 0; q < p; q += 1) {
            const [before, move] = [values[p]! - values[q]!, moves[p]! - moves[q]!];
            const isNear = Math.max(Math.abs(before), Math.abs(before + move)) > 8 * VT;
            if (isNear && Math.abs(move) > stepV)
              share = Math.min(share, Math.max(stepV / Math.abs(move), 0.02));
          }
      }
      let largest = 0;
      for (let k = 0; k < n; k += 1) {
        x[k]! += share * step[k]!;
        largest = Math.max(largest, Math.abs(share * step[k]!) / (1e-7 + 1e-7 * Math.abs(x[k]!)));
      }
      if (share === 1 && largest < 1) return x;
    }
    return null;
  }
}

/** What a unit that is off shows an ohmmeter; null for overload, undefined where this bench cannot tell. */
export function ohmsBetween(circuit: LayerCircuit, red: string, black: string): number | null | undefined {
  const nodal = new Nodal(circuit.parts.flatMap(unpowered), black);
  if (!nodal.has(red)) return null;
  for (const ampere of [1e-3, 1e-4, 1e-5, 1e-6, 1e-7, 1e-8]) {
    const x = nodal.solve(red, ampere);
    if (!x) return undefined;
    const volt = nodal.at(x, red);
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

/** A unit as it may really be: every part somewhere in its tolerance, every control somewhere, every type somewhere in its spread. */
export function drawn(
  circuit: LayerCircuit,
  random: () => number,
  toleranceOf: (part: LayerPart) => number,
): LayerCircuit {
  const around = () => 2 * random() - 1;
  const by = (factor: number) => factor ** around();
  return {
    ...circuit,
    parts: circuit.parts.map((p): LayerPart => {
      const value = typeof p.value === 'number' ? p.value * (1 + toleranceOf(p) * around()) : p.value;
      switch (p.kind) {
        case 'resistor':
        case 'capacitor':
        case 'load':
        case 'speaker':
        case 'headphone':
          return { ...p, value };
        case 'potentiometer':
          return { ...p, value, position: random() };
        case 'switch':
          return { ...p, closed: random() < 0.5 };
        case 'changeover':
          return { ...p, position: random() < 0.5 ? 'a' : 'b' };
        case 'diode':
        case 'led':
          return { ...p, params: { ...p.params, IS: parameter(p, 'IS', 1e-14) * by(3) } };
        case 'bjt':
          return {
            ...p,
            params: {
              ...p.params,
              IS: parameter(p, 'IS', 1e-14) * by(3),
              BF: parameter(p, 'BF', 100) * by(2),
            },
          };
        default:
          return p;
      }
    }),
  };
}
