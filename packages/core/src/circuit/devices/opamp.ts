import type { AllParamsOf, OwnModel } from '@zemble/contract';
import type { LayerPartOf } from '../circuit/index.ts';
import { modelParameters } from '../models/index.ts';
import { BOLTZMANN, TEMPERATURE_K, thermalNoise } from './constants.ts';
import { add, addPair, constantPair, type DeviceType, type Evaluation } from './device.ts';

/** Parameters of an operational amplifier; docs/physics.md says what they do. */
export type OpampParameters = AllParamsOf<'opamp'>;

export const opampParameters = (
  part: Pick<LayerPartOf<'opamp'>, 'kind' | 'model' | 'params'>,
  models: readonly OwnModel[] = [],
): OpampParameters => modelParameters<'opamp'>(part, models);

/**
 * What a supply pin gives beyond the quiescent current when the output gives `current`: all of it far above IQ, none far
 * below -IQ, and smoothly between, as a class AB output does.
 */
export const supplyShare = (current: number, quiescent: number): number =>
  (current + Math.hypot(current, quiescent)) / 2 - quiescent / 2;

/** d supplyShare / d current. */
function supplyShareSlope(current: number, quiescent: number): number {
  const size = Math.hypot(current, quiescent);
  return size === 0 ? 0.5 : (1 + current / size) / 2;
}

/** Beyond its limit the stage is held back by this many times its own slope: under a microvolt a volt of overdrive. */
const CLAMP_STIFFNESS = 1e12;
/** Distance from a limit at which the output counts as standing in its rail, V. */
const IN_RAIL_V = 1e-3;

/**
 * Operational amplifier with a single pole: the voltage p of its gain stage obeys
 *
 *     p + tau dp/dt = AOL (plus - minus + VOS),   tau = AOL / (2 pi GBW),
 *
 * its drive limited to the slew rate (tau SR) and p itself to what the supply leaves. The output is p behind ROUT. What
 * it gives comes from its supply pins, beside the quiescent current: vplus takes IQ + s(io), vminus gives IQ + s(-io)
 * (`supplyShare`). Below `minSupply` between those pins it is starved: its output is open, and IQ falls with the supply.
 */
