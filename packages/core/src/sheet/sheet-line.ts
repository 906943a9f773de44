import type { PartKind } from '@halfsplit/contract';
import { PART_KINDS } from '@halfsplit/contract';
import { kindOfRef, KINDS, parameter, type LayerValue, type Part } from '../circuit/index.ts';
import { problem, type Problem } from '../errors.ts';
import { modelNamed, MODELS } from '../models/index.ts';
import { exactText, formatPlain, parseTolerance, parseValue, type QuantityKind } from '../quantity/index.ts';
import { PART_FIELD_QUANTITIES } from '../formats/index.ts';

export type SheetLineResult =
  { readonly ok: true; readonly part: Part } | { readonly ok: false; readonly problem: Problem };

const unreadable = (detail: string, ref?: string): SheetLineResult => ({
  ok: false,
  problem: problem('sheet/unreadable', { detail, ref }),
});

/** Kind words as typed on a line, beside the kinds' own names. */
const KIND_WORDS: Readonly<Record<string, PartKind>> = {
  pot: 'potentiometer',
  cap: 'capacitor',
  coil: 'inductor',
  battery: 'supply',
  npn: 'bjt',
  pnp: 'bjt',
  tone: 'signal',
  sine: 'signal',
  square: 'signal',
  triangle: 'signal',
  pulse: 'signal',
  valve: 'triode',
};

const STATES: Readonly<Record<string, Partial<Part>>> = {
  open: { closed: false },
  closed: { closed: true },
  log: { taper: 'log' },
  linear: { taper: 'linear' },
  lin: { taper: 'linear' },
  antilog: { taper: 'antilog' },
  npn: { polarity: 'npn' },
  pnp: { polarity: 'pnp' },
  sine: { waveform: 'sine' },
  square: { waveform: 'square' },
  triangle: { waveform: 'triangle' },
  pulse: { waveform: 'pulse' },
  polarised: { polarised: true },
  electrolytic: { polarised: true, technology: 'electrolytic' },
  tantalum: { polarised: true, technology: 'tantalum' },
  film: { technology: 'film' },
  paper: { technology: 'paper' },
  ceramic: { technology: 'ceramic' },
  mica: { technology: 'mica' },
  carbon: { technology: 'carbon composition' },
  'carbon-composition': { technology: 'carbon composition' },
  'carbon-film': { technology: 'carbon film' },
  'metal-film': { technology: 'metal film' },
  wirewound: { technology: 'wirewound' },
};

/**
 * Reads one line of the parts sheet: designator, then in any order a value, a kind word where the designator does not
 * tell, a model, a tolerance, further fields as `name=value`, and the nets. Nets follow the kind's pins in order, or
 * are named: `Q1 2N3904 c=n2 b=n1 e=n3`, or all by position: `Q1 2N3904 n2 n1 n3`.
 *
 * @example parseSheetLine('R4 47k in n2')
 * @example parseSheetLine('C2 10u 25V e1 0 esr=2')
 * @example parseSheetLine('V1 24V vcc 0')
 * @returns the part with its marked value in SI units, or what could not be understood
 */
export function parseSheetLine(line: string): SheetLineResult {
  const words = line
    .replace(/\s*=\s*/g, '=')
    .trim()
    .split(/\s+/)
    .filter(Boolean);
  const ref = words[0];
  if (ref === undefined) return unreadable('The line is empty.');
  if (!/^[A-Za-z][A-Za-z0-9._-]{0,31}$/.test(ref)) {
    return unreadable(`"${ref}" is not a designator: it begins with a letter, as R4 does.`);
  }
  const rest = words.slice(1);
  const kind = kindOnLine(ref, rest);
  if (!kind)
    return unreadable(
      `${ref}: the letters do not tell what it is. Add a word such as "resistor" or "box".`,
      ref,
    );
  return new LineReader(ref, kind, rest).read();
}

