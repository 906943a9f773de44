import { type Part } from '../circuit/index.ts';
import { modelParameters } from '../models/index.ts';
import { BOLTZMANN, TEMPERATURE_K, thermalNoise } from './constants.ts';
import { add, addPair, constantPair, type DeviceType } from './device.ts';

/** Parameters of an operational amplifier; see DEFINITIONS in docs/physics.md. */
export interface OpampParameters {
  /** Open-loop gain at DC. */
  readonly AOL: number;
  /** Gain-bandwidth product, Hz. */
  readonly GBW: number;
  /** Between the inputs, ohm. */
  readonly RIN: number;
  readonly ROUT: number;
  readonly VOS: number;
  /** Flows into both inputs, A. */
  readonly IB: number;
  /** V/sqrt(Hz), with its 1/f corner ENF in Hz. */
  readonly EN: number;
  readonly ENF: number;
  /** A/sqrt(Hz), at each input. */
  readonly IN: number;
  /** V from the rail that the output cannot reach. */
  readonly headroomHigh: number;
  readonly headroomLow: number;
  /** Slew rate, V/s. */
  readonly SR: number;
}

const PLAIN: OpampParameters = {
  AOL: 1e5,
  GBW: 1e6,
  RIN: Number.POSITIVE_INFINITY,
  ROUT: 0,
  VOS: 0,
  IB: 0,
  EN: 0,
  ENF: 0,
  IN: 0,
  headroomHigh: 0,
  headroomLow: 0,
  SR: Number.POSITIVE_INFINITY,
};

export const opampParameters = (part: Part): OpampParameters => modelParameters(part, PLAIN);

/** Beyond its limit the stage is held back by this many times its own slope: under a microvolt a volt of overdrive. */
const CLAMP_STIFFNESS = 1e12;
/** Distance from a limit at which the output counts as standing in its rail, V. */
const IN_RAIL_V = 1e-3;

/**
 * Operational amplifier with a single pole: the voltage p of its gain stage obeys
 *
 *     p + tau dp/dt = AOL (plus - minus + VOS),   tau = AOL / (2 pi GBW),
 *
 * its drive limited to the slew rate (tau SR) and p itself to what the supply leaves. The output is p behind ROUT.
 */
export const opamp: DeviceType = {
  create(part, _value, t) {
    const p = opampParameters(part);
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
      outBranch: t.constantSlot(out, branch),
      branchOut: t.constantSlot(branch, out),
      branchStage: t.constantSlot(branch, stage),
      branch: t.constantSlot(branch, branch),
    };
    const input = Number.isFinite(p.RIN) ? constantPair(t, plus, minus) : undefined;
    let previous = 0;
    let isFresh = true;

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
      curvature: (before, after) => (segmentAt(before) === segmentAt(after) ? 0 : Number.POSITIVE_INFINITY),
      reset() {
        previous = 0;
        isFresh = true;
      },
      report(x) {
        const current = x[branch]!;
        const { top, bottom } = limitsAt(x);
        const region =
          x[stage]! > top - IN_RAIL_V
            ? 'at its upper limit'
            : x[stage]! < bottom + IN_RAIL_V
              ? 'at its lower limit'
              : 'linear';
        const rail = current >= 0 ? high : low;
        const dropped = rail === undefined ? 0 : (x[rail]! - x[out]!) * current;
        return { current, power: dropped, region };
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
  },
};
