import type { Want } from '../../analysis/readouts/index.ts';
import { parseValue, prefixFor, unitSign, type QuantityKind, type Unit } from '../../base/quantity/index.ts';

/** What a bare target may miss, when nothing is said: half a decibel, or this part of the value (common practice). */
const USUAL_WITHIN_DB = 0.5;
const USUAL_WITHIN_FRACTION = 0.05;

/** What makes a wanted range a wish, with its weight. */
const WISHED = /[,\s]\s*wished(?:\s+(\d+(?:[.,]\d+)?))?$/i;
const MOST_WISHED = 1000;

/**
 * Reads a wanted range as people write it: "38 ± 1 dB", "< 20 Hz", "> 4", "8 .. 12 V", "26". A bare target gets half
 * a decibel or 5 % either way. What ends with "wished", or "wished 2", is no firm goal but a wish of that weight.
 * Undefined when it cannot be read; an empty text wants nothing and gives {}.
 */
export function parseWant(text: string, kind: QuantityKind): Want | undefined {
  const wished = WISHED.exec(text.trimEnd());
  if (!wished) return parseRange(text, kind);
  const want = parseRange(text.trimEnd().slice(0, wished.index), kind);
  const wish = Number((wished[1] ?? '1').replace(',', '.'));
  if (!want || Object.keys(want).length === 0 || !(wish > 0 && wish <= MOST_WISHED)) return undefined;
  return { ...want, wish };
}

function parseRange(text: string, kind: QuantityKind): Want | undefined {
  const trimmed = text.trim();
  if (trimmed === '') return {};
  const number = (part: string): number | undefined => {
    const parsed = parseValue(part.trim(), { kind, purpose: 'reading' });
    return parsed.ok ? parsed.readings[0].value : undefined;
  };
  const bound = /^(<=?|>=?|under|below|over|above|at most|at least)\s*(.+)$/i.exec(trimmed);
  if (bound) {
    const value = number(bound[2]!);
    if (value === undefined) return undefined;
    return /^(<|under|below|at most)/i.test(bound[1]!) ? { max: value } : { min: value };
  }
  const range = /^(.+?)\s*(?:\.\.+|…| to )\s*(.+)$/i.exec(trimmed);
  if (range) {
    const [min, max] = [number(withUnitOf(range[1]!, range[2]!)) ?? number(range[1]!), number(range[2]!)];
    return min === undefined || max === undefined || min > max ? undefined : { min, max };
  }
  const around = /^(.*?)\s*(?:±|\+-|\+\/-)\s*(.+)$/.exec(trimmed);
  if (around) {
    const target = around[1] === '' ? 0 : (number(withUnitOf(around[1]!, around[2]!)) ?? number(around[1]!));
    const percent = /^([\d.,]+)\s*%$/.exec(around[2]!);
    const within =
      percent && target !== undefined && kind !== 'ratio'
        ? (Math.abs(target) * Number(percent[1]!.replace(',', '.'))) / 100
        : number(around[2]!);
    return target === undefined || within === undefined || within < 0 ? undefined : { target, within };
  }
  const target = number(trimmed);
  if (target === undefined) return undefined;
  return { target, within: kind === 'level' ? USUAL_WITHIN_DB : Math.abs(target) * USUAL_WITHIN_FRACTION };
}

/** "8" beside "12 kHz" is meant in kHz too. */
function withUnitOf(bare: string, other: string): string {
  const unit = /[a-zµ\u03a9%]+\s*$/i.exec(other)?.[0] ?? '';
  return /[a-zµ\u03a9%]\s*$/i.test(bare) ? bare : `${bare}${unit}`;
}

/** Ends that are further apart than this are written each with its own prefix. */
const FARTHEST_APART = 1e5;
const DIGITS = 6;
/** Units that take no prefix, as people write them. */
const WITHOUT_PREFIX: readonly Unit[] = ['dB', 'ratio', '', 'degC', 'h'];

/** A number without an exponent, and with a minus sign as in print. */
const plain = (value: number): string =>
  Number(value.toPrecision(DIGITS))
    .toLocaleString('en', { maximumFractionDigits: 20, useGrouping: false })
    .replace('-', '\u2212');

/**
 * A wanted range as it reads back: "37.5 ± 1 dB", "< 20 Hz", "0.3 … 2 Hz, wished"; empty when nothing is wanted. Numbers that belong
 * together share one prefix, so that the unit at the end is that of both.
 */
export function formatWant(want: Want | undefined, unit: Unit): string {
  const range = formatRange(want, unit);
  if (range === '' || want?.wish === undefined) return range;
  return `${range}, wished${want.wish === 1 ? '' : ` ${plain(want.wish)}`}`;
}

function formatRange(want: Want | undefined, unit: Unit): string {
  if (!want) return '';
  const sign = unit === 'ratio' ? '%' : unitSign(unit);
  const scaleOf = (value: number): { readonly factor: number; readonly symbol: string } =>
    unit === 'ratio'
      ? { factor: 0.01, symbol: '' }
      : WITHOUT_PREFIX.includes(unit)
        ? { factor: 1, symbol: '' }
        : // Nobody speaks of kiloseconds.
          unit === 's' && Math.abs(value) >= 1
          ? { factor: 1, symbol: '' }
          : prefixFor(value);
  const written = (value: number, { factor, symbol } = scaleOf(value), hasUnit = true) => {
    const unitText = `${symbol}${sign}`;
    return `${plain(value / factor)}${hasUnit && unitText !== '' ? ` ${unitText}` : ''}`;
  };
  /** Two numbers with a mark between them, under the prefix of the larger. */
  const pair = (a: number, mark: string, b: number) => {
    const [small, large] = [Math.abs(a), Math.abs(b)].sort((x, y) => x - y) as [number, number];
    if (small > 0 && large / small > FARTHEST_APART) return `${written(a)} ${mark} ${written(b)}`;
    const scale = scaleOf(large);
    return `${written(a, scale, false)} ${mark} ${written(b, scale)}`;
  };
  const { min, max, target, within } = want;
  if (target !== undefined) {
    if (target === 0) return `± ${written(within ?? 0)}`;
    return within ? pair(target, '±', within) : written(target);
  }
  if (min !== undefined && max !== undefined) return min === -max ? `± ${written(max)}` : pair(min, '…', max);
  if (max !== undefined) return `< ${written(max)}`;
  return min === undefined ? '' : `> ${written(min)}`;
}
