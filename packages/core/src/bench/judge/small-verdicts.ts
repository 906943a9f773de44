import { formatQuantity } from '../../base/quantity/index.ts';

/** A judgement that needs no circuit. */
export interface SmallVerdict {
  readonly kind: 'in' | 'edge' | 'out';
  readonly sentence: string;
}

/**
 * Typical loss of aluminium electrolytics at 120 Hz by rated voltage (usual data sheets; the limits of IEC 60384-4 stand
 * above them), tan delta.
 */
const LOSS: readonly (readonly [volt: number, tanDelta: number])[] = [
  [6.3, 0.24],
  [10, 0.2],
  [16, 0.16],
  [25, 0.14],
  [35, 0.12],
  [50, 0.1],
  [Number.POSITIVE_INFINITY, 0.09],
];
const LOSS_HZ = 120;
/** An ESR meter reads at high frequency, where about this part of the resistance at 120 Hz is left (common practice). */
const AT_HIGH_FREQUENCY = 0.5;
/** Above this many times the typical an electrolytic is bad, above half of that it is on its way (common practice). */
const BAD = 3;

/** Typical tan delta of an aluminium electrolytic at 120 Hz, of a rated voltage, V; 25 V where it is not known. */
export const electrolyticLoss = (volt: number | undefined): number =>
  LOSS.find(([rated]) => (volt ?? 25) <= rated)![1];

/** Judges an electrolytic's ESR, ohm, against what is typical for its capacity, F, and rated voltage, V. */
export function judgeEsr(farad: number, volt: number | undefined, esr: number): SmallVerdict {
  const typical = (AT_HIGH_FREQUENCY * electrolyticLoss(volt)) / (2 * Math.PI * LOSS_HZ * farad);
  const ratio = esr / typical;
  const text = `ESR ${formatQuantity(esr, 'ohm', { digits: 2 })}, typical ${formatQuantity(typical, 'ohm', { digits: 2 })}`;
  if (ratio > BAD) return { kind: 'out', sentence: `${text}: ${ratio.toFixed(1)} times, bad` };
  if (ratio > BAD / 2) return { kind: 'edge', sentence: `${text}: ${ratio.toFixed(1)} times, on its way` };
  return { kind: 'in', sentence: `${text}: good` };
}

const OFFSET_GOOD_V = 0.01;
const OFFSET_LIMIT_V = 0.05;

/** Judges the direct voltage at speaker terminals before a speaker is connected: below 50 mV acceptable (common practice). */
export function judgeOffset(volt: number): SmallVerdict {
  const size = Math.abs(volt);
  const text = formatQuantity(volt, 'V', { digits: 3 });
  if (size > OFFSET_LIMIT_V)
    return { kind: 'out', sentence: `${text} offset: connect no speaker, it is above 50 mV` };
  if (size > OFFSET_GOOD_V) return { kind: 'edge', sentence: `${text} offset: acceptable, below 50 mV` };
  return { kind: 'in', sentence: `${text} offset: good` };
}

/** A voice coil's direct resistance is this part of the nominal impedance (IEC 60268-5: at least 0.8 of it at the minimum). */
const COIL_LOW = 0.65;
const COIL_HIGH = 0.95;

/** Judges a loudspeaker's direct resistance against its nominal impedance, ohm. */
export function judgeVoiceCoil(nominal: number, ohm: number): SmallVerdict {
  const text = `${formatQuantity(ohm, 'ohm', { digits: 2 })} for a nominal ${formatQuantity(nominal, 'ohm')}`;
  if (ohm > 3 * nominal) return { kind: 'out', sentence: `${text}: the coil is open` };
  if (ohm < 0.4 * nominal) return { kind: 'out', sentence: `${text}: turns are shorted` };
  if (ohm < COIL_LOW * nominal || ohm > COIL_HIGH * nominal)
    return {
      kind: 'edge',
      sentence: `${text}: unusual, about ${formatQuantity(0.8 * nominal, 'ohm', { digits: 2 })} is expected`,
    };
  return { kind: 'in', sentence: `${text}: good` };
}
