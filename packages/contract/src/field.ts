import { z } from 'zod';
import { QUANTITY_KINDS, type QuantityKind } from './quantity.ts';

/**
 * What one field of a part or readout holds. Schemas, types, the reader, the words of a sheet line, the page's forms
 * and the tables of docs/unit-file.md all follow from these.
 */
export type Field =
  QuantityField | WordField | FlagField | TextField | SamplesField | NameField | SettingPairField;

interface Described {
  /** The label of a form: "At frequency". */
  readonly label: string;
  /** True when nothing can be computed without it. */
  readonly isNeeded?: boolean;
}

/** A number in SI units, or text in any notation of the trade. */
export interface QuantityField extends Described {
  readonly type: 'quantity';
  readonly of: QuantityKind;
  /** Valid range, both ends included; `above` excludes its end. */
  readonly min?: number;
  readonly above?: number;
  readonly max?: number;
  /** What holds when nothing is said. */
  readonly usual?: number;
  /** True where 0 stands for infinity, which a file cannot write. */
  readonly isOffAtZero?: boolean;
  /** What stands in an empty field of a form. */
  readonly example?: string;
}

/** One of a few words, in any case; synonyms of the trade are understood. */
export interface WordField<W extends string = string> extends Described {
  readonly type: 'word';
  readonly words: readonly W[];
  readonly synonyms?: Readonly<Record<string, W>>;
  /** Words that mean one thing to some makers and another to others, with the sentence that says so. */
  readonly ambiguous?: Readonly<Record<string, string>>;
  readonly usual?: W;
  /** What a form calls each word. */
  readonly captions?: Readonly<Partial<Record<W, string>>>;
}

export interface FlagField extends Described {
  readonly type: 'flag';
  readonly usual?: boolean;
}

export interface TextField extends Described {
  readonly type: 'text';
  readonly longest: number;
}

/** A sampled wave: plain numbers. */
export interface SamplesField extends Described {
  readonly type: 'samples';
}

/** A name of something else in the unit. */
export interface NameField extends Described {
  readonly type: 'name';
  readonly of: 'net' | 'net or source' | 'part' | 'source' | 'supply' | 'readout' | 'setting' | 'control';
}

/** Two settings by their ids. */
export interface SettingPairField extends Described {
  readonly type: 'settings';
}

export type Fields = Readonly<Record<string, Field>>;

/** The value of a field once it has been read: numbers in SI units, words as listed. */
export type FieldValue<F> = F extends { readonly type: 'quantity' }
  ? number
  : F extends { readonly type: 'word'; readonly words: readonly (infer W)[] }
    ? W
    : F extends { readonly type: 'flag' }
      ? boolean
      : F extends { readonly type: 'samples' }
        ? readonly number[]
        : F extends { readonly type: 'settings' }
          ? readonly [string, string]
          : string;

/** The value of a field as a file may have it. */
export type FileFieldValue<F> = F extends { readonly type: 'quantity' } ? number | string : FieldValue<F>;

export type FieldValues<F extends Fields> = {
  readonly [K in keyof F]?: FieldValue<F[K]> | undefined;
};
export type FileFieldValues<F extends Fields> = {
  readonly [K in keyof F]?: FileFieldValue<F[K]> | undefined;
};

/** The listed word that a text stands for, in any case and by its synonyms; undefined when it stands for none. */
export function wordOf<W extends string>(field: WordField<W>, text: string): W | undefined {
  const wanted = text.trim().toLowerCase();
  const listed = field.words.find((w) => w.toLowerCase() === wanted);
  if (listed !== undefined) return listed;
  const known = Object.entries(field.synonyms ?? {}).find(([synonym]) => synonym.toLowerCase() === wanted);
  return known === undefined ? undefined : (known[1] as W);
}

/** Why a word is refused, as the end of a sentence: what it could mean, or the words there are. */
export function whyNotWord(field: WordField, text: string): string {
  const wanted = text.trim().toLowerCase();
  const doubt = Object.entries(field.ambiguous ?? {}).find(([word]) => word.toLowerCase() === wanted)?.[1];
  return doubt ?? `"${text}" is none of ${field.words.join(', ')}`;
}

