import { valueOf } from './parse-value.ts';
import { PREFIXES } from './prefix.ts';
import { unitSign, type QuantityKind } from './unit.ts';

const MINUS = '\u2212';

interface Mantissa {
  readonly negative: boolean;
  /** Significant digits as text, between 1 and 1000, e.g. "4.7". */
  readonly digits: string;
  readonly symbol: string;
}

function mantissa(value: number, digits: number, lowest: number, highest: number): Mantissa {
  const rounded = Number(Math.abs(value).toPrecision(digits));
  const exponent = rounded === 0 ? 0 : Math.floor(Math.log10(rounded) + 1e-12);
  const power = Math.min(highest, Math.max(lowest, Math.floor(exponent / 3) * 3));
  const prefix = PREFIXES.find((p) => p.exponent === power) ?? PREFIXES[5]!;
  const scaledValue = Number(`${rounded}e${-prefix.exponent}`);
  const text = Number.isFinite(scaledValue) ? scaledValue : rounded / prefix.factor;
  return {
    negative: value < 0 && rounded !== 0,
    digits: String(Number(text.toPrecision(digits))),
    symbol: prefix.symbol,
  };
}

/** The trade speaks of 4700 µF, not of millifarad; from a tenth of a farad on, of farad. */
const FARAD_FROM = 0.1;

/** Exponents of the prefixes that a unit takes for a value. */
function prefixRange(
  unit: string,
  value: number,
  lowest: number,
): readonly [lowest: number, highest: number] {
  if (unit !== 'F') return [lowest, 12];
  return Math.abs(value) < FARAD_FROM ? [-12, -6] : [0, 0];
}

/** Units that take no SI prefix on a bench. */
const BARE_UNITS = new Set(['dB', 'dBu', '%', '°C', 'h', 'Ah', 'K/W', 'octaves', 'semitones', '']);

export interface FormatOptions {
  /** Significant digits, 1 to 15; default 3. */
  readonly digits?: number;
  /** Show "+" before a positive number. */
  readonly signed?: boolean;
}

/**
 * A number with its unit as it stands on a screen: `formatQuantity(47000, 'ohm')` is "47 kΩ",
 * `formatQuantity(-0.0021, 'V')` is "−2.1 mV". One space, a real minus sign. Not-a-number and infinity give "–":
 * they never reach a screen.
 */
export function formatQuantity(
  value: number | null | undefined,
  unitName: string,
  options: FormatOptions = {},
): string {
  if (value === null || value === undefined || !Number.isFinite(value)) return '–';
  const digits = options.digits ?? 3;
  const unit = unitSign(unitName);
  const sign = (negative: boolean) => (negative ? MINUS : options.signed && value > 0 ? '+' : '');
  if (BARE_UNITS.has(unit)) return `${formatPlain(value, digits, options.signed)}${unit ? ` ${unit}` : ''}`;
  const m = mantissa(value, digits, ...prefixRange(unit, value, -15));
  return `${sign(m.negative)}${m.digits} ${m.symbol}${unit}`;
}

/** A plain number with a real minus sign, rounded to significant digits without an exponent where it can be read. */
export function formatPlain(value: number, digits = 3, signed = false): string {
  if (!Number.isFinite(value)) return '–';
  const magnitude = Math.abs(value);
  const decimals =
    magnitude === 0 ? 0 : Math.max(0, Math.min(12, digits - 1 - Math.floor(Math.log10(magnitude))));
  const text = decimals > 6 ? magnitude.toPrecision(digits) : magnitude.toFixed(decimals);
  const isZero = Number(text) === 0;
  return `${value < 0 && !isZero ? MINUS : signed && value > 0 ? '+' : ''}${text}`;
}

/** Decibels with one fixed decimal, so that columns of them line up: "−13.7". */
export function formatDecibel(value: number, decimals = 1): string {
  if (!Number.isFinite(value)) return '–';
  const text = Math.abs(value).toFixed(decimals);
  return `${value < 0 && Number(text) !== 0 ? MINUS : ''}${text}`;
}

/**
 * The short code of IEC 60062: 4700 is "4k7", 2.2 is "2R2", 47000 is "47k", 2.2e-8 is "22n". What is printed
 * beside a symbol, where the designator tells the unit; the letter of the unit stands where no prefix does.
 */
export function formatCode(value: number | null | undefined, digits = 3, unitLetter = 'R'): string {
  if (value === null || value === undefined || !Number.isFinite(value)) return '–';
  const isBelowOneOhm = unitLetter === 'R' && Math.abs(value) < 1 && Math.abs(value) >= 0.01;
  const m = mantissa(value, digits, ...prefixRange(unitLetter, value, isBelowOneOhm ? 0 : -12));
  if (isBelowOneOhm && m.digits.startsWith('0.')) return `${m.negative ? MINUS : ''}R${m.digits.slice(2)}`;
  const letter = m.symbol || unitLetter;
  const [whole = '0', fraction] = m.digits.split('.');
  const sign = m.negative ? MINUS : '';
  if (fraction === undefined) return `${sign}${whole}${m.symbol || letterFor(whole, unitLetter)}`;
  return `${sign}${whole}${letter}${fraction}`;
}

/** Three and four digits that would be read as a code carry the letter of their unit: "272R" for 272 ohm. */
const letterFor = (digits: string, unitLetter: string): string =>
  unitLetter === 'R' && /^\d{3,4}$/.test(digits) && valueOf(digits, { kind: 'resistor' }) !== Number(digits)
    ? unitLetter
    : '';

/** What is written behind a number of a kind where digits alone would be read as something else. */
const WRITTEN_UNITS: Partial<Record<QuantityKind, string>> = { resistor: 'R', capacitor: 'F', inductor: 'H' };

/**
 * The shortest text that reads back as exactly this number of its kind: `exactText(47000, 'resistor')` is "47k",
 * `exactText(614, 'resistor')` "614R" and `exactText(1, 'capacitor')` "1F". Used where a value is put into a field to be
 * edited, so that nothing is lost by looking at it.
 */
export function exactText(value: number, kind: QuantityKind): string {
  const text = shortest(value);
  const unit = WRITTEN_UNITS[kind];
  return unit === undefined || valueOf(text, { kind }) === value ? text : `${text}${unit}`;
}

/** The fewest digits and a prefix that are exactly a number. */
function shortest(value: number): string {
  for (let digits = 1; digits <= 15; digits += 1) {
    const m = mantissa(value, digits, -12, 12);
    const exponent = PREFIXES.find((p) => p.symbol === m.symbol)?.exponent ?? 0;
    if (Number(`${m.digits}e${exponent}`) === Math.abs(value)) {
      const ascii = m.symbol === 'µ' ? 'u' : m.symbol;
      return `${m.negative ? '-' : ''}${m.digits}${ascii}`;
    }
  }
  return String(value);
}
