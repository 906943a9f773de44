import type { LayerValue, Part } from '../circuit/index.ts';
import { judgeReading, type JudgedReading } from './verdict.ts';

/**
 * The found value of a part from its readings, oldest first: the latest one that can be trusted. Null when there is
 * none; a reading that the rest of the circuit may have made up is kept, but does not count. Of what is read beside the
 * main value only a fuse or a jumper that does not conduct counts: it is open.
 */
export function foundValue(part: Part, readings: readonly JudgedReading[]): LayerValue {
  for (let i = readings.length - 1; i >= 0; i -= 1) {
    const reading = readings[i]!;
    if (reading.aspect) {
      if (reading.aspect === 'contact' && part.kind !== 'switch')
        return reading.value === 'open' ? 'open' : null;
      continue;
    }
    if (judgeReading(part, reading).isTrusted) return reading.value;
  }
  return null;
}
