import { problem, type Problem } from '../errors/index.ts';
import { bandColour, readBandsEitherWay } from './bands.ts';
import { formatQuantity } from './format-value.ts';
import { prefixExponent, scaled } from './prefix.ts';
import { isPreferred } from './preferred.ts';
import { TOLERANCE_LETTERS } from './tolerance-letter.ts';
import { kindOfUnit, QUANTITY_KINDS, type QuantityKind, type Unit } from './unit.ts';

export type Notation = 'plain' | 'prefix' | 'letter code' | 'digit code' | 'bands';

/** One way to understand a text. */
export interface ValueReading {
  /** SI units. */
  readonly value: number;
  readonly unit: Unit;
  readonly kind: QuantityKind;
  readonly notation: Notation;
  /** Fraction, where the notation carries one. */
  readonly tolerance?: number;
  /** V, where a rating stands behind the value: "10uF/25V". */
  readonly voltage?: number;
}

export type ParsedValue =
  | { readonly ok: true; readonly readings: readonly [ValueReading, ...ValueReading[]] }
  | { readonly ok: false; readonly problem: Problem };

export interface ParseOptions {
  /** What the value is of; without it every kind that fits is listed. */
  readonly kind?: QuantityKind;
  /**
   * `marking` (default): what is printed, so digit codes such as 104 are read. `reading`: what an instrument
   * shows, where digits are digits.
   */
  readonly purpose?: 'marking' | 'reading';
  /** A value expected, in SI units: a capacitance typed without a unit is read in the decade nearest to it. */
  readonly expected?: number;
}

const NUMBER = /^([+-]?)(\d+(?:[.,]\d*)?|[.,]\d+)(e[+-]?\d{1,3})?\s*(.*)$/i;
/** The letter in place of the point; `E` for ohms stands so on many parts ("4E7"). */
const LETTER_CODE = /^(\d*)(meg|[rpnuµμmkKMGTfFhHvVU])(\d+)\s*(.*)$/i;
/** "10k10" is a slip of the finger: nobody writes the nought behind two digits. */
const SLIP = /^\d{2,}[a-zµμ]+\d+0$/i;
/** Ohms by the letter E: "100E", "4E7" (common practice). */
const OHMS_BY_E = /^(\d+)E(\d?)$/;
/** "10,000" and "1,234,567.8": commas between groups of three, as English writers set them. */
const GROUPED = /^([+-]?)([1-9]\d{0,2}(?:,\d{3})+(?:\.\d+)?)(?![\d.,])(.*)$/;
/** A tolerance behind the value: "4k7 5%", "10k ±1 %". */
const TOLERANCE_BEHIND = /^(.*\S)\s*(?:±|\+\/?-|\s)\s*(\d+(?:[.,]\d+)?)\s*%$/;
/** A rating behind a capacitor's value: "10uF/25V", "47u 16 V". */
const RATING_BEHIND = /^(.*[a-zµμ\d])\s*[/ ]\s*(\d+(?:[.,]\d+)?)\s*(?:v|volts?)$/i;
/** What old sheets call microfarad and picofarad: "mf", "mfd", "ufd"; "mmf", "mmfd", "uuF" (common practice before 1960). */
const OLD_FARADS: readonly (readonly [RegExp, exponent: number])[] = [
  [/^(?:mmf|mmfd|(?:uu|µµ|μμ)fd?)\.?$/i, -12],
  [/^(?:mfd?|[uµμ]fd)\.?$/i, -6],
];
/** Digits, power of ten and a tolerance letter that is not also a common prefix or unit. */
const DIGIT_CODE = /^(\d{2,3})(\d)([CDGJKM]?)$/;
const PREFIX_AND_UNIT = /^(meg|[pnuµμmkMGTf]?)\s*([a-zµ\u03a9\u2126]*)$/i;

/** Letters that stand for the decimal point in a letter code, and the kind they imply when it is certain. */
const POINT_UNITS: Record<string, QuantityKind> = {
  R: 'resistor',
  F: 'capacitor',
  H: 'inductor',
  V: 'voltage',
};

/** Prefixes that make a kind likely when nothing else says so (common practice). */
function likelyKinds(exponent: number): readonly QuantityKind[] {
  if (exponent >= 3) return ['resistor', 'frequency'];
  if (exponent === 0) return ['resistor'];
  if (exponent === -3) return ['inductor', 'voltage', 'resistor'];
  return exponent === -6 ? ['capacitor', 'inductor'] : ['capacitor'];
}