function kindOnLine(ref: string, rest: readonly string[]): PartKind | undefined {
  for (const word of rest) {
    const lower = word.toLowerCase();
    if ((PART_KINDS as readonly string[]).includes(lower)) return lower as PartKind;
    if (KIND_WORDS[lower]) return KIND_WORDS[lower];
    const model = modelNamed(word);
    if (model && /\d/.test(word)) return model.kind;
  }
  const byLetters = kindOfRef(ref);
  const isTone = byLetters === 'supply' && rest.some((w) => /hz$/i.test(w));
  return isTone ? 'signal' : byLetters;
}

class LineReader {
  private readonly ref: string;
  private readonly kind: PartKind;
  private readonly words: readonly string[];
  private readonly fields: Record<string, unknown> = {};
  private readonly pins: Record<string, string> = {};
  private readonly positional: string[] = [];
  private failure: SheetLineResult | null = null;

  constructor(ref: string, kind: PartKind, words: readonly string[]) {
    this.ref = ref;
    this.kind = kind;
    this.words = words;
  }

  read(): SheetLineResult {
    const info = KINDS[this.kind];
    const plain = this.words.filter((word) => !word.includes('='));
    for (const word of this.words) if (word.includes('=')) this.take(word);
    const netCount = this.positionalCount(plain);
    plain.slice(0, plain.length - netCount).forEach((word) => this.take(word));
    this.positional.push(...plain.slice(plain.length - netCount));
    if (this.failure) return this.failure;
    if (this.isHeadTakenForNet(netCount))
      return this.missingNets(info.pins.length - Object.keys(this.pins).length, netCount - 1);
    if (info.pins.length === 0) {
      this.positional.forEach((net, i) => (this.pins[String(i + 1)] = net));
    } else if (this.positional.length > 0) {
      const free = info.pins.filter((pin) => this.pins[pin] === undefined);
      this.positional.forEach((net, i) => (this.pins[free[i]!] = net));
    }
    const missing = info.pins.filter((pin) => this.pins[pin] === undefined);
    if (missing.length > 0) {
      const has = info.pins.length - missing.length;
      return unreadable(
        `${this.ref}: ${named(info.words)} has the pins ${info.pins.join(', ')}; ${has === 0 ? 'none is' : `${missing.join(', ')} ${missing.length === 1 ? 'is' : 'are'} not`} connected.`,
        this.ref,
      );
    }
    if (info.needsValue && this.fields['marked'] === undefined) this.fields['marked'] = null;
    const pins =
      info.pins.length === 0 ? this.pins : Object.fromEntries(info.pins.map((pin) => [pin, this.pins[pin]!]));
    return { ok: true, part: { ref: this.ref, kind: this.kind, pins, ...this.fields } };
  }

  /** How many of the plain words, from the end, are nets by position. */
  private positionalCount(plain: readonly string[]): number {
    const { pins } = KINDS[this.kind];
    if (pins.length === 0) return trailing(plain, (word) => !this.isKindWord(word));
    return Math.min(plain.length, pins.filter((pin) => this.pins[pin] === undefined).length);
  }

  /** Too few nets were typed, and the value or type number stands where the first net should. */
  private isHeadTakenForNet(netCount: number): boolean {
    const first = this.positional[0];
    if (first === undefined || this.positional.length < netCount || KINDS[this.kind].pins.length === 0)
      return false;
    const quantity = KINDS[this.kind].value;
    const isValue =
      quantity !== null &&
      this.fields['marked'] === undefined &&
      /[a-z]/i.test(first) &&
      parseValue(first, { kind: quantity }).ok;
    return isValue || (this.fields['model'] === undefined && modelNamed(first, this.kind) !== undefined);
  }

  private missingNets(wanted: number, given: number): SheetLineResult {
    const { words, pins } = KINDS[this.kind];
    const nets = given === 0 ? 'no net is' : given === 1 ? 'only one net is' : `only ${given} nets are`;
    return unreadable(
      `${this.ref}: ${named(words)} has the pins ${pins.join(', ')}; ${nets} given for ${wanted}.`,
      this.ref,
    );
  }

