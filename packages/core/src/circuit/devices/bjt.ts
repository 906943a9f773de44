import type { AllParamsOf, OwnModel } from '@zemble/contract';
import type { LayerPartOf } from '../circuit/index.ts';
import { isPType, modelParameters } from '../models/index.ts';
import { ELEMENTARY_CHARGE, JUNCTION_FLOOR_S, thermalNoise } from './constants.ts';
import { add, addPair, constantPair, pairSlots, type DeviceType } from './device.ts';
import { LIMIT_SLACK_V } from './diode.ts';
import {
  criticalVoltage,
  depletion,
  diodeLaw,
  junctionCurvature,
  junctionNoise,
  limitJunction,
  type CurrentSlope,
  type Depletion,
} from './junction.ts';

/** Gummel-Poon parameters (Gummel & Poon 1970) under their published names. */
export type BjtParameters = AllParamsOf<'bjt'>;

type Named = Pick<LayerPartOf<'bjt'>, 'kind' | 'model' | 'params'>;

export const bjtParameters = (part: Named, models: readonly OwnModel[] = []): BjtParameters =>
  modelParameters<'bjt'>(part, models);

/** Terminal currents of the n type and their derivatives by the two junction voltages. */
export interface BjtCurrents {
  ic: number;
  ib: number;
  /** d ic / d vbe, d ic / d vbc, and the same of ib. */
  icBe: number;
  icBc: number;
  ibBe: number;
  ibBc: number;
  /** Transport currents forward and reverse. */
  forward: number;
  reverse: number;
  forwardSlope: number;
}

/** Smallest denominator of q1, kept away from zero where a junction is driven past its Early voltage. */
const LEAST_EARLY = 1e-3;

/** Evaluates the DC equations of the n type at (vbe, vbc) into `out`. */
export function bjtLaw(
  p: BjtParameters,
  vbe: number,
  vbc: number,
  out: BjtCurrents,
  work: CurrentSlope,
): void {
  diodeLaw(vbe, p.IS, p.NF, work);
  const { current: forward, slope: forwardSlope } = work;
  diodeLaw(vbc, p.IS, p.NR, work);
  const { current: reverse, slope: reverseSlope } = work;
  let leakE = vbe * JUNCTION_FLOOR_S;
  let leakESlope = JUNCTION_FLOOR_S;
  let leakC = vbc * JUNCTION_FLOOR_S;
  let leakCSlope = JUNCTION_FLOOR_S;
  if (p.ISE > 0) {
    diodeLaw(vbe, p.ISE, p.NE, work);
    leakE += work.current;
    leakESlope += work.slope;
  }
  if (p.ISC > 0) {
    diodeLaw(vbc, p.ISC, p.NC, work);
    leakC += work.current;
    leakCSlope += work.slope;
  }
  const q1 = 1 / Math.max(LEAST_EARLY, 1 - vbc / p.VAF - vbe / p.VAR);
  const root = Math.sqrt(Math.max(0, 1 + (4 * forward) / p.IKF));
  const qb = (q1 / 2) * (1 + root);
  const qbBe = ((q1 * q1) / p.VAR) * ((1 + root) / 2) + (root > 0 ? (q1 * forwardSlope) / (p.IKF * root) : 0);
  const qbBc = ((q1 * q1) / p.VAF) * ((1 + root) / 2);
  const transport = (forward - reverse) / qb;
  out.ic = transport - reverse / p.BR - leakC;
  out.icBe = (forwardSlope - transport * qbBe) / qb;
  out.icBc = (-reverseSlope - transport * qbBc) / qb - reverseSlope / p.BR - leakCSlope;
  out.ib = forward / p.BF + leakE + reverse / p.BR + leakC;
  out.ibBe = forwardSlope / p.BF + leakESlope;
  out.ibBc = reverseSlope / p.BR + leakCSlope;
  out.forward = forward;
  out.reverse = reverse;
  out.forwardSlope = forwardSlope;
}