/**
 * Reads a value in any notation of the trade: 4700, 4,7k, "4.7 kΩ", 4k7, 2R2, R47, 0.022u, 100nF, 104, 4K7J,
 * "yellow violet red gold", 1e-6.
 *
 * Without a kind an ambiguous text lists every reading, the likeliest first: digit codes (IEC 60062) count as
 * resistor or capacitor markings; where the digits are themselves a preferred value (E24 or
 * E96) the plain reading wins. Digits without unit or prefix on a capacitor are a code when three digits, microfarads when they
 * have a decimal point, and picofarads otherwise (common practice).
 *
 * @returns readings in SI units, at least one, or a problem (`value/empty`, `value/unreadable`, `value/wrong-unit`).
 * @example parseValue('4k7') // first reading 4700 ohm
 * @example parseValue('104') // 100 nF, then 100 kΩ, then 104 Ω
 */
export function parseValue(text: string, options: ParseOptions = {}): ParsedValue {
  const trimmed = text.trim().replace(/\u2212/g, '-');
  if (trimmed === '') return { ok: false, problem: problem('value/empty') };
  const all = readingsOf(trimmed, options).filter((r) => Number.isFinite(r.value));
  const fitting = all.filter(
    (r) => isPlausible(r) && (options.kind === undefined || r.kind === options.kind),
  );
  const distinct = fitting.filter(
    (r, i) => fitting.findIndex((o) => o.kind === r.kind && o.value === r.value) === i,
  );
  const [first, ...others] = distinct;
  if (first) return { ok: true, readings: [first, ...others] };
  const other = all[0];
  if (other && options.kind && other.kind === options.kind) {
    const detail = `${formatQuantity(other.value, other.unit)} is no value of a ${options.kind}`;
    return { ok: false, problem: problem('value/unreadable', { text, detail }) };
  }
  if (other && options.kind) {
    return {
      ok: false,
      problem: problem('value/wrong-unit', {
        text,
        detail: `${other.unit}, not ${QUANTITY_KINDS[options.kind] || 'a plain number'}`,
      }),
    };
  }
  return { ok: false, problem: problem('value/unreadable', { text }) };
}

/** Every reading of a text, the likeliest first, whether it fits the kind or not. */
function readingsOf(text: string, options: ParseOptions): ValueReading[] {
  const behind = TOLERANCE_BEHIND.exec(text);
  const percent = behind ? Number(behind[2]!.replace(',', '.')) : 0;
  if (behind && percent > 0 && percent < 100)
    return readingsOf(behind[1]!, options).map((r) => ({ ...r, tolerance: scaled(String(percent), -2) }));
  const rated = RATING_BEHIND.exec(text);
  if (rated && (options.kind === undefined || options.kind === 'capacitor')) {
    const farads = readingsOf(rated[1]!, { ...options, kind: 'capacitor' });
    const voltage = Number(rated[2]!.replace(',', '.'));
    if (farads.length > 0) return farads.map((r) => ({ ...r, voltage }));
  }
  return [
    ...bandReadings(text),
    ...codeReadings(text, options),
    ...ohmsByE(text),
    ...letterReadings(text, options.kind),
    ...groupedReadings(text, options),
  ];
}

/** Digits with commas between groups of three are thousands first, a decimal comma second; an instrument's, the nearer one. */
function groupedReadings(text: string, options: ParseOptions): ValueReading[] {
  const plain = plainReadings(text, options);
  const match = GROUPED.exec(text);
  if (!match) return plain;
  const [, sign = '', digits = '', rest = ''] = match;
  const grouped = plainReadings(`${sign}${digits.replaceAll(',', '')}${rest}`, options);
  if (options.purpose !== 'reading') return [...grouped, ...plain];
  const { expected } = options;
  const distance = (value: number) =>
    expected === undefined || !(value / expected > 0) ? Infinity : Math.abs(Math.log(value / expected));
  return [...plain, ...grouped].sort((a, b) => distance(a.value) - distance(b.value) || 0);
}

/** "100E" and "4E7" are ohms; written like a power of ten, the latter has that reading too. */
function ohmsByE(text: string): ValueReading[] {
  const match = OHMS_BY_E.exec(text);
  if (!match) return [];
  const [, whole = '', fraction = ''] = match;
  return [reading(Number(`${whole}.${fraction || 0}`), 'resistor', 'letter code')];
}

