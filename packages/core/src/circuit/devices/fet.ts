import type { AllParamsOf, OwnModel, PartKind } from '@zemble/contract';
import type { LayerPartOf } from '../circuit/index.ts';
import { isPType, modelParameters } from '../models/index.ts';
import { JUNCTION_FLOOR_S, thermalNoise } from './constants.ts';
import { controlledCurrent, CUT_OFF_A, type ControlledLaw } from './controlled.ts';
import {
  add,
  addPair,
  constantPair,
  pairSlots,
  type Device,
  type DeviceType,
  type Terminals,
} from './device.ts';
import { LIMIT_SLACK_V } from './diode.ts';
import { criticalVoltage, diodeLaw, junctionNoise, limitJunction, type CurrentSlope } from './junction.ts';

/** Junction FET after Shichman and Hodges 1968. VTO is negative whatever the polarity. */
export type JfetParameters = AllParamsOf<'jfet'>;
/** Enhancement MOSFET of level 1 (Shichman and Hodges 1968); W/L is in KP. */
export type MosfetParameters = AllParamsOf<'mosfet'>;

type Named<K extends PartKind> = Pick<LayerPartOf<K>, 'kind' | 'model' | 'params'>;

export const jfetParameters = (part: Named<'jfet'>, models: readonly OwnModel[] = []): JfetParameters =>
  modelParameters<'jfet'>(part, models);
export const mosfetParameters = (part: Named<'mosfet'>, models: readonly OwnModel[] = []): MosfetParameters =>
  modelParameters<'mosfet'>(part, models);

/**
 * The square law with the channel's two ends told apart by the sign of vds: `beta` (vgs - vto)^2 (1 + lambda vds) in
 * saturation, beta vds (2 (vgs - vto) - vds)(1 + lambda vds) below it.
 */
export function squareLaw(
  beta: number,
  vto: number,
  lambda: number,
  vgs: number,
  vds: number,
  out: ControlledLaw,
): void {
  if (vds < 0) {
    squareLaw(beta, vto, lambda, vgs - vds, -vds, out);
    const { gm, gds } = out;
    out.current = -out.current;
    out.gm = -gm;
    out.gds = gm + gds;
    return;
  }
  const over = vgs - vto;
  if (over <= 0) {
    out.current = 0;
    out.gm = 0;
    out.gds = 0;
    return;
  }
  const early = 1 + lambda * vds;
  if (vds >= over) {
    out.current = beta * over * over * early;
    out.gm = 2 * beta * over * early;
    out.gds = beta * over * over * lambda;
    return;
  }
  const channel = vds * (2 * over - vds);
  out.current = beta * channel * early;
  out.gm = 2 * beta * vds * early;
  out.gds = beta * (2 * (over - vds) * early + channel * lambda);
}

const STEP_V = 1;
/** Thermal noise of a saturated channel is that of 2/3 gm (van der Ziel 1962). */
const CHANNEL_NOISE = 2 / 3;

interface Channel {
  readonly beta: number;
  readonly vto: number;
  readonly lambda: number;
  readonly cgs: number;
  readonly cgd: number;
  readonly kf: number;
}

function channel(part: LayerPartOf<'jfet'> | LayerPartOf<'mosfet'>, p: Channel, t: Terminals): Device {
  const [drain, gate, source] = [t.node('d'), t.node('g'), t.node('s')];
  const floor = constantPair(t, drain, source);
  const gateSource = constantPair(t, gate, source);
  const gateDrain = constantPair(t, gate, drain);
  const device = controlledCurrent(
    {
      ref: part.ref,
      sign: isPType(part, t.models) ? -1 : 1,
      drain,
      gate,
      source,
      largestStepV: STEP_V,
      law: (vgs, vds, out) => squareLaw(p.beta, p.vto, p.lambda, vgs, vds, out),
      regionOf: (vgs, vds, current) =>
        Math.abs(current) < CUT_OFF_A ? 'cut off' : Math.abs(vds) >= vgs - p.vto ? 'active' : 'ohmic',
      noise: (at) => [
        {
          from: drain,
          to: source,
          white: thermalNoise(CHANNEL_NOISE * Math.abs(at.gm) + Math.abs(at.gds) + JUNCTION_FLOOR_S),
          flicker: p.kf * Math.abs(at.current),
        },
      ],
    },
    t,
  );
  return {
    ...device,
    stamp(m) {
      addPair(m.g, floor, JUNCTION_FLOOR_S);
      if (p.cgs > 0) addPair(m.c, gateSource, p.cgs);
      if (p.cgd > 0) addPair(m.c, gateDrain, p.cgd);
    },
  };
}

/** Junction FET: the square law and its two gate junctions. */
export const jfet: DeviceType<'jfet'> = {
  create(part, _value, t) {
    const p = jfetParameters(part, t.models);
    const base = channel(
      part,
      { beta: p.BETA, vto: p.VTO, lambda: p.LAMBDA, cgs: p.CGS, cgd: p.CGD, kf: p.KF },
      t,
    );
    const sign = isPType(part, t.models) ? -1 : 1;
    const [gate, ends] = [t.node('g'), [t.node('s'), t.node('d')] as const];
    const pairs = ends.map((end) => pairSlots(t, gate, end));
    const critical = criticalVoltage(p.IS, 1);
    const at: CurrentSlope = { current: 0, slope: 0 };
    const previous = [0, 0];
    return {
      ...base,
      load(x, m) {
        base.load!(x, m);
        ends.forEach((end, i) => {
          const volt = sign * (x[gate]! - x[end]!);
          const used = limitJunction(volt, previous[i]!, 1, critical);
          if (Math.abs(used - volt) > LIMIT_SLACK_V) m.limited = true;
          previous[i] = used;
          diodeLaw(used, p.IS, 1, at);
          const slope = at.slope + JUNCTION_FLOOR_S;
          const current = sign * (at.current + used * JUNCTION_FLOOR_S + slope * (volt - used));
          add(m.f, gate, current);
          add(m.f, end, -current);
          addPair(m.g, pairs[i]!, slope);
        });
      },
      reset() {
        base.reset?.();
        previous.fill(0);
      },
      noise: (x) => [
        ...(base.noise?.(x) ?? []),
        ...ends.map((end) => {
          diodeLaw(sign * (x[gate]! - x[end]!), p.IS, 1, at);
          const white = junctionNoise(at.current, p.IS, 1) + thermalNoise(JUNCTION_FLOOR_S);
          return { from: gate, to: end, white, flicker: 0 };
        }),
      ],
    };
  },
};

/** MOSFET: the square law with half of KP; its gate draws nothing. */
export const mosfet: DeviceType<'mosfet'> = {
  create(part, _value, t) {
    const p = mosfetParameters(part, t.models);
    return channel(
      part,
      { beta: p.KP / 2, vto: p.VTO, lambda: p.LAMBDA, cgs: p.CGS, cgd: p.CGD, kf: p.KF },
      t,
    );
  },
};
