import type { LayerValue, MeasuredParams, Part } from '../../circuit/circuit/index.ts';
import { leakageV } from './aspects.ts';
import { judgeReading, type JudgedReading } from './verdict.ts';

/** Kinds of which what a meter reads beside the value shows that nothing flows at all: they are open. */
const OPEN_BY: Partial<Record<Part['kind'], string>> = {
  jumper: 'contact',
  fuse: 'contact',
  inductor: 'winding',
};

/**
 * The found value of a part from its readings, oldest first: the latest one that can be trusted. Null when there is
 * none; a reading that the rest of the circuit may have made up is kept, but does not count. Of what is read beside the
 * main value only that counts which leaves none: a fuse, jumper or winding that does not conduct, a capacitor that does.
 */
export function foundValue(part: Part, readings: readonly JudgedReading[]): LayerValue {
  for (let i = readings.length - 1; i >= 0; i -= 1) {
    const reading = readings[i]!;
    if (reading.aspect) {
      const { aspect, value } = reading;
      if (aspect === OPEN_BY[part.kind]) return value === 'open' ? 'open' : null;
      if (aspect === 'leakage' && value === 'short') return 'short';
      continue;
    }
    if (judgeReading(part, reading).isTrusted) return reading.value;
  }
  return null;
}

/**
 * What was measured of a part beside its main value, by the field or parameter it is of: series resistance and leakage of
 * a capacitor, gain of a transistor, resistance of a contact or winding; of each the latest. Empty when there is nothing.
 */
export function foundParams(part: Part, readings: readonly JudgedReading[]): MeasuredParams {
  return Object.assign({}, ...readings.map((r) => parametersOf(part, r))) as MeasuredParams;
}

function parametersOf(part: Part, reading: JudgedReading): MeasuredParams {
  const { aspect, esr } = reading;
  if (!aspect) return part.kind === 'capacitor' && esr ? { esr } : {};
  const value = reading.value === 'short' ? 0 : reading.value;
  if (value === 'open' || !(value >= 0)) return {};
  switch (aspect) {
    case 'esr':
      return { esr: value };
    case 'leakage':
      return value > 0 ? { leakage: leakageV(part) / value } : {};
    case 'gain':
      return part.kind === 'bjt' && value > 0 && reading.condition !== 'in circuit' ? { BF: value } : {};
    case 'contact':
      return value > 0 ? { contactOhm: value } : {};
    case 'winding':
      return part.kind === 'inductor' ? { dcr: value } : {};
    case 'p1-p2':
      return part.kind === 'transformer' ? { rp: value } : {};
    case 's1-s2':
      return part.kind === 'transformer' ? { rs: value } : {};
    default:
      return {};
  }
}
