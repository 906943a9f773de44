import type { LayerValue, Part } from '../circuit/index.ts';
import { judgeReading, type JudgedReading } from './verdict.ts';

/**
 * The found value of a part from its readings, oldest first: the latest one that can be trusted. Null when there is
 * none; a reading that the rest of the circuit may have made up is kept, but does not count.
 */
export function foundValue(part: Part, readings: readonly JudgedReading[]): LayerValue {
  for (let i = readings.length - 1; i >= 0; i -= 1) {
    if (judgeReading(part, readings[i]!).isTrusted) return readings[i]!.value;
  }
  return null;
}
