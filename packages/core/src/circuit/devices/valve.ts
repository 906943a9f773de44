import type { AllParamsOf } from '@zemble/contract';
import { modelParameters } from '../models/index.ts';
import { JUNCTION_FLOOR_S, thermalNoise } from './constants.ts';
import { controlledCurrent, CUT_OFF_A, type ControlledLaw } from './controlled.ts';
import { add, addPair, constantPair, pairSlots, type DeviceType } from './device.ts';

/** Parameters of a valve after Koren 1996. */
export type ValveParameters = AllParamsOf<'triode'>;

/** Exponent beyond which ln(1 + e^u) is u. */
const SOFT_PLUS_EDGE = 40;
/** ln(1 + e^u) and its slope. */
function softPlus(u: number): { value: number; slope: number } {
  if (u > SOFT_PLUS_EDGE) return { value: u, slope: 1 };
  const e = Math.exp(u);
  return { value: Math.log1p(e), slope: e / (1 + e) };
}

/** Anode voltage below which the law is held, V: its E1 has Va as a factor. */
const LEAST_ANODE_V = 1e-6;

/** Koren's triode: E1 = (Va/KP) ln(1 + e^(KP (1/MU + Vg/sqrt(KVB + Va^2)))), Ia = 2 E1^EX / KG1. */
export function triodeLaw(p: ValveParameters, vg: number, va: number, out: ControlledLaw): void {
  if (va <= LEAST_ANODE_V) {
    out.current = 0;
    out.gm = 0;
    out.gds = 0;
    return;
  }
  const root = Math.sqrt(p.KVB + va * va);
  const { value, slope } = softPlus(p.KP * (1 / p.MU + vg / root));
  const e1 = (va / p.KP) * value;
  const e1ByGrid = (va * slope) / root;
  const e1ByAnode = value / p.KP - (va * va * slope * vg) / root ** 3;
  spaceCharge(p, e1, 2 / p.KG1, e1ByGrid, e1ByAnode, out);
}

function spaceCharge(
  p: ValveParameters,
  e1: number,
  factor: number,
  byGrid: number,
  byOther: number,
  out: ControlledLaw,
): void {
  if (!(e1 > 0)) {
    out.current = 0;
    out.gm = 0;
    out.gds = 0;
    return;
  }
  const slope = factor * p.EX * e1 ** (p.EX - 1);
  out.current = factor * e1 ** p.EX;
  out.gm = slope * byGrid;
  out.gds = slope * byOther;
}

const STEP_V = 2;
const regionOf = (_vg: number, _va: number, current: number) =>
  current < CUT_OFF_A ? 'cut off' : 'conducting';
/**
 * A triode's noise is that of this over its gm, as a resistance in the grid's lead (North 1940; Harris 1947, RCA Review
 * 8, 505).
 */
const EQUIVALENT_OVER_GM = 2.5;
/** A pentode adds its partition noise, Ig2 / gm^2 times this, V^-1, and all of it shrinks by Ia / (Ia + Ig2) (Harris 1947). */
const PARTITION_PER_V = 20;

export const triode: DeviceType<'triode'> = {
  create(part, _value, t) {
    const p = modelParameters<'triode'>(part, t.models);
    const [anode, grid, cathode] = [t.node('a'), t.node('g'), t.node('k')];
    const device = controlledCurrent(
      {
        ref: part.ref,
        sign: 1,
        drain: anode,
        gate: grid,
        source: cathode,
        largestStepV: STEP_V,
        law: (vg, va, out) => triodeLaw(p, vg, va, out),
        regionOf,
        noise: (at) => [
          {
            from: anode,
            to: cathode,
            white: thermalNoise(EQUIVALENT_OVER_GM * Math.max(0, at.gm) + JUNCTION_FLOOR_S),
            flicker: 0,
          },
        ],
      },
      t,
    );
    const gridCathode = p.RGI > 0 ? pairSlots(t, grid, cathode) : undefined;
    const floor = [constantPair(t, anode, cathode), constantPair(t, grid, cathode)];
    const capacitances = [
      [constantPair(t, grid, cathode), p.CGK],
      [constantPair(t, grid, anode), p.CGA],
      [constantPair(t, anode, cathode), p.CAK],
    ] as const;
    return {
      ...device,
      stamp(m) {
        for (const pair of floor) addPair(m.g, pair, JUNCTION_FLOOR_S);
        for (const [pair, farad] of capacitances) if (farad > 0) addPair(m.c, pair, farad);
      },
      load(x, m) {
        device.load!(x, m);
        const vg = x[grid]! - x[cathode]!;
        if (!gridCathode || vg <= 0) return;
        const current = vg ** 1.5 / p.RGI;
        add(m.f, grid, current);
        add(m.f, cathode, -current);
        addPair(m.g, gridCathode, (1.5 * Math.sqrt(vg)) / p.RGI);
      },
    };
  },
};

