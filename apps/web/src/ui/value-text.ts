import { formatPlain, formatQuantity, QUANTITY_KINDS, unitSign, type QuantityKind } from '@zemble/core';

const DIGITS = 4;
/** Quantities whose unit takes no prefix. */
const BARE: ReadonlySet<string> = new Set(['', 'dB', 'degC', 'h', 'Ah', 'K/W']);

/** A number without zeros that say nothing. */
const plain = (value: number): string =>
  formatPlain(value, DIGITS)
    .replace(/(\.\d*?)0+$/, '$1')
    .replace(/\.$/, '');

/** A value as it stands in a field that can be typed over: with its unit, to four digits; empty for none. */
export function valueText(
  value: number | undefined,
  quantity: QuantityKind,
  unit: string = QUANTITY_KINDS[quantity],
): string {
  if (value === undefined || !Number.isFinite(value)) return '';
  if (quantity === 'ratio') return `${plain(100 * value)} %`;
  return BARE.has(QUANTITY_KINDS[quantity])
    ? `${plain(value)} ${unitSign(unit)}`.trimEnd()
    : formatQuantity(value, unit, { digits: DIGITS });
}
