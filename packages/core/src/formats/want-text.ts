import type { Want } from '../readouts/index.ts';
import { exactText, parseValue, unitSign, type QuantityKind, type Unit } from '../quantity/index.ts';

/** What a bare target may miss, when nothing is said: half a decibel, or this part of the value (common practice). */
const USUAL_WITHIN_DB = 0.5;
const USUAL_WITHIN_FRACTION = 0.05;

/**
 * Reads a wanted range as people write it: "38 ± 1 dB", "< 20 Hz", "> 4", "8 .. 12 V", "26". A bare target gets half
 * a decibel or 5 % either way. Undefined when it cannot be read; an empty text wants nothing and gives {}.
 */
export function parseWant(text: string, kind: QuantityKind): Want | undefined {
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

/** A wanted range as it reads back: "37.5 ± 1 dB", "< 20 Hz", "11 … 17 V"; empty when nothing is wanted. */
export function formatWant(want: Want | undefined, unit: Unit): string {
  if (!want) return '';
  const isRatio = unit === 'ratio';
  const sign = isRatio ? '%' : unitSign(unit);
  const number = (value: number) =>
    (unit === 'dB' || isRatio || unit === '' || unit === 'degC' || unit === 'h'
      ? String(Number((isRatio ? 100 * value : value).toPrecision(6)))
      : exactText(Number(value.toPrecision(6)))
    )
      .replace('-', '\u2212')
      .replace('u', 'µ');
  const withUnit = (text: string) => {
    const prefix = /^(.*?)([pnµmkMGT]?)$/.exec(text)!;
    return sign === '' ? text : `${prefix[1]} ${prefix[2]}${sign}`;
  };
  const { min, max, target, within } = want;
  if (target !== undefined) {
    if (target === 0) return `± ${withUnit(number(within ?? 0))}`;
    return within ? `${number(target)} ± ${withUnit(number(within))}` : withUnit(number(target));
  }
  if (min !== undefined && max !== undefined) {
    if (min === -max) return `± ${withUnit(number(max))}`;
    return `${number(min)} … ${withUnit(number(max))}`;
  }
  if (max !== undefined) return `< ${withUnit(number(max))}`;
  return min === undefined ? '' : `> ${withUnit(number(min))}`;
}
