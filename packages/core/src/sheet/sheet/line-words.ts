import {
  COMMON_FIELDS,
  definitionOf,
  PART_KINDS,
  wordOf,
  type Field,
  type PartKind,
  type QuantityField,
} from '@zemble/contract';
import { KINDS } from '../../circuit/circuit/index.ts';

/** Fields that a word of a line sets. */
export type WordFields = Readonly<Record<string, string | boolean>>;

/** Words that set more than the one field they are listed for, and other spellings. */
const SPECIAL: Readonly<Partial<Record<PartKind, Readonly<Record<string, WordFields>>>>> = {
  capacitor: {
    polarised: { polarised: true },
    electrolytic: { polarised: true, technology: 'electrolytic' },
    tantalum: { polarised: true, technology: 'tantalum' },
    bipolar: { polarised: false, technology: 'electrolytic' },
    'non-polar': { polarised: false, technology: 'electrolytic' },
    nonpolar: { polarised: false, technology: 'electrolytic' },
  },
  switch: { open: { closed: false }, closed: { closed: true } },
  jumper: { open: { closed: false }, closed: { closed: true } },
  fuse: { open: { closed: false }, blown: { closed: false }, closed: { closed: true } },
  jack: { empty: { inserted: false }, plugged: { inserted: true } },
};
/** Fields whose words are too short, or too much like the names of nets, to stand alone. */
const NEVER_ALONE: readonly string[] = ['position'];
/** Kinds with values of their own whose technology is said by a word. */
const hasTechnology = (kind: PartKind) => {
  const { value } = KINDS[kind];
  return value === 'resistor' || value === 'capacitor' || value === 'inductor';
};

/** The fields of a kind by their names: those of all kinds, its own, and the parameters of its equations. */
export function fieldsOf(kind: PartKind): Readonly<Record<string, Field>> {
  const { fields, params } = definitionOf(kind);
  return { ...COMMON_FIELDS, ...params, ...fields };
}

/** The name of a field as the kind has it, however its letters are typed; the exact spelling wins. */
export function fieldNamed(kind: PartKind, name: string): string | undefined {
  const names = Object.keys(fieldsOf(kind));
  return names.find((n) => n === name) ?? names.find((n) => n.toLowerCase() === name.toLowerCase());
}

/** What a word of a line says of a part of a kind; undefined when it is no word of the grammar. */
export function wordFields(kind: PartKind, word: string): WordFields | undefined {
  const lower = word.toLowerCase();
  const special = Object.entries(SPECIAL[kind] ?? {}).find(([w]) => w === lower)?.[1];
  if (special) return special;
  for (const [name, field] of Object.entries(fieldsOf(kind))) {
    if (field.type !== 'word' || NEVER_ALONE.includes(name)) continue;
    if (name === 'technology' && !hasTechnology(kind)) continue;
    // Two words are joined by a hyphen on a line, which is cut at its spaces.
    const found = wordOf(field, lower) ?? wordOf(field, lower.replace(/-/g, ' '));
    if (found !== undefined) return { [name]: found };
  }
  return undefined;
}

/** The word of a line that stands for a technology. */
export const technologyWord = (technology: string): string => technology.replace(/ /g, '-');

/** The kind that a word of a line stands for: its own name, or a word of the trade. */
export function kindOfWord(word: string): PartKind | undefined {
  const lower = word.toLowerCase();
  return (
    PART_KINDS.find((kind) => kind.toLowerCase() === lower) ??
    PART_KINDS.find((kind) => definitionOf(kind).kindWords?.includes(lower)) ??
    POLARITY_KINDS[lower]
  );
}
const POLARITY_KINDS: Readonly<Record<string, PartKind | undefined>> = { npn: 'bjt', pnp: 'bjt' };

/** Fields told by their unit alone: a rated voltage, a rated power, a frequency. */
const BY_UNIT: readonly (readonly [unit: RegExp, field: string])[] = [
  [/hz$/i, 'frequency'],
  [/\dv$/i, 'voltage'],
  [/w$/i, 'power'],
  [/^\d+\s*°?c$/i, 'ratedC'],
];

/** Quantity fields of a kind that a value may be of by its unit, in the order in which they are tried. */
export const fieldsByUnit = (kind: PartKind, word: string): (readonly [string, QuantityField])[] =>
  BY_UNIT.flatMap(([unit, name]) => {
    const field = unit.test(word) ? fieldsOf(kind)[name] : undefined;
    return field?.type === 'quantity' ? [[name, field] as const] : [];
  });

/** "10:1" as turns of the primary to one of the secondary; undefined for what is no such ratio. */
export function turnsRatio(word: string): number | undefined {
  const match = /^(\d+(?:\.\d+)?):(\d+(?:\.\d+)?)$/.exec(word);
  const ratio = match ? Number(match[1]) / Number(match[2]) : Number.NaN;
  return ratio > 0 && Number.isFinite(ratio) ? ratio : undefined;
}

/** Letters printed on potentiometers of today for their taper (JIS and common practice): what is understood is shown. */
const TAPER_LETTERS: Readonly<Record<string, string>> = { A: 'log', B: 'linear', C: 'antilog' };

/** "A10k" or "10kB": the value and the taper of a potentiometer's code; undefined when it is none. */
export function potCode(word: string): { value: string; taper: string } | undefined {
  const match = /^([ABC])(\d.*)$/.exec(word) ?? /^(\d.*?)([ABC])$/.exec(word);
  if (!match) return undefined;
  const [letter, value] = /^[ABC]$/.test(match[1]!) ? [match[1]!, match[2]!] : [match[2]!, match[1]!];
  return { value, taper: TAPER_LETTERS[letter]! };
}