  private isKindWord(word: string): boolean {
    const lower = word.toLowerCase();
    return (PART_KINDS as readonly string[]).includes(lower) || KIND_WORDS[lower] !== undefined;
  }

  private fail(detail: string): void {
    this.failure ??= unreadable(`${this.ref}: ${detail}`, this.ref);
  }

  private take(word: string): void {
    const pair = /^([^=]+)=(.+)$/.exec(word);
    if (pair) return this.takePair(pair[1]!, pair[2]!);
    const lower = word.toLowerCase();
    if (this.isKindWord(word) || STATES[lower]) {
      Object.assign(this.fields, STATES[lower]);
      return;
    }
    const model = modelNamed(word, this.kind);
    const usesModels = MODELS.some((m) => m.kind === this.kind) || KINDS[this.kind].value === null;
    if (model) {
      this.fields['model'] = model.name;
      return;
    }
    const tolerance = parseTolerance(word);
    if (tolerance !== undefined && /%/.test(word)) {
      this.fields['tolerance'] = tolerance;
      return;
    }
    if (this.takeValue(word)) return;
    if (usesModels && /^[A-Za-z0-9][A-Za-z0-9./-]*$/.test(word) && this.fields['model'] === undefined) {
      this.fields['model'] = word;
      return;
    }
    const info = KINDS[this.kind];
    const isUnit = info.value !== null && this.fields['marked'] === undefined;
    this.fail(
      isUnit
        ? `"${word}" is neither a value nor one of its ${info.pins.length || ''} nets.`
        : `"${word}" is one word too many; ${named(info.words)} has the pins ${info.pins.join(', ')}.`,
    );
  }

  private takeValue(word: string): boolean {
    const quantity = KINDS[this.kind].value;
    if (quantity !== null && this.fields['marked'] === undefined) {
      const parsed = parseValue(word, { kind: quantity });
      if (parsed.ok) {
        const { value, tolerance } = parsed.readings[0];
        if (quantity !== 'voltage' && !(value > 0)) {
          this.fail(`${named(KINDS[this.kind].words)} of ${word} is not above zero.`);
          return true;
        }
        this.fields['marked'] = value;
        if (tolerance !== undefined) this.fields['tolerance'] ??= tolerance;
        return true;
      }
    }
    for (const [unitWord, field] of BY_UNIT) {
      if (!unitWord.test(word)) continue;
      const parsed = parseValue(word, { kind: PART_FIELD_QUANTITIES[field]! });
      if (!parsed.ok) continue;
      this.fields[field] = parsed.readings[0].value;
      return true;
    }
    return false;
  }

  private takePair(name: string, value: string): void {
    const lower = name.toLowerCase();
    const { pins } = KINDS[this.kind];
    if (pins.includes(lower)) {
      this.pins[lower] = value;
      return;
    }
    if (WORD_FIELDS.some((field) => field === lower)) {
      this.fields[lower] = value;
      return;
    }
    const quantity: QuantityKind | undefined = PART_FIELD_QUANTITIES[name] ?? PART_FIELD_QUANTITIES[lower];
    if (quantity) {
      const field = PART_FIELD_QUANTITIES[name] ? name : lower;
      const parsed = parseValue(value, { kind: quantity, purpose: 'reading' });
      if (parsed.ok) this.fields[field] = parsed.readings[0].value;
      else this.fail(parsed.problem.message);
      return;
    }
    if (pins.length === 0) {
      this.pins[name] = value;
      return;
    }
    if (/^[A-Z][A-Z0-9]*$/.test(name)) {
      const parsed = parseValue(value, { kind: 'number', purpose: 'reading' });
      if (parsed.ok)
        this.fields['params'] = { ...(this.fields['params'] as object), [name]: parsed.readings[0].value };
      else this.fail(`"${value}" is not a number for ${name}.`);
      return;
    }
    this.fail(`it has neither a pin nor a field "${name}"; its pins are ${pins.join(', ')}.`);
  }
}