export const opamp: DeviceType<'opamp'> = {
  create(part, _value, t) {
    const p = opampParameters(part, t.models);
    const [plus, minus, out] = [t.node('plus'), t.node('minus'), t.node('out')];
    const high = t.optionalNode('vplus');
    const low = t.optionalNode('vminus');
    const stage = t.unknown('gain stage');
    const branch = t.unknown('output current');
    const tau = p.AOL / (2 * Math.PI * p.GBW);
    const largestDrive = p.SR * tau;
    const slots = {
      stage: t.slot(stage, stage),
      stagePlus: t.slot(stage, plus),
      stageMinus: t.slot(stage, minus),
      stageHigh: high === undefined ? 0 : t.slot(stage, high),
      stageLow: low === undefined ? 0 : t.slot(stage, low),
      highBranch: high === undefined ? 0 : t.slot(high, branch),
      lowBranch: low === undefined ? 0 : t.slot(low, branch),
      outBranch: t.constantSlot(out, branch),
      branchOut: t.constantSlot(branch, out),
      branchStage: t.constantSlot(branch, stage),
      branch: t.constantSlot(branch, branch),
    };
    const input = Number.isFinite(p.RIN) ? constantPair(t, plus, minus) : undefined;
    const starvable = p.minSupply > 0 && high !== undefined && low !== undefined ? { high, low } : undefined;
    // What the quiescent current depends on, and the output's equation, which changes when the chip is starved.
    const starved = starvable && {
      highHigh: t.slot(starvable.high, starvable.high),
      highLow: t.slot(starvable.high, starvable.low),
      lowHigh: t.slot(starvable.low, starvable.high),
      lowLow: t.slot(starvable.low, starvable.low),
      branchOut: t.slot(branch, out),
      branchStage: t.slot(branch, stage),
      branch: t.slot(branch, branch),
    };
    const isStarved = (x: Float64Array) =>
      starvable !== undefined && x[starvable.high]! - x[starvable.low]! < p.minSupply;
    /** Quiescent current at a supply voltage, A. */
    const quiescentAt = (x: Float64Array) =>
      isStarved(x) ? p.IQ * Math.max(0, (x[starvable!.high]! - x[starvable!.low]!) / p.minSupply) : p.IQ;
    let previous = 0;
    let isFresh = true;
    let wasStarved = false;

    const limitsAt = (x: Float64Array) => {
      const top = high === undefined ? Number.POSITIVE_INFINITY : x[high]! - p.headroomHigh;
      const bottom = low === undefined ? Number.NEGATIVE_INFINITY : x[low]! + p.headroomLow;
      const isCrossed = top < bottom;
      return {
        top: isCrossed ? (top + bottom) / 2 : top,
        bottom: isCrossed ? (top + bottom) / 2 : bottom,
        isCrossed,
      };
    };

    /** The straight segment of its law: within its limits or beyond one, slewing up or down or not at all. */
    const segmentAt = (x: Float64Array) => {
      const { top, bottom } = limitsAt(x);
      const drive = p.AOL * (x[plus]! - x[minus]! + p.VOS);
      const slewing = Math.abs(drive) > largestDrive ? Math.sign(drive) : 0;
      return 3 * slewing + (x[stage]! > top ? 1 : x[stage]! < bottom ? -1 : 0);
    };

    return {
      ref: part.ref,
      steadyRows: [plus, minus],
      stamp(m) {
        add(m.c, slots.stage, tau);
        // The branch current flows out of `out` into the circuit: it enters the net.
        add(m.g, slots.outBranch, -1);
        add(m.g, slots.branchOut, 1);
        add(m.g, slots.branchStage, -1);
        add(m.g, slots.branch, p.ROUT);
        if (input) addPair(m.g, input, 1 / p.RIN);
      },
      load(x, m) {
        loadSupply(x, m);
        if (isStarved(x)) {
          loadStarved(x, m);
          return;
        }
        if (wasStarved && !isFresh) m.limited = true;
        wasStarved = false;
        const { top, bottom, isCrossed } = limitsAt(x);
        const wanted = x[stage]!;
        // A gain stage that would cross from one limit to the other in one step is first tried between them.
        let used = wanted;
        const crossesDown = previous >= top && wanted < bottom;
        const crossesUp = previous <= bottom && wanted > top;
        if (!isFresh && (crossesDown || crossesUp) && !isCrossed) {
          used = (top + bottom) / 2;
          m.limited = true;
        }
        previous = used;
        isFresh = false;
        const drive = p.AOL * (x[plus]! - x[minus]! + p.VOS);
        const isSlewing = !m.isStatic && Math.abs(drive) > largestDrive;
        const driven = isSlewing ? Math.sign(drive) * largestDrive : drive;
        let value = used;
        let slope = 1;
        let topSlope = 0;
        let bottomSlope = 0;
        if (used > top) {
          value += CLAMP_STIFFNESS * (used - top);
          slope += CLAMP_STIFFNESS;
          topSlope = CLAMP_STIFFNESS;
        } else if (used < bottom) {
          value -= CLAMP_STIFFNESS * (bottom - used);
          slope += CLAMP_STIFFNESS;
          bottomSlope = CLAMP_STIFFNESS;
        }
        add(m.f, stage, value + slope * (wanted - used) - driven);
        add(m.g, slots.stage, slope);
        add(m.g, slots.stageHigh, isCrossed ? -(topSlope + bottomSlope) / 2 : -topSlope);
        add(m.g, slots.stageLow, isCrossed ? -(topSlope + bottomSlope) / 2 : -bottomSlope);
        if (!isSlewing) {
          add(m.g, slots.stagePlus, -p.AOL);
          add(m.g, slots.stageMinus, p.AOL);
        }
        add(m.f, plus, p.IB);
        add(m.f, minus, p.IB);
      },
      curvature: (before, after) =>
        segmentAt(before) === segmentAt(after) && isStarved(before) === isStarved(after)
          ? 0
          : Number.POSITIVE_INFINITY,
      reset() {
        previous = 0;
        isFresh = true;
        wasStarved = false;
      },
      report(x) {
        const current = x[branch]!;
        const quiescent = quiescentAt(x);
        const volt = (node: number | undefined) => (node === undefined ? 0 : x[node]!);
        const difference = x[plus]! - x[minus]!;
        const power =
          volt(high) * (quiescent + supplyShare(current, p.IQ)) -
          volt(low) * (quiescent + supplyShare(-current, p.IQ)) -
          x[out]! * current +
          p.IB * (x[plus]! + x[minus]!) +
          difference * (difference / p.RIN);
        if (isStarved(x)) return { current, power, region: 'starved' };
        const { top, bottom } = limitsAt(x);
        const region =
          x[stage]! > top - IN_RAIL_V
            ? 'at its upper limit'
            : x[stage]! < bottom + IN_RAIL_V
              ? 'at its lower limit'
              : 'linear';
        return { current, power, region };
      },
      noise: () => [
        // EN stands in the gain stage's equation, AOL times itself.
        { from: 0, to: stage, white: (p.AOL * p.EN) ** 2, flicker: (p.AOL * p.EN) ** 2 * p.ENF },
        { from: 0, to: plus, white: p.IN ** 2, flicker: 0 },
        { from: 0, to: minus, white: p.IN ** 2, flicker: 0 },
        { from: 0, to: branch, white: 4 * BOLTZMANN * TEMPERATURE_K * p.ROUT, flicker: 0 },
        ...(input ? [{ from: plus, to: minus, white: thermalNoise(1 / p.RIN), flicker: 0 }] : []),
      ],
    };

    /** What the supply pins take. */
    function loadSupply(x: Float64Array, m: Evaluation): void {
      const current = x[branch]!;
      const quiescent = quiescentAt(x);
      const [given, taken] = [supplyShare(current, p.IQ), supplyShare(-current, p.IQ)];
      if (high !== undefined) add(m.f, high, quiescent + given);
      if (low !== undefined) add(m.f, low, -quiescent - taken);
      add(m.g, slots.highBranch, supplyShareSlope(current, p.IQ));
      add(m.g, slots.lowBranch, supplyShareSlope(-current, p.IQ));
      if (!starved || !isStarved(x) || quiescent === 0) return;
      const slope = p.IQ / p.minSupply;
      add(m.g, starved.highHigh, slope);
      add(m.g, starved.highLow, -slope);
      add(m.g, starved.lowHigh, -slope);
      add(m.g, starved.lowLow, slope);
    }

    /** Without its supply the gain stage rests at nothing, and no current leaves the output. */
    function loadStarved(x: Float64Array, m: Evaluation): void {
      if (!wasStarved && !isFresh) m.limited = true;
      wasStarved = true;
      isFresh = false;
      add(m.f, stage, x[stage]!);
      add(m.g, slots.stage, 1);
      // Takes the constant equation of the output away and says that its current is none.
      add(m.f, branch, x[branch]! - (x[out]! - x[stage]! + p.ROUT * x[branch]!));
      add(m.g, starved!.branchOut, -1);
      add(m.g, starved!.branchStage, 1);
      add(m.g, starved!.branch, 1 - p.ROUT);
    }
  },
};
