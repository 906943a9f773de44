import type { Part } from '../circuit/index.ts';
import { modelParameters } from '../models/index.ts';
import { add, addPair, pairSlots, type DeviceType } from './device.ts';

/** A 555-type timer by its published equations. */
export interface TimerParameters {
  /** Each of the three divider resistors, ohm. */
  readonly RDIV: number;
  /** Output high below vcc, and output low, V. */
  readonly VHIGH: number;
  readonly VLOW: number;
  /** Output and discharge resistance, ohm. */
  readonly ROUT: number;
  readonly RDIS: number;
  /** Reset acts below this voltage, V. */
  readonly VRESET: number;
}
const PLAIN: TimerParameters = { RDIV: 5000, VHIGH: 1.2, VLOW: 0.1, ROUT: 10, RDIS: 10, VRESET: 0.7 };
const OPEN_SWITCH_S = 1e-12;

export const timerParameters = (part: Part): TimerParameters => modelParameters(part, PLAIN);

/**
 * The timer: a divider of three equal resistors sets `ctrl` to 2/3 and the trigger to half of `ctrl`; a latch is set
 * when `trig` falls below it, reset when `thr` rises above `ctrl` or `reset` is low; the output stands VHIGH below vcc
 * or at VLOW, the discharge pin is a switch. The latch changes only between time steps (`settle`).
 */
export const timer555: DeviceType = {
  create(part, _value, t) {
    const p = timerParameters(part);
    const pins = ['gnd', 'trig', 'out', 'reset', 'ctrl', 'thr', 'dis', 'vcc'] as const;
    const [gnd, trig, out, reset, ctrl, thr, dis, vcc] = pins.map((pin) => t.node(pin)) as [
      number,
      number,
      number,
      number,
      number,
      number,
      number,
      number,
    ];
    const divider = [pairSlots(t, vcc, ctrl), pairSlots(t, ctrl, gnd)] as const;
    const output = {
      oo: t.slot(out, out),
      ov: t.slot(out, vcc),
      og: t.slot(out, gnd),
      vo: t.slot(vcc, out),
      vv: t.slot(vcc, vcc),
      go: t.slot(gnd, out),
      gg: t.slot(gnd, gnd),
    };
    const discharge = pairSlots(t, dis, gnd);
    let isSet = false;
    let isStaticKnown = false;

    const wants = (x: Float64Array): boolean => {
      const upper = x[ctrl]! - x[gnd]!;
      if (x[reset]! - x[gnd]! < p.VRESET) return false;
      if (x[trig]! - x[gnd]! <= upper / 2) return true;
      return x[thr]! - x[gnd]! >= upper ? false : isSet;
    };

    return {
      ref: part.ref,
      stamp(m) {
        addPair(m.g, divider[0], 1 / p.RDIV);
        addPair(m.g, divider[1], 1 / (2 * p.RDIV));
      },
      load(x, m) {
        if (m.isStatic && !isStaticKnown) isSet = wants(x);
        const admittance = 1 / p.ROUT;
        // The output's current comes from vcc when high and goes to ground when low.
        const rail = isSet ? vcc : gnd;
        const level = isSet ? x[vcc]! - p.VHIGH : x[gnd]! + p.VLOW;
        const current = (x[out]! - level) * admittance;
        add(m.f, out, current);
        add(m.f, rail, -current);
        add(m.g, output.oo, admittance);
        add(m.g, isSet ? output.ov : output.og, -admittance);
        add(m.g, isSet ? output.vo : output.go, -admittance);
        add(m.g, isSet ? output.vv : output.gg, admittance);
        const switchS = isSet ? OPEN_SWITCH_S : 1 / p.RDIS;
        const drawn = (x[dis]! - x[gnd]!) * switchS;
        add(m.f, dis, drawn);
        add(m.f, gnd, -drawn);
        addPair(m.g, discharge, switchS);
      },
      settle(x) {
        const next = wants(x);
        const hasChanged = next !== isSet;
        isSet = next;
        return hasChanged;
      },
      crossings: (x) => [x[trig]! - x[gnd]! - (x[ctrl]! - x[gnd]!) / 2, x[thr]! - x[ctrl]!],
      beginTime(isFromZero) {
        isStaticKnown = !isFromZero;
        if (isFromZero) isSet = false;
      },
      reset() {
        if (!isStaticKnown) isSet = false;
      },
      report(x) {
        const level = isSet ? x[vcc]! - p.VHIGH : x[gnd]! + p.VLOW;
        return {
          current: (level - x[out]!) / p.ROUT,
          power: (x[vcc]! - x[gnd]!) ** 2 / (3 * p.RDIV),
          region: isSet ? 'output high' : 'output low',
        };
      },
    };
  },
};
