import type { AllParamsOf, OwnModel } from '@zemble/contract';
import type { LayerPartOf } from '../circuit/index.ts';
import { modelParameters } from '../models/index.ts';
import { ELEMENTARY_CHARGE, JUNCTION_FLOOR_S, THERMAL_VOLTAGE, thermalNoise } from './constants.ts';
import { add, addPair, constantPair, pairSlots, type DeviceType } from './device.ts';
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

/** Parameters of a junction diode under their published names. */
export type DiodeParameters = AllParamsOf<'diode'>;
type DiodeKind = 'diode' | 'zener' | 'led';

const FORWARD_CAPACITANCE_EDGE = 0.5;

/** A junction's parameters; a zener's main value is its BV unless `params` say otherwise. */
export function diodeParameters(
  part: Pick<LayerPartOf<DiodeKind>, 'kind' | 'model' | 'params'>,
  value: number | null,
  models: readonly OwnModel[] = [],
): DiodeParameters {
  const found = modelParameters<DiodeKind>(part, models);
  return part.kind === 'zener' && value !== null && part.params?.BV === undefined
    ? { ...found, BV: value }
    : found;
}

/**
 * Junction diode: I = IS (e^(V / N Vt) - 1), below -BV the breakdown current -IBV e^(-(V + BV)/Vt); series resistance
 * RS; charge TT I plus depletion. A zener is a diode whose main value is BV.
 */
export const diode: DeviceType<DiodeKind> = {
  create(part, value, t) {
    let p = diodeParameters(part, value, t.models);
    const [anode, k] = [t.node('a'), t.node('k')];
    const a = p.RS > 0 ? t.unknown('anode') : anode;
    const series = p.RS > 0 ? constantPair(t, anode, a) : undefined;
    const pair = pairSlots(t, a, k);
    const critical = criticalVoltage(p.IS, p.N);
    const criticalBreakdown = criticalVoltage(p.IBV, 1);
    const at: CurrentSlope = { current: 0, slope: 0 };
    const layer: Depletion = { charge: 0, capacitance: 0 };
    const reverse: CurrentSlope = { current: 0, slope: 0 };
    let previous = 0;

    function law(volt: number): CurrentSlope {
      diodeLaw(volt, p.IS, p.N, at);
      at.current += volt * JUNCTION_FLOOR_S;
      at.slope += JUNCTION_FLOOR_S;
      if (Number.isFinite(p.BV)) {
        diodeLaw(-(volt + p.BV), p.IBV, 1, reverse);
        at.current -= reverse.current + p.IBV;
        at.slope += reverse.slope;
      }
      return at;
    }

    function limit(volt: number): number {
      if (volt > -p.BV) return limitJunction(volt, previous, p.N, critical);
      return -(limitJunction(-(volt + p.BV), -(previous + p.BV), 1, criticalBreakdown) + p.BV);
    }

    return {
      ref: part.ref,
      balanced: [a, k],
      stamp(m) {
        if (series) addPair(m.g, series, 1 / p.RS);
      },
      load(x, m) {
        const volt = x[a]! - x[k]!;
        const used = limit(volt);
        if (Math.abs(used - volt) > LIMIT_SLACK_V) m.limited = true;
        previous = used;
        const { current, slope } = law(used);
        const through = current + slope * (volt - used);
        add(m.f, a, through);
        add(m.f, k, -through);
        addPair(m.g, pair, slope);
        if (p.CJO === 0 && p.TT === 0) return;
        depletion(volt, p.CJO, p.VJ, p.M, FORWARD_CAPACITANCE_EDGE, layer);
        const charge = layer.charge + p.TT * through;
        add(m.q, a, charge);
        add(m.q, k, -charge);
        addPair(m.c, pair, layer.capacitance + p.TT * slope);
      },
      curvature(before, after) {
        const [from, to] = [before[a]! - before[k]!, after[a]! - after[k]!];
        const forward = junctionCurvature(from, to, p.N);
        return Number.isFinite(p.BV)
          ? Math.max(forward, junctionCurvature(-(from + p.BV), -(to + p.BV), 1))
          : forward;
      },
      reset() {
        previous = 0;
      },
      ...(part.kind === 'zener' && part.params?.BV === undefined
        ? { retune: (next: number) => void (p = { ...p, BV: next }) }
        : {}),
      report(x) {
        const { current } = law(x[a]! - x[k]!);
        const power = (x[anode]! - x[k]!) * current;
        return { current, power, region: regionOf(x[a]! - x[k]!, current) };
      },
      noise(x) {
        const volt = x[a]! - x[k]!;
        const flicker = p.KF * Math.abs(law(volt).current);
        diodeLaw(volt, p.IS, p.N, at);
        let white = junctionNoise(at.current, p.IS, p.N) + thermalNoise(JUNCTION_FLOOR_S);
        if (Number.isFinite(p.BV)) {
          diodeLaw(-(volt + p.BV), p.IBV, 1, reverse);
          // Far from breakdown this branch carries nothing either way.
          white += 2 * ELEMENTARY_CHARGE * (reverse.current + p.IBV);
        }
        return [
          { from: a, to: k, white, flicker },
          ...(series ? [{ from: anode, to: a, white: thermalNoise(1 / p.RS), flicker: 0 }] : []),
        ];
      },
    };

    function regionOf(volt: number, current: number): string {
      if (volt < -p.BV + 2 * THERMAL_VOLTAGE) return 'breakdown';
      return current > CONDUCTING_A ? 'conducting' : 'blocking';
    }
  },
};

/** Current above which a diode is said to conduct, A. */
const CONDUCTING_A = 1e-7;
/** A junction whose step was shortened by more than this has not settled, V. */
export const LIMIT_SLACK_V = 1e-9;