const emptyCurrents = (): BjtCurrents => ({
  ic: 0,
  ib: 0,
  icBe: 0,
  icBc: 0,
  ibBe: 0,
  ibBc: 0,
  forward: 0,
  reverse: 0,
  forwardSlope: 0,
});

/** Collector current below which a transistor is said to be cut off, A. */
const CUT_OFF_A = 1e-8;
/** Share of reverse transport in the forward one above which it is said to be saturated. */
const SATURATED_SHARE = 0.02;

/** Bipolar transistor: Gummel-Poon DC equations, depletion charges CJE and CJC, transit time TF, RB, RC, RE. */
export const bjt: DeviceType<'bjt'> = {
  create(part, _value, t) {
    const p = bjtParameters(part, t.models);
    // A p type uses the parameters of its mirrored n type.
    const sign = isPType(part, t.models) ? -1 : 1;
    const pins = { c: t.node('c'), b: t.node('b'), e: t.node('e') };
    const inner = (pin: 'c' | 'b' | 'e', ohm: number) => (ohm > 0 ? t.unknown(pin) : pins[pin]);
    const [c, b, e] = [inner('c', p.RC), inner('b', p.RB), inner('e', p.RE)];
    const ohms = { c: p.RC, b: p.RB, e: p.RE };
    const series = (['c', 'b', 'e'] as const)
      .filter((pin) => ohms[pin] > 0)
      .map((pin) => {
        const to = pin === 'c' ? c : pin === 'b' ? b : e;
        return { from: pins[pin], to, slots: constantPair(t, pins[pin], to), siemens: 1 / ohms[pin] };
      });
    const slots = {
      cc: t.slot(c, c), cb: t.slot(c, b), ce: t.slot(c, e),
      bc: t.slot(b, c), bb: t.slot(b, b), be: t.slot(b, e),
      ec: t.slot(e, c), eb: t.slot(e, b), ee: t.slot(e, e),
    }; // prettier-ignore
    const basePair = pairSlots(t, b, e);
    const collectorPair = pairSlots(t, b, c);
    const criticalE = criticalVoltage(p.IS, p.NF);
    const criticalC = criticalVoltage(p.IS, p.NR);
    const at = emptyCurrents();
    const work: CurrentSlope = { current: 0, slope: 0 };
    const baseLayer: Depletion = { charge: 0, capacitance: 0 };
    const collectorLayer: Depletion = { charge: 0, capacitance: 0 };
    let previousBe = 0;
    let previousBc = 0;
    const hasCharge = p.CJE > 0 || p.CJC > 0 || p.TF > 0;

    const solve = (x: Float64Array) => {
      bjtLaw(p, sign * (x[b]! - x[e]!), sign * (x[b]! - x[c]!), at, work);
      return at;
    };

    return {
      ref: part.ref,
      balanced: [c, b, e],
      stamp(m) {
        for (const s of series) addPair(m.g, s.slots, s.siemens);
      },
      load(x, m) {
        const vbe = sign * (x[b]! - x[e]!);
        const vbc = sign * (x[b]! - x[c]!);
        const usedBe = limitJunction(vbe, previousBe, p.NF, criticalE);
        const usedBc = limitJunction(vbc, previousBc, p.NR, criticalC);
        const restBe = vbe - usedBe;
        const restBc = vbc - usedBc;
        if (Math.abs(restBe) > LIMIT_SLACK_V || Math.abs(restBc) > LIMIT_SLACK_V) m.limited = true;
        previousBe = usedBe;
        previousBc = usedBc;
        bjtLaw(p, usedBe, usedBc, at, work);
        const ic = sign * (at.ic + at.icBe * restBe + at.icBc * restBc);
        const ib = sign * (at.ib + at.ibBe * restBe + at.ibBc * restBc);
        add(m.f, c, ic);
        add(m.f, b, ib);
        add(m.f, e, -ic - ib);
        const { g } = m;
        add(g, slots.cb, at.icBe + at.icBc);
        add(g, slots.ce, -at.icBe);
        add(g, slots.cc, -at.icBc);
        add(g, slots.bb, at.ibBe + at.ibBc);
        add(g, slots.be, -at.ibBe);
        add(g, slots.bc, -at.ibBc);
        add(g, slots.eb, -(at.icBe + at.icBc + at.ibBe + at.ibBc));
        add(g, slots.ee, at.icBe + at.ibBe);
        add(g, slots.ec, at.icBc + at.ibBc);
        if (!hasCharge) return;
        depletion(vbe, p.CJE, p.VJE, p.MJE, p.FC, baseLayer);
        depletion(vbc, p.CJC, p.VJC, p.MJC, p.FC, collectorLayer);
        const qbe = sign * (baseLayer.charge + p.TF * (at.forward + at.forwardSlope * restBe));
        const qbc = sign * collectorLayer.charge;
        add(m.q, b, qbe + qbc);
        add(m.q, e, -qbe);
        add(m.q, c, -qbc);
        addPair(m.c, basePair, baseLayer.capacitance + p.TF * at.forwardSlope);
        addPair(m.c, collectorPair, collectorLayer.capacitance);
      },
      curvature(before, after) {
        const be = sign * (before[b]! - before[e]!);
        const bc = sign * (before[b]! - before[c]!);
        return Math.max(
          junctionCurvature(be, sign * (after[b]! - after[e]!), p.NF),
          junctionCurvature(bc, sign * (after[b]! - after[c]!), p.NR),
        );
      },
      reset() {
        previousBe = 0;
        previousBc = 0;
      },
      report(x) {
        const { ic, ib, forward, reverse } = solve(x);
        const power = sign * (ic * (x[pins.c]! - x[pins.e]!) + ib * (x[pins.b]! - x[pins.e]!));
        const isReversed = reverse > forward && reverse > CUT_OFF_A;
        const isSaturated = forward > CUT_OFF_A && reverse > SATURATED_SHARE * forward;
        const isCutOff = Math.abs(ic) < CUT_OFF_A && !isSaturated;
        const region = isReversed ? 'reversed' : isSaturated ? 'saturated' : isCutOff ? 'cut off' : 'active';
        return { current: sign * ic, power, region };
      },
      noise(x) {
        const { forward, reverse, ib } = solve(x);
        const vbe = sign * (x[b]! - x[e]!);
        const vbc = sign * (x[b]! - x[c]!);
        const floor = thermalNoise(JUNCTION_FLOOR_S);
        const leak = (volt: number, saturation: number, emission: number) => {
          if (saturation === 0) return 0;
          diodeLaw(volt, saturation, emission, work);
          return junctionNoise(work.current, saturation, emission);
        };
        // Carriers that cross the base either way.
        const q1 = 1 / Math.max(LEAST_EARLY, 1 - vbc / p.VAF - vbe / p.VAR);
        const qb = (q1 / 2) * (1 + Math.sqrt(Math.max(0, 1 + (4 * forward) / p.IKF)));
        const crossing = (2 * ELEMENTARY_CHARGE * (Math.abs(forward) + Math.abs(reverse))) / qb;
        const atRest = (2 * ELEMENTARY_CHARGE * p.IS * (1 / p.NF + 1 / p.NR)) / qb;
        return [
          { from: c, to: e, white: crossing + atRest, flicker: 0 },
          {
            from: b,
            to: e,
            white: junctionNoise(forward / p.BF, p.IS / p.BF, p.NF) + leak(vbe, p.ISE, p.NE) + floor,
            flicker: p.KF * Math.abs(ib),
          },
          {
            from: b,
            to: c,
            white: junctionNoise(reverse / p.BR, p.IS / p.BR, p.NR) + leak(vbc, p.ISC, p.NC) + floor,
            flicker: 0,
          },
          ...series.map((s) => ({ from: s.from, to: s.to, white: thermalNoise(s.siemens), flicker: 0 })),
        ];
      },
    };
  },
};
