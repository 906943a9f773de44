import { modelParameters } from '../models/index.ts';
import { thermalNoise } from './constants.ts';
import { add, addPair, constantPair, pairSlots, type DeviceType } from './device.ts';

/** The discharge pin's insulation, S. */
const OPEN_SWITCH_S = 1e-12;

/**
 * The timer: a divider of three equal resistors sets `ctrl` to 2/3 and the trigger to half of `ctrl`; a latch is set
 * when `trig` falls below it, reset when `thr` rises above `ctrl` or `reset` is low; the output stands VHIGH below vcc
 * or at VLOW, the discharge pin is a switch. The latch changes only between time steps (`settle`).
 */
export const timer555: DeviceType<'timer555'> = {
  create(part, _value, t) {
    const p = modelParameters<'timer555'>(part, t.models);
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
    const divider = [constantPair(t, vcc, ctrl), constantPair(t, ctrl, gnd)] as const;
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
    let isHeld = false;

    const wants = (x: Float64Array): boolean => {
      const upper = x[ctrl]! - x[gnd]!;
      if (x[reset]! - x[gnd]! < p.VRESET) return false;
      if (x[trig]! - x[gnd]! <= upper / 2) return true;
      return x[thr]! - x[gnd]! >= upper ? false : isSet;
    };

    return {
      ref: part.ref,
      balanced: [gnd, out, dis, vcc],
      stamp(m) {
        addPair(m.g, divider[0], 1 / p.RDIV);
        addPair(m.g, divider[1], 1 / (2 * p.RDIV));
      },
      load(x, m) {
        if (m.isStatic && !isStaticKnown && !isHeld) isSet = wants(x);
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
      hold(held) {
        isHeld = held;
        if (held) isSet = false;
      },
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
      noise: () => [
        { from: vcc, to: ctrl, white: thermalNoise(1 / p.RDIV), flicker: 0 },
        { from: ctrl, to: gnd, white: thermalNoise(1 / (2 * p.RDIV)), flicker: 0 },
        { from: out, to: isSet ? vcc : gnd, white: thermalNoise(1 / p.ROUT), flicker: 0 },
        { from: dis, to: gnd, white: thermalNoise(isSet ? OPEN_SWITCH_S : 1 / p.RDIS), flicker: 0 },
      ],
    };
  },
};
