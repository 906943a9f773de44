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
const VOLTMETER_OHM = 10e6;

type Law = (v: readonly number[]) => {
  readonly i: readonly number[];
  readonly g: readonly (readonly number[])[];
};
interface Element {
  readonly nets: readonly string[];
  readonly law: Law;
  /** The most a control voltage may move in a step, V; without it the element is a straight line. */
  readonly stepV?: number;
  /** The most that the difference of the first two nets may move in a step where it bends, V. */
  readonly inputV?: number;
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

/** Ebers and Moll's transistor (1954) in its transport form, with the base's leakage and the Early effect (1952). */
function transistor(p: LayerPart): Element {
  const { c, b, e } = p.pins as Record<'c' | 'b' | 'e', string>;
  const sign = isMirrored(p) ? -1 : 1;
  const of = (name: string, usual: number) => parameter(p, name, usual);
  const [is, bf, br] = [of('IS', 1e-14), of('BF', 100), of('BR', 1)];
  const [ise, ne, vaf] = [of('ISE', 0), of('NE', 1.5), of('VAF', 0)];
  return {
    nets: [c, b, e],
    stepV: 2 * VT,
    law: ([vc = 0, vb = 0, ve = 0]) => {
      const [f, gf] = exponential(sign * (vb - ve), is, VT);
      const [r, gr] = exponential(sign * (vb - vc), is, VT);
      const [leak, gleak] = ise > 0 ? exponential(sign * (vb - ve), ise, ne * VT) : [0, 0];
      const early = vaf > 0 ? Math.max(0.05, 1 - (sign * (vb - vc)) / vaf) : 1;
      const byEarly = vaf > 0 && early > 0.05 ? (-sign * (f - r)) / vaf : 0;
      const ic = sign * ((f - r) * early - r / br);
      const ib = sign * (f / bf + leak + r / br);
      const [icE, icC] = [-gf * early, gr * early + gr / br - sign * byEarly];
      const icB = -icE - icC;
      const [ibB, ibC, ibE] = [gf / bf + gleak + gr / br, -gr / br, -gf / bf - gleak];
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
      return [transistor(p)];
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
  private readonly ground: string;
  private readonly index = new Map<string, number>();
  private last: number[];

  constructor(elements: readonly Element[], ground: string) {
    this.elements = elements;
    this.ground = ground;
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

  /** Voltages with a meter's resistance at a net, from those without it or with less gain in the amplifiers. */
  solvePowered(net: string | null, start: readonly number[] | null): number[] | null {
    const loaded =
      net === null
        ? this
        : new Nodal([...this.elements, ...ohmic(net, this.ground, VOLTMETER_OHM)], this.ground);
    return loaded.newton(start ?? new Array<number>(this.index.size).fill(0), '', 0, HOLDING_S);
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
      for (const { nets, stepV, inputV } of this.elements) {
        if (inputV !== undefined) {
          const [plus, minus] = nets as [string, string];
          const move = Math.abs(this.at(step, plus) - this.at(step, minus));
          const before = Math.abs(this.at(x, plus) - this.at(x, minus));
          const most = Math.max(inputV, 0.7 * before);
          if (move > most) share = Math.min(share, most / move);
        }
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

/** An EMF behind a little resistance. */
const electromotive = (plus: string, minus: string, volt: number, ohm: number): Element => ({
  nets: [plus, minus],
  law: ([u = 0, v = 0]) => ({
    i: [(u - v - volt) / ohm, (v + volt - u) / ohm],
    g: [
      [1 / ohm, -1 / ohm],
      [-1 / ohm, 1 / ohm],
    ],
  }),
});

/** An element by its currents alone; slopes by differences. */
const byDifferences = (
  nets: readonly string[],
  stepV: number,
  currents: (v: readonly number[]) => number[],
): Element => ({
  nets,
  stepV,
  law: (v) => {
    const i = currents(v);
    const h = 1e-7;
    const columns = v.map((_, c) =>
      currents(v.map((x, k) => (k === c ? x + h : x))).map((x, r) => (x - i[r]!) / h),
    );
    return { i, g: i.map((_, r) => columns.map((column) => column[r]!)) };
  },
});

/** An amplifier that gives what it can between its rails, softly at the limits. */
function amplifier(p: LayerPart, gain: number): Element {
  const { plus, minus, out, vplus, vminus } = p.pins as Record<
    'plus' | 'minus' | 'out' | 'vplus' | 'vminus',
    string
  >;
  const [ohm, high, low] = [
    parameter(p, 'ROUT', 75),
    parameter(p, 'headroomHigh', 1.5),
    parameter(p, 'headroomLow', 1.5),
  ];
  return {
    nets: [plus, minus, out, vplus, vminus],
    inputV: 1 / gain,
    law: ([a = 0, b = 0, o = 0, top = 0, bottom = 0]) => {
      const [most, least] = [top - high, bottom + low];
      const [middle, swing] = [(most + least) / 2, Math.max(1e-3, (most - least) / 2)];
      const bent = Math.tanh((gain * (a - b) - middle) / swing);
      const target = top - bottom < 2 ? o : middle + swing * bent;
      const slope = top - bottom < 2 ? 0 : gain * (1 - bent * bent);
      const i = (o - target) / ohm;
      const [byTop, byBottom] = [-0.5 / ohm, -0.5 / ohm];
      const row = [-slope / ohm, slope / ohm, 1 / ohm, byTop, byBottom];
      // What it gives comes from the ground: the rails are stiff here.
      return {
        i: [0, 0, i, 0, 0],
        g: [[0, 0, 0, 0, 0], [0, 0, 0, 0, 0], row, [0, 0, 0, 0, 0], [0, 0, 0, 0, 0]],
      };
    },
  };
}

/** Koren's valves (1996). */
function valve(p: LayerPart): Element {
  const of = (name: string, usual: number) => parameter(p, name, usual);
  const [mu, ex, kg1, kp, kvb] = [
    of('MU', 100),
    of('EX', 1.4),
    of('KG1', 1060),
    of('KP', 600),
    of('KVB', 300),
  ];
  const soft = (u: number) => (u > 40 ? u : Math.log1p(Math.exp(u)));
  if (p.kind === 'triode') {
    const { a, g, k } = p.pins as Record<'a' | 'g' | 'k', string>;
    return byDifferences([a, g, k], 2, ([va = 0, vg = 0, vk = 0]) => {
      const [ak, gk] = [va - vk, vg - vk];
      const e1 = ak <= 0 ? 0 : (ak / kp) * soft(kp * (1 / mu + gk / Math.sqrt(kvb + ak * ak)));
      const ia = e1 > 0 ? (2 * e1 ** ex) / kg1 : 0;
      const ig = gk > 0 ? gk ** 1.5 / of('RGI', 2000) : 0;
      return [ia, ig, -ia - ig];
    });
  }
  const { a, g2, g, k } = p.pins as Record<'a' | 'g2' | 'g' | 'k', string>;
  return byDifferences([a, g2, g, k], 2, ([va = 0, vs = 0, vg = 0, vk = 0]) => {
    const [ak, sk, gk] = [va - vk, vs - vk, vg - vk];
    const e1 = sk <= 0 ? 0 : (sk / kp) * soft(kp * (1 / mu + gk / sk));
    const ia = e1 > 0 && ak > 0 ? ((2 * e1 ** ex) / kg1) * Math.atan(ak / kvb) : 0;
    const drive = Math.max(0, gk + sk / mu);
    const is = drive ** ex / of('KG2', 4200);
    return [ia, is, 0, -ia - is];
  });
}

/** What a part is while the unit is on; undefined where this bench has nothing for it. */
function poweredElements(p: LayerPart, gain: number): Element[] | undefined {
  const value = typeof p.value === 'number' ? p.value : 0;
  switch (p.kind) {
    case 'supply':
      return [electromotive(p.pins.plus!, p.pins.minus!, value, Math.max(0.02, p.resistance ?? 0))];
    case 'signal':
      return [electromotive(p.pins.plus!, p.pins.minus!, p.offset ?? 0, Math.max(0.02, p.resistance ?? 0))];
    case 'opamp':
      return [amplifier(p, gain)];
    case 'triode':
    case 'pentode':
      return [valve(p)];
    case 'zener': {
      const { a, k } = p.pins as Record<'a' | 'k', string>;
      const [is, n, bv] = [parameter(p, 'IS', 1e-14), parameter(p, 'N', 1), value || parameter(p, 'BV', 5)];
      return [
        byDifferences([a, k], 2 * VT, ([u = 0, v = 0]) => {
          const [forward] = exponential(u - v, is, n * VT);
          const [backward] = exponential(v - u - bv, parameter(p, 'IBV', 1e-3), VT);
          return [forward - backward, backward - forward];
        }),
      ];
    }
    case 'capsule': {
      const { out, gnd } = p.pins as Record<'out' | 'gnd', string>;
      const [id, knee, rout] = [
        parameter(p, 'ID', 2e-4),
        parameter(p, 'VKNEE', 0.3),
        parameter(p, 'ROUT', 1e5),
      ];
      return [
        byDifferences([out, gnd], 1, ([u = 0, v = 0]) => {
          const i = id * Math.tanh((u - v) / knee) + (u - v) / rout;
          return [i, -i];
        }),
      ];
    }
    case 'timer555':
    case 'clock':
    case 'regulator':
    case 'relay':
      return undefined;
    case 'mosfet':
      return undefined;
    default:
      return unpowered(p);
  }
}

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