/** Magnitudes no part has: a kilofarad, a nano-ohm. Such a text names another kind of part. */
const PLAUSIBLE: Partial<Record<QuantityKind, readonly [low: number, high: number]>> = {
  resistor: [1e-5, 1e13],
  capacitor: [1e-15, 1e3],
  inductor: [1e-10, 1e5],
};

function isPlausible(r: ValueReading): boolean {
  const range = PLAUSIBLE[r.kind];
  return !range || r.value === 0 || (Math.abs(r.value) >= range[0] && Math.abs(r.value) <= range[1]);
}

/** The likeliest reading's value, or undefined. */
export function valueOf(text: string, options: ParseOptions = {}): number | undefined {
  const parsed = parseValue(text, options);
  return parsed.ok ? parsed.readings[0].value : undefined;
}

/** Digits that are themselves a usual value: of a series, or a round number, whose code would be written without the nought. */
const isUsual = (value: number) => isPreferred(value, 'E24') || isPreferred(value, 'E96') || value % 10 === 0;

const reading = (
  value: number,
  kind: QuantityKind,
  notation: Notation,
  tolerance?: number,
): ValueReading => ({
  value,
  unit: QUANTITY_KINDS[kind],
  kind,
  notation,
  ...(tolerance === undefined ? {} : { tolerance }),
});

function bandReadings(text: string): ValueReading[] {
  const words = text.split(/[\s,/-]+/).filter(Boolean);
  if (words.length < 3) return [];
  const colours = words.map(bandColour);
  if (colours.some((c) => c === undefined)) return [];
  return readBandsEitherWay(colours.map((c) => c!)).map((r) =>
    reading(r.ohms, 'resistor', 'bands', r.tolerance),
  );
}

/** Capacitor codes count in picofarads, inductor codes in microhenries, resistor codes in ohms (IEC 60062). */
const CODE_UNIT_EXPONENT = { capacitor: -12, resistor: 0, inductor: -6 } as const;

function codeReadings(text: string, options: ParseOptions): ValueReading[] {
  if (options.purpose === 'reading') return [];
  const match = DIGIT_CODE.exec(text);
  if (!match) return [];
  const [, digits = '', power = '', letter = ''] = match;
  if (digits.startsWith('0')) return [];
  const tolerance = letter === '' ? undefined : TOLERANCE_LETTERS[letter.toUpperCase()];
  if (letter !== '' && tolerance === undefined) return [];
  const readings: ValueReading[] = [];
  const isThree = digits.length === 2;
  const plain = Number(`${digits}${power}`);
  const codes = (kind: keyof typeof CODE_UNIT_EXPONENT) => {
    const exponent = kind === 'capacitor' && Number(power) >= 8 ? Number(power) - 10 : Number(power);
    return reading(scaled(digits, exponent + CODE_UNIT_EXPONENT[kind]), kind, 'digit code', tolerance);
  };
  const plainIsResistor = letter === '' && isUsual(plain);
  const prefixIsLikelier = /^[kKM]$/.test(letter) && isUsual(plain);
  if (
    isThree &&
    (options.kind === 'capacitor' || (options.kind === undefined && !prefixIsLikelier && !plainIsResistor))
  )
    readings.push(codes('capacitor'));
  const plainReading = letter === '' ? [reading(plain, 'resistor', 'plain')] : letterAsPrefix(plain, letter);
  const resistor = [plainReading, /^[kKM]?$/.test(letter) && letter !== '' ? [] : [codes('resistor')]];
  readings.push(...(plainIsResistor || prefixIsLikelier ? resistor : resistor.reverse()).flat());
  if (options.kind === undefined && isThree && (prefixIsLikelier || plainIsResistor))
    readings.push(codes('capacitor'));
  if (isThree && options.kind === 'inductor') readings.push(codes('inductor'));
  return readings;
}

function letterAsPrefix(plain: number, letter: string): ValueReading[] {
  const exponent = prefixExponent(letter);
  return exponent === undefined || exponent < 3
    ? []
    : [reading(scaled(String(plain), exponent), 'resistor', 'prefix')];
}

