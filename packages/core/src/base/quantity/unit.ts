import type { QuantityKind } from '@zemble/contract';

export { QUANTITY_KINDS, UNITS, type QuantityKind, type Unit } from '@zemble/contract';

export const OHM_SIGN = '\u03a9';

const SIGNS: Readonly<Record<string, string>> = { ohm: OHM_SIGN, ratio: '', degC: '°C' };

/** What a screen prints for a unit. */
export const unitSign = (unit: string): string => SIGNS[unit] ?? unit;

const SPELLINGS: readonly (readonly [RegExp, QuantityKind])[] = [
  [/^(?:\u03a9|\u2126|ohms?|r)$/i, 'resistor'],
  [/^(?:f|farads?)$/i, 'capacitor'],
  [/^(?:h|henrys?|henries)$/i, 'inductor'],
  [/^(?:v|volts?)$/i, 'voltage'],
  [/^(?:a|amps?|amperes?)$/i, 'current'],
  [/^(?:w|watts?)$/i, 'power'],
  [/^(?:hz|hertz)$/i, 'frequency'],
  [/^(?:s|sec|seconds?)$/i, 'time'],
  [/^db$/i, 'level'],
  [/^(?:°\s?c|deg\s?c|celsius)$/i, 'temperature'],
  [/^ah$/i, 'charge'],
  [/^(?:k\/w|°\s?c\/w)$/i, 'thermalResistance'],
  [/^(?:hours?|hrs?)$/i, 'hours'],
  [/^octaves?$/i, 'octaves'],
];

/** The kind that a unit as typed belongs to, or undefined; "h" is of hours where those are wanted. */
export function kindOfUnit(text: string, wanted?: QuantityKind): QuantityKind | undefined {
  if (wanted === 'hours' && text === 'h') return 'hours';
  if (wanted === 'temperature' && /^c$/i.test(text)) return 'temperature';
  return SPELLINGS.find(([pattern]) => pattern.test(text))?.[1];
}
