import type { LayerPart } from '../../circuit/circuit/index.ts';
import { byDifferences, CLOSED_OHM, OPEN_OHM, ohmic, VT, type Element } from './element.ts';
import { isMirrored, parameter } from './parameters.ts';

/** The current of a junction and its slope. */
export function exponential(v: number, is: number, scale: number): [number, number] {
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
export function unpowered(p: LayerPart): Element[] {
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
    default:
      return [];
  }
}
