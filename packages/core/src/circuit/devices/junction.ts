import { ELEMENTARY_CHARGE, THERMAL_VOLTAGE } from './constants.ts';

/** Exponent above which the exponential is continued as a straight line, so that no step overflows. */
const LARGEST_EXPONENT = 80;

export interface CurrentSlope {
  current: number;
  slope: number;
}

/** Diode law IS (e^(v / N Vt) - 1) and its slope, into `out`. */
export function diodeLaw(volt: number, saturation: number, emission: number, out: CurrentSlope): void {
  const scale = emission * THERMAL_VOLTAGE;
  const exponent = volt / scale;
  if (exponent > LARGEST_EXPONENT) {
    const top = Math.exp(LARGEST_EXPONENT);
    out.current = saturation * (top * (1 + exponent - LARGEST_EXPONENT) - 1);
    out.slope = (saturation * top) / scale;
    return;
  }
  const e = Math.exp(exponent);
  out.current = saturation * (e - 1);
  out.slope = (saturation * e) / scale;
}

/** Below this voltage a junction's exponential is nothing against its saturation current. */
const BLOCKING_V = -0.1;

/** About what is built into a junction, V. */
const BUILT_IN_V = 0.7;

/**
 * Curvature of a junction over a step: of its exponential, half the step against N Vt; where it blocks throughout, of the charge of
 * its layer, which goes with the root of the voltage, a quarter of the step against the least voltage across it.
 */
export function junctionCurvature(before: number, after: number, emission: number): number {
  const step = Math.abs(after - before);
  if (before < BLOCKING_V && after < BLOCKING_V) return step / (4 * (BUILT_IN_V - Math.max(before, after)));
  return step / (2 * emission * THERMAL_VOLTAGE);
}

/**
 * Shot noise of one branch of a junction, A^2/Hz: the carriers that cross it forward and back each make 2q of their
 * current (van der Ziel 1970). At rest both are the saturation current, and their sum is 4kT over the slope resistance
 * N Vt / IS; driven forward it is 2qI.
 */
export const junctionNoise = (current: number, saturation: number, emission: number): number =>
  2 * ELEMENTARY_CHARGE * (Math.abs(current) + (2 * saturation) / emission);

/** Voltage above which a Newton step of a junction is damped: where the curve's radius of curvature is least. */
export function criticalVoltage(saturation: number, emission: number): number {
  const scale = emission * THERMAL_VOLTAGE;
  return scale * Math.log(scale / (Math.SQRT2 * saturation));
}

/**
 * Damps a junction's step: beyond the critical voltage the exponential is followed logarithmically, as textbooks on
 * Newton's method for exponentials give it. Returns the voltage to evaluate at.
 */
export function limitJunction(wanted: number, previous: number, emission: number, critical: number): number {
  const scale = emission * THERMAL_VOLTAGE;
  if (wanted <= critical || Math.abs(wanted - previous) <= 2 * scale) return wanted;
  if (previous > 0) {
    const growth = 1 + (wanted - previous) / scale;
    return growth > 0 ? previous + scale * Math.log(growth) : critical;
  }
  return scale * Math.log(Math.max(wanted / scale, 1 + 1e-9));
}

/**
 * Depletion charge and capacitance of a junction: CJ0 (1 - v/VJ)^-M, continued as a straight line of capacitance above
 * FC VJ (Sze, Physics of Semiconductor Devices, for the law).
 */
export function depletion(
  volt: number,
  cj0: number,
  vj: number,
  m: number,
  fc: number,
  out: Depletion,
): void {
  if (cj0 === 0) {
    out.charge = 0;
    out.capacitance = 0;
    return;
  }
  const edge = fc * vj;
  const base = 1 - Math.min(volt, edge) / vj;
  // The same as base to the power of -m, at two thirds of its time.
  const power = Math.exp(-m * Math.log(base));
  out.charge = ((cj0 * vj) / (1 - m)) * (1 - base * power);
  out.capacitance = cj0 * power;
  if (volt <= edge) return;
  const slope = (out.capacitance * m) / (vj * (1 - fc));
  const over = volt - edge;
  out.charge += out.capacitance * over + (slope * over * over) / 2;
  out.capacitance += slope * over;
}

export interface Depletion {
  charge: number;
  capacitance: number;
}
