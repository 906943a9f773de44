import { modelParameters, regulatorType } from '../models/index.ts';
import { add, type DeviceType } from './device.ts';

const USUAL_DROPOUT_V = 2;
const USUAL_LIMIT_A = 1.5;
/** Beyond its limit the output falls by this many volt an ampere: to nothing within a few microampere. */
const LIMIT_OHM = 1e6;
/** Its own consumption sets in over the first volt at its input, V. */
const AWAKE_V = 1;

/**
 * Voltage regulator: the output stands at its nominal voltage above `gnd`, or at the input less the dropout where that
 * is lower, until it gives its limit; what flows out and IQ flow in. A negative nominal voltage is a negative regulator:
 * the same with all signs turned.
 */
export const regulator: DeviceType<'regulator'> = {
  create(part, value, t) {
    const type = regulatorType(part.model);
    const { dropout = type?.dropout ?? USUAL_DROPOUT_V, limit = type?.limit ?? USUAL_LIMIT_A } = part;
    const { IQ } = modelParameters<'regulator'>(part, t.models);
    const [input, out, gnd, branch] = [
      t.node('in'),
      t.node('out'),
      t.node('gnd'),
      t.unknown('output current'),
    ];
    const slots = {
      inputBranch: t.constantSlot(input, branch),
      outBranch: t.constantSlot(out, branch),
      branchOut: t.constantSlot(branch, out),
      branchInput: t.slot(branch, input),
      branchGnd: t.slot(branch, gnd),
      self: t.slot(branch, branch),
      inputInput: t.slot(input, input),
      inputGnd: t.slot(input, gnd),
      gndInput: t.slot(gnd, input),
      gndGnd: t.slot(gnd, gnd),
    };
    let volt = value ?? 0;

    /** The straight segment of its law at a solution, in the positive regulator's signs. */
    const at = (x: Float64Array) => {
      const sign = volt < 0 ? -1 : 1;
      const inputV = sign * (x[input]! - x[gnd]!);
      const free = inputV - dropout;
      const isDropping = free < Math.abs(volt);
      const isOff = free < 0;
      const excess = sign * x[branch]! - limit;
      return {
        sign,
        inputV,
        target: isOff ? 0 : isDropping ? free : Math.abs(volt),
        targetSlope: isDropping && !isOff ? 1 : 0,
        isDropping,
        isOff,
        excess,
        isLimiting: excess > 0,
        awake: Math.min(1, Math.max(0, inputV / AWAKE_V)),
      };
    };
    const segment = (x: Float64Array) => {
      const { isOff, isDropping, isLimiting, inputV } = at(x);
      return `${isOff} ${isDropping} ${isLimiting} ${inputV < AWAKE_V}`;
    };

    return {
      ref: part.ref,
      stamp(m) {
        add(m.g, slots.inputBranch, 1);
        add(m.g, slots.outBranch, -1);
        add(m.g, slots.branchOut, 1);
      },
      load(x, m) {
        const { sign, inputV, target, targetSlope, excess, isLimiting, awake } = at(x);
        const drop = isLimiting ? LIMIT_OHM * excess : 0;
        add(m.f, branch, -x[gnd]! - sign * (target - drop));
        add(m.g, slots.branchGnd, -1 + targetSlope);
        add(m.g, slots.branchInput, -targetSlope);
        if (isLimiting) add(m.g, slots.self, LIMIT_OHM);
        const drawn = sign * IQ * awake;
        add(m.f, input, drawn);
        add(m.f, gnd, -drawn);
        if (inputV <= 0 || inputV >= AWAKE_V) return;
        const slope = IQ / AWAKE_V;
        add(m.g, slots.inputInput, slope);
        add(m.g, slots.inputGnd, -slope);
        add(m.g, slots.gndInput, -slope);
        add(m.g, slots.gndGnd, slope);
      },
      curvature: (before, after) => (segment(before) === segment(after) ? 0 : Number.POSITIVE_INFINITY),
      retune(next) {
        volt = next;
      },
      report(x) {
        const { sign, isDropping, isOff, isLimiting, awake } = at(x);
        const current = x[branch]! + sign * IQ * awake;
        const power = (x[input]! - x[gnd]!) * current - (x[out]! - x[gnd]!) * x[branch]!;
        const region = isLimiting ? 'limiting' : isOff ? 'off' : isDropping ? 'dropping out' : 'regulating';
        return { current, power, region };
      },
    };
  },
};