/**
 * Koren's pentode: E1 from the screen instead of the anode, Ia = (2 E1^EX / KG1) atan(Va/KVB), and the screen current
 * max(0, Vg + Vg2/MU)^EX / KG2.
 */
export const pentode: DeviceType<'pentode'> = {
  create(part, _value, t) {
    const p = modelParameters<'pentode'>(part, t.models);
    const pins = [t.node('a'), t.node('g2'), t.node('g'), t.node('k')] as const;
    const [anode, screen, grid, cathode] = pins;
    const slot = (row: number) => pins.map((column) => t.slot(row, column));
    const slots = { anode: slot(anode), screen: slot(screen), cathode: slot(cathode) };
    const gridCathode = constantPair(t, grid, cathode);
    const gridAnode = constantPair(t, grid, anode);
    const floor = [constantPair(t, anode, cathode), constantPair(t, screen, cathode), gridCathode];
    const at: ControlledLaw = { current: 0, gm: 0, gds: 0 };

    /** Anode and screen current with their derivatives by anode, screen and grid. */
    function law(va: number, vs: number, vg: number) {
      const screenVolt = Math.max(vs, LEAST_ANODE_V);
      const { value, slope } = softPlus(p.KP * (1 / p.MU + vg / screenVolt));
      const e1 = (screenVolt / p.KP) * value;
      // Below the least screen voltage the law is held: the screen then moves nothing.
      const byScreen = vs > LEAST_ANODE_V ? value / p.KP - (slope * vg) / screenVolt : 0;
      spaceCharge(p, e1, 2 / p.KG1, slope, byScreen, at);
      const knee = va > 0 ? Math.atan(va / p.KVB) : 0;
      const kneeSlope = va > 0 ? p.KVB / (p.KVB * p.KVB + va * va) : 0;
      const drive = Math.max(0, vg + vs / p.MU);
      const screenSlope = drive > 0 ? (p.EX * drive ** (p.EX - 1)) / p.KG2 : 0;
      return {
        ia: at.current * knee,
        iaBy: [at.current * kneeSlope, at.gds * knee, at.gm * knee],
        is: drive ** p.EX / p.KG2,
        isBy: [0, screenSlope / p.MU, screenSlope],
      };
    }

    return {
      ref: part.ref,
      balanced: pins,
      stamp(m) {
        for (const pair of floor) addPair(m.g, pair, JUNCTION_FLOOR_S);
        if (p.CGK > 0) addPair(m.c, gridCathode, p.CGK);
        if (p.CGA > 0) addPair(m.c, gridAnode, p.CGA);
      },
      load(x, m) {
        const k = x[cathode]!;
        const { ia, iaBy, is, isBy } = law(x[anode]! - k, x[screen]! - k, x[grid]! - k);
        add(m.f, anode, ia);
        add(m.f, screen, is);
        add(m.f, cathode, -ia - is);
        for (let column = 0; column < 3; column += 1) {
          add(m.g, slots.anode[column]!, iaBy[column]!);
          add(m.g, slots.screen[column]!, isBy[column]!);
          add(m.g, slots.cathode[column]!, -iaBy[column]! - isBy[column]!);
        }
        const sum = (values: readonly number[]) => values.reduce((a, b) => a + b, 0);
        add(m.g, slots.anode[3]!, -sum(iaBy));
        add(m.g, slots.screen[3]!, -sum(isBy));
        add(m.g, slots.cathode[3]!, sum(iaBy) + sum(isBy));
      },
      report(x) {
        const k = x[cathode]!;
        const { ia, is } = law(x[anode]! - k, x[screen]! - k, x[grid]! - k);
        return {
          current: ia,
          power: ia * (x[anode]! - k) + is * (x[screen]! - k),
          region: regionOf(0, 0, ia),
        };
      },
      noise(x) {
        const k = x[cathode]!;
        const { ia, iaBy, is } = law(x[anode]! - k, x[screen]! - k, x[grid]! - k);
        const gm = Math.max(0, iaBy[2]!);
        const share = ia + is > 0 ? ia / (ia + is) : 1;
        const equivalent = share * (EQUIVALENT_OVER_GM * gm + PARTITION_PER_V * is);
        return [
          { from: anode, to: cathode, white: thermalNoise(equivalent + JUNCTION_FLOOR_S), flicker: 0 },
          { from: screen, to: cathode, white: thermalNoise(JUNCTION_FLOOR_S), flicker: 0 },
        ];
      },
    };
  },
};