function letterReadings(text: string, kind: QuantityKind | undefined): ValueReading[] {
  const match = LETTER_CODE.exec(text);
  if (!match) return [];
  const [, whole = '', letter = '', fraction = '', rest = ''] = match;
  if (whole === '' && prefixExponent(letter) !== undefined && !/^[pnuµμk]$/i.test(letter)) return [];
  const tail = rest.trim();
  if (SLIP.test(text) && fraction.length > 1) return [];
  // A small k or m behind a code is a slip of the finger and no tolerance.
  const tolerance = /^[A-Zfgj]$/.test(tail) ? TOLERANCE_LETTERS[tail.toUpperCase()] : undefined;
  const tailKind = tail === '' ? undefined : kindOfUnit(tail, kind);
  if (tail !== '' && tolerance === undefined && tailKind === undefined) return [];
  const pointKind = POINT_UNITS[letter.toUpperCase()];
  const exponent = pointKind && letter !== 'f' ? 0 : prefixExponent(letter);
  if (exponent === undefined) return [];
  const value = scaled(`${whole || '0'}.${fraction}`, exponent);
  const kinds =
    tailKind && tolerance === undefined
      ? [tailKind]
      : pointKind && exponent === 0
        ? [pointKind]
        : likelyKinds(exponent);
  const wanted = kind && !pointKind && (tailKind === undefined || tolerance !== undefined) ? [kind] : kinds;
  return wanted.map((k) => reading(value, k, 'letter code', tolerance));
}

function plainReadings(text: string, options: ParseOptions): ValueReading[] {
  const match = NUMBER.exec(text);
  if (!match) return [];
  const [, sign = '', digits = '', power = '', rest = ''] = match;
  const number = `${sign}${digits.replace(',', '.')}`;
  const exponent = power === '' ? 0 : Number(power.slice(1));
  const tail = /^(?:%|°|k\/w)/i.test(rest.trim()) ? ['', '', ''] : PREFIX_AND_UNIT.exec(rest.trim());
  if (!tail) return [];
  const whole = rest.trim();
  const readings: ValueReading[] = [];
  if (whole === '%') return [reading(scaled(number, exponent - 2), 'ratio', 'plain')];
  const wholeKind = kindOfUnit(whole, options.kind);
  if (wholeKind) readings.push(reading(scaled(number, exponent), wholeKind, 'plain'));
  const old = OLD_FARADS.find(([pattern]) => pattern.test(whole));
  // "10 mF" is millifarad as well; a part of one is microfarad on every old sheet.
  const isMilliToo = whole === 'mF';
  const oldReadings = old ? [reading(scaled(number, exponent + old[1]), 'capacitor', 'prefix')] : [];
  if (!isMilliToo || Math.abs(Number(number)) < 1) readings.push(...oldReadings);
  if (old && !isMilliToo) return readings;
  const prefix = prefixExponent(tail[1] ?? '');
  if (whole !== '' && prefix !== undefined && (tail[1] ?? '') !== '' && whole !== 'F' && whole !== 'f') {
    const value = scaled(number, exponent + prefix);
    const unitKind = (tail[2] ?? '') === '' ? undefined : kindOfUnit(tail[2]!, options.kind);
    if (unitKind) readings.push(reading(value, unitKind, 'prefix'));
    else if ((tail[2] ?? '') === '') {
      for (const k of options.kind ? [options.kind] : likelyKinds(prefix))
        readings.push(reading(value, k, 'prefix'));
    }
  }
  if (isMilliToo) readings.push(...oldReadings);
  if (whole === '') readings.push(...bareReadings(number, exponent, power !== '', options));
  return readings;
}

/** Digits with neither prefix nor unit. */
function bareReadings(
  number: string,
  exponent: number,
  isScientific: boolean,
  options: ParseOptions,
): ValueReading[] {
  const value = scaled(number, exponent);
  if (options.kind !== undefined && options.kind !== 'capacitor')
    return [reading(value, options.kind, 'plain')];
  const capacitances = () => {
    if (isScientific) return [reading(value, 'capacitor', 'plain')];
    const candidates = [-12, -9, -6].map((e) => scaled(number, e));
    if (options.expected !== undefined && value > 0) {
      const distance = (v: number) => Math.abs(Math.log(v / options.expected!));
      candidates.sort((a, b) => distance(a) - distance(b));
      return candidates.map((v) => reading(v, 'capacitor', 'plain'));
    }
    const isDecimal = number.includes('.');
    return (isDecimal ? [candidates[2]!, candidates[0]!] : [candidates[0]!, candidates[2]!]).map((v) =>
      reading(v, 'capacitor', 'plain'),
    );
  };
  if (options.kind === 'capacitor') return capacitances();
  if (isScientific) return [reading(value, 'resistor', 'plain'), reading(value, 'capacitor', 'plain')];
  return [reading(value, 'resistor', 'plain'), ...(value > 0 ? capacitances() : [])];
}
