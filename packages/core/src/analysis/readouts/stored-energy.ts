import type { ReadoutOf } from '@zemble/contract';
import type { AnalysisSession } from '../analysis/index.ts';
import { formatQuantity } from '../../base/quantity/index.ts';
import { needed, undefinedBecause, type ReadoutType } from './readout-type.ts';

/** Steps of Simpson's rule between the two voltages; even. */
const STEPS = 32;
const SECONDS_AN_HOUR = 3600;

/**
 * How long a capacitor or battery in place of a supply runs the unit between two voltages, s: the integral of C dV / I(V)
 * with I the supply's current at the operating point with V, or a charge over the mean of I. `loadA` takes the place of
 * the unit's own current.
 */
export const runTime: ReadoutType<'runTime'> = {
  describe: (r) => `run time from ${formatQuantity(r.fromV ?? 0, 'V')} to ${formatQuantity(r.toV ?? 0, 'V')}`,
  compute(session, r) {
    const [fromV, toV] = [needed(r, 'fromV', r.fromV), needed(r, 'toV', r.toV)];
    if (!(fromV > toV)) throw undefinedBecause(r, '"fromV" must be above "toV"');
    if (r.capacitanceF !== undefined && r.chargeAh !== undefined)
      throw undefinedBecause(r, 'give "capacitanceF" or "chargeAh", not both');
    const { capacitanceF } = r;
    if (capacitanceF !== undefined)
      return simpson(toV, fromV, (v) => capacitanceF / currentAt(session, r, v));
    const charge = needed(r, 'capacitanceF" or "chargeAh', r.chargeAh) * SECONDS_AN_HOUR;
    return charge / (simpson(toV, fromV, (v) => currentAt(session, r, v)) / (fromV - toV));
  },
};

/** What the unit takes with its supply at a voltage, A. */
function currentAt(session: AnalysisSession, r: ReadoutOf<'runTime'>, volt: number): number {
  if (r.loadA !== undefined) return r.loadA;
  const ref = needed(r, 'part', r.part);
  const supply = session.circuit.parts.find((p) => p.ref === ref);
  if (supply?.kind !== 'supply') throw undefinedBecause(r, `${ref} is not a supply`);
  const sign = typeof supply.value === 'number' && supply.value < 0 ? -1 : 1;
  const at = session.with({ values: new Map([[ref, sign * volt]]) });
  const x = at.operatingPoint();
  const current = -sign * at.system.device(ref).report(x).current;
  if (!(current > 0)) throw undefinedBecause(r, `${ref} gives no current at ${formatQuantity(volt, 'V')}`);
  return current;
}

function simpson(low: number, high: number, of: (x: number) => number): number {
  const h = (high - low) / STEPS;
  let sum = of(low) + of(high);
  for (let i = 1; i < STEPS; i += 1) sum += (i % 2 === 0 ? 2 : 4) * of(low + i * h);
  return (sum * h) / 3;
}

/** Kelvin that double or halve an electrolytic's life (the ten degree rule, after Arrhenius; common practice). */
const KELVIN_A_DOUBLING = 10;

/** Life of an electrolytic at a temperature, h. */
export const lifetime: ReadoutType<'lifetime'> = {
  describe: (r) => `life of ${r.part} at ${r.atC} °C`,
  compute(session, r) {
    const ref = needed(r, 'part', r.part);
    if (!session.circuit.parts.some((p) => p.ref === ref && p.kind === 'capacitor'))
      throw undefinedBecause(r, `${ref} is not a capacitor`);
    const above = needed(r, 'ratedC', r.ratedC) - needed(r, 'atC', r.atC);
    return needed(r, 'ratedHours', r.ratedHours) * 2 ** (above / KELVIN_A_DOUBLING);
  },
};