/** Fields of one word each that tell parts of one batch. */
const WORD_FIELDS = ['maker', 'series'] as const;

/** Values told apart by their unit: a voltage rating, a power rating, a frequency. */
const BY_UNIT: readonly (readonly [RegExp, string])[] = [
  [/hz$/i, 'frequency'],
  [/\dv$/i, 'voltage'],
  [/w$/i, 'power'],
];

/** The words with their article. */
const named = (words: string) => `${/^([aeiou]|LED)/.test(words) ? 'an' : 'a'} ${words}`;

function trailing(words: readonly string[], test: (word: string) => boolean): number {
  let count = 0;
  while (count < words.length && test(words[words.length - 1 - count]!)) count += 1;
  return count;
}

/** The line that reads back as this part: what stands in the field when a part is edited. */
export function formatSheetLine(part: Part): string {
  const info = KINDS[part.kind];
  const words: string[] = [part.ref];
  if (kindOfRef(part.ref) !== part.kind) words.push(part.kind);
  const marked = part.marked as LayerValue | undefined;
  if (typeof marked === 'number') words.push(valueWord(marked, info.value));
  if (part.model !== undefined) words.push(part.model);
  const states = ['polarity', 'taper', 'waveform'].map((f) => part[f]).filter((v) => typeof v === 'string');
  words.push(...states);
  if (part['closed'] === false) words.push('open');
  const technology = technologyWord(part);
  if (technology !== undefined) words.push(technology);
  if (part['polarised'] === true && technology !== 'electrolytic' && technology !== 'tantalum')
    words.push('polarised');
  if (part.tolerance !== undefined)
    words.push(`${formatPlain(part.tolerance * 100, 6).replace(/\.?0+$/, '')}%`);
  for (const field of Object.keys(PART_FIELD_QUANTITIES)) {
    const value = parameter(part, field);
    if (value !== undefined && part.params?.[field] === undefined) words.push(`${field}=${exactText(value)}`);
  }
  for (const field of WORD_FIELDS) {
    const value = part[field];
    // A line is cut at its spaces: what has some is kept by the part, not by the line.
    if (typeof value === 'string' && /^\S+$/.test(value)) words.push(`${field}=${value}`);
  }
  for (const [name, value] of Object.entries(part.params ?? {})) words.push(`${name}=${value}`);
  const usesNames = info.pins.length !== 2;
  const pins = Object.entries(part.pins).sort(([a], [b]) => info.pins.indexOf(a) - info.pins.indexOf(b));
  words.push(
    ...(usesNames
      ? pins.map(([pin, net]) => `${pin}=${net}`)
      : info.pins.map((pin) => part.pins[pin] ?? '?')),
  );
  return words.join(' ');
}

/** The word of a line that stands for a part's technology. */
const technologyWord = (part: Part): string | undefined =>
  typeof part['technology'] === 'string'
    ? Object.keys(STATES).findLast((word) => STATES[word]!['technology'] === part['technology'])
    : undefined;

/**
 * What a part has that its line does not say: plans, and fields that came with a file. Whoever replaces a part by an edited
 * line keeps these, so that nothing is lost by editing.
 */
export function besideLine(part: Part): Readonly<Record<string, unknown>> {
  const read = parseSheetLine(formatSheetLine(part));
  const said = new Set(read.ok ? Object.keys(read.part) : []);
  return Object.fromEntries(
    Object.entries(part).filter(([field, value]) => value !== undefined && !said.has(field)),
  );
}

const UNIT_LETTER: Partial<Record<QuantityKind, string>> = { capacitor: 'F', inductor: 'H', voltage: 'V' };

function valueWord(value: number, quantity: QuantityKind | null): string {
  // Bare digits could be taken for a digit code: 892 ohm is written 892R.
  if (quantity === 'resistor' && /^[\d.]+$/.test(exactText(value))) return `${exactText(value)}R`;
  const letter = quantity === null ? undefined : UNIT_LETTER[quantity];
  return `${exactText(value)}${letter ?? ''}`;
}
