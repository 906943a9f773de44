import { add, type Device, type Evaluation, type NoiseSource, type Terminals } from './device.ts';

/**
 * A current from `drain` to `source` that two voltages against `source` control: the common shape of field-effect
 * transistors and valves. `law` gives current and derivatives of the n type at (vgs, vds) and its leakages; it may swap
 * the ends itself where the device is symmetrical.
 */
export interface ControlledLaw {
  current: number;
  /** d current / d vgs. */
  gm: number;
  /** d current / d vds. */
  gds: number;
}

export interface ControlledOptions {
  readonly ref: string;
  /** +1 for n types and valves, -1 for p types. */
  readonly sign: 1 | -1;
  readonly drain: number;
  readonly gate: number;
  readonly source: number;
  readonly law: (vgs: number, vds: number, out: ControlledLaw) => void;
  /** Largest change of a control voltage accepted in one Newton step, V. */
  readonly largestStepV: number;
  readonly regionOf: (vgs: number, vds: number, current: number) => string;
  readonly noise?: (at: ControlledLaw) => readonly NoiseSource[];
}

export function controlledCurrent(options: ControlledOptions, t: Terminals): Device {
  const { ref, sign, drain, gate, source, law, largestStepV } = options;
  const slots = {
    dg: t.slot(drain, gate),
    dd: t.slot(drain, drain),
    ds: t.slot(drain, source),
    sg: t.slot(source, gate),
    sd: t.slot(source, drain),
    ss: t.slot(source, source),
  };
  const at: ControlledLaw = { current: 0, gm: 0, gds: 0 };
  let previousGate = 0;
  let previousDrain = 0;
  let isFresh = true;
  const limited = (wanted: number, previous: number, step: number) =>
    isFresh ? wanted : Math.min(previous + step, Math.max(previous - step, wanted));

  return {
    ref,
    balanced: [drain, gate, source],
    load(x: Float64Array, m: Evaluation) {
      const vgs = sign * (x[gate]! - x[source]!);
      const vds = sign * (x[drain]! - x[source]!);
      const usedGate = limited(vgs, previousGate, largestStepV);
      const usedDrain = limited(vds, previousDrain, largestStepV * DRAIN_STEPS);
      if (usedGate !== vgs || usedDrain !== vds) m.limited = true;
      previousGate = usedGate;
      previousDrain = usedDrain;
      isFresh = false;
      law(usedGate, usedDrain, at);
      const current = sign * (at.current + at.gm * (vgs - usedGate) + at.gds * (vds - usedDrain));
      add(m.f, drain, current);
      add(m.f, source, -current);
      add(m.g, slots.dg, at.gm);
      add(m.g, slots.dd, at.gds);
      add(m.g, slots.ds, -at.gm - at.gds);
      add(m.g, slots.sg, -at.gm);
      add(m.g, slots.sd, -at.gds);
      add(m.g, slots.ss, at.gm + at.gds);
    },
    reset() {
      previousGate = 0;
      previousDrain = 0;
      isFresh = true;
    },
    report(x) {
      const vgs = sign * (x[gate]! - x[source]!);
      const vds = sign * (x[drain]! - x[source]!);
      law(vgs, vds, at);
      return {
        current: sign * at.current,
        power: at.current * vds,
        region: options.regionOf(vgs, vds, at.current),
      };
    },
    ...(options.noise
      ? {
          noise(x: Float64Array) {
            law(sign * (x[gate]! - x[source]!), sign * (x[drain]! - x[source]!), at);
            return options.noise!(at);
          },
        }
      : {}),
  };
}

/** The output voltage may move this many times further in a step than the control voltage. */
const DRAIN_STEPS = 20;
/** Current below which an active device is said to be cut off, A. */
export const CUT_OFF_A = 1e-9;
