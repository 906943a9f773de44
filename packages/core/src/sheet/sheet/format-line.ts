import { definitionOf, type Field } from '@zemble/contract';
import {
  isPolarised,
  kindOfRef,
  KINDS,
  markedValue,
  partFields,
  type Part,
} from '../../circuit/circuit/index.ts';
import { modelNamed } from '../../circuit/models/index.ts';
import { exactText, formatPlain, type QuantityKind } from '../../base/quantity/index.ts';
import { technologyWord } from './line-words.ts';
import { parseSheetLine } from './sheet-line.ts';

/** The line that reads back as this part: what stands in the field when a part is edited. */
export function formatSheetLine(part: Part): string {
  const info = KINDS[part.kind];
  const words: string[] = [part.ref];
  if (kindOfRef(part.ref) !== part.kind) words.push(`kind=${part.kind}`);
  const marked = markedValue(part);
  if (typeof marked === 'number') words.push(valueWord(marked, info.value));
  if (part.model !== undefined) words.push(modelWord(part, part.model));
  if (part.tolerance !== undefined)
    words.push(`${formatPlain(part.tolerance * 100, 6).replace(/\.?0+$/, '')}%`);
  words.push(...pinWords(part));
  if (part.kind === 'switch' || part.kind === 'jumper' || part.kind === 'fuse')
    if (part.closed === false) words.push('open');
  if (isPolarised(part) && part.technology !== 'electrolytic' && part.technology !== 'tantalum')
    words.push('polarised');
  if (part.technology !== undefined) words.push(technologyWord(part.technology));
  for (const { name, field, value } of partFields(part))
    if (!SAID_ELSEWHERE.includes(name)) words.push(fieldWord(name, field, value));
  const params = new Map<string, unknown>(Object.entries(part.params ?? {}));
  for (const name of Object.keys(definitionOf(part.kind).params)) {
    const value = params.get(name);
    if (typeof value === 'number') words.push(`${name}=${value}`);
  }
  return words.filter((w) => w !== '').join(' ');
}

/** A type number: bare where it is known for one, behind `model=` where it could be taken for something else. */
function modelWord(part: Part, model: string): string {
  if (!/^[^\s=]+$/.test(model)) return '';
  return modelNamed(model, part.kind) ? model : `model=${model}`;
}

const SAID_ELSEWHERE: readonly string[] = ['tolerance', 'technology', 'polarised', 'closed'];

/** A field as `name=value`; empty where it says nothing, or something that a line, cut at its spaces, cannot. */
function fieldWord(name: string, field: Field, value: unknown): string {
  if (value === undefined || value === null) return '';
  if (field.type === 'quantity')
    return typeof value === 'number' ? `${name}=${exactText(value, field.of)}` : '';
  if (field.type === 'flag') return `${name}=${value === true ? 'yes' : 'no'}`;
  return typeof value === 'string' && /^[^\s=]+$/.test(value) ? `${name}=${value}` : '';
}

/** Nets by position for two pins, by name for more. */
function pinWords(part: Part): string[] {
  const { pins } = KINDS[part.kind];
  const entries = Object.entries(part.pins).sort(([a], [b]) => rank(pins, a) - rank(pins, b));
  const isPlain = pins.length === 2 && entries.length === 2 && entries.every(([pin]) => pins.includes(pin));
  return isPlain ? entries.map(([, net]) => net) : entries.map(([pin, net]) => `${pin}=${net}`);
}

const rank = (pins: readonly string[], pin: string) => (pins.includes(pin) ? pins.indexOf(pin) : pins.length);

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
  const text = exactText(value, quantity ?? 'number');
  // Bare digits could be taken for a digit code: 892 ohm is written 892R.
  if (quantity === 'resistor' && /^[\d.]+$/.test(text)) return `${text}R`;
  const letter = quantity === null ? undefined : UNIT_LETTER[quantity];
  return letter === undefined || text.endsWith(letter) ? text : `${text}${letter}`;
}