export const quantitySchema = z.union([z.number(), z.string().min(1).max(64)]).meta({
  description: 'A number in SI units, or text such as "4k7", "100n", "0.022u".',
});
export const netNameSchema = z.string().trim().min(1).max(64);

const LARGEST_SAMPLES = 500_000;

/** The schema of a field as a file may have it. Text of quantities is read by the core, which knows the notations. */
export function fieldSchema(field: Field): z.ZodType {
  const described = <S extends z.ZodType>(schema: S, more = ''): S =>
    schema.meta({ description: `${field.label}${more}` });
  switch (field.type) {
    case 'quantity':
      return described(
        z.union([z.number(), z.string().min(1).max(64)], {
          error: 'it is neither a number nor text such as "4k7"',
        }),
        rangeText(field),
      );
    case 'word':
      return described(
        z.preprocess(
          (value) => (typeof value === 'string' ? (wordOf(field, value) ?? value) : value),
          z.enum(field.words as [string, ...string[]], {
            error: (issue) =>
              typeof issue.input === 'string'
                ? whyNotWord(field, issue.input)
                : `it is none of ${field.words.join(', ')}`,
          }),
        ),
      );
    case 'flag':
      return described(z.boolean());
    case 'text':
      return described(z.string().max(field.longest));
    case 'samples':
      return described(z.array(z.number()).max(LARGEST_SAMPLES));
    case 'settings':
      return described(z.tuple([z.string().min(1).max(64), z.string().min(1).max(64)]));
    case 'name':
      return described(z.string().trim().min(1).max(64), `: a ${field.of}`);
  }
}

/** Where a number must lie and does not: "above 0", "from 0 to 1"; undefined when it lies there. */
export function quantityRange(
  { min, above, max, isOffAtZero }: QuantityField,
  value: number,
): string | undefined {
  if (isOffAtZero === true && value === 0) return undefined;
  const isIn =
    (min === undefined || value >= min) &&
    (above === undefined || value > above) &&
    (max === undefined || value <= max);
  if (isIn) return undefined;
  const low = above === undefined ? (min === undefined ? '' : `from ${min}`) : `above ${above}`;
  return [low, max === undefined ? '' : `up to ${max}`].filter((w) => w !== '').join(' and ');
}

/** ", ohm, above 0, usually 50": what a quantity is in and where it is valid. */
export function rangeText(field: QuantityField): string {
  const unit = QUANTITY_KINDS[field.of];
  const words = [
    unit,
    field.above === undefined ? '' : `above ${field.above}`,
    field.min === undefined ? '' : `from ${field.min}`,
    field.max === undefined ? '' : `up to ${field.max}`,
    field.usual === undefined || !Number.isFinite(field.usual) ? '' : `usually ${field.usual}`,
    field.isOffAtZero === true ? '0 is none' : '',
  ].filter((w) => w !== '');
  return words.length === 0 ? '' : `, ${words.join(', ')}`;
}

/** The schemas of several fields, each optional. */
export const shapeOf = (fields: Fields): Record<string, z.ZodType> =>
  Object.fromEntries(Object.entries(fields).map(([name, field]) => [name, fieldSchema(field).optional()]));

type Options<F> = Partial<Omit<F, 'type' | 'of' | 'label' | 'words'>>;

/** Fields by their short names, for the definitions. */
export const field = {
  quantity: <const K extends QuantityKind, const O extends Options<QuantityField>>(
    of: K,
    label: string,
    options?: O,
  ) => ({ type: 'quantity', of, label, ...options }) as { type: 'quantity'; of: K; label: string } & O,
  word: <const W extends string>(words: readonly W[], label: string, options?: Options<WordField<W>>) =>
    ({ type: 'word', words, label, ...options }) as WordField<W>,
  flag: (label: string, options?: Options<FlagField>): FlagField => ({ type: 'flag', label, ...options }),
  text: (label: string, longest: number): TextField => ({ type: 'text', label, longest }),
  samples: (label: string): SamplesField => ({ type: 'samples', label }),
  name: (of: NameField['of'], label: string, options?: Options<NameField>): NameField => ({
    type: 'name',
    of,
    label,
    ...options,
  }),
  settings: (label: string): SettingPairField => ({ type: 'settings', label, isNeeded: true }),
} as const;
