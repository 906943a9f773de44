import {
  COMMON_FIELDS,
  definitionOf,
  READOUT_COMMON_FIELDS,
  readoutDefinitionOf,
  type Field,
  type Fields,
  type PartKind,
  type Readout,
} from '@zemble/contract';
import { closest, distance } from 'fastest-levenshtein';
import type { Part } from './part.ts';

/** A field of a part or readout with what it says there; undefined where it says nothing. */
export interface FieldEntry {
  readonly name: string;
  readonly field: Field;
  readonly value: unknown;
}

function entriesOf(of: object, fields: Fields): FieldEntry[] {
  const values = new Map<string, unknown>(Object.entries(of));
  return Object.entries(fields).map(([name, field]) => ({ name, field, value: values.get(name) }));
}

/** The fields of a part beside its main value, those common to all kinds first. */
export const partFields = (part: Pick<Part, 'kind'>): FieldEntry[] =>
  entriesOf(part, { ...COMMON_FIELDS, ...definitionOf(part.kind).fields });

/** The fields of a readout. */
export const readoutFields = (readout: Pick<Readout, 'kind'>): FieldEntry[] =>
  entriesOf(readout, { ...readoutDefinitionOf(readout.kind).fields, ...READOUT_COMMON_FIELDS });

const PART_KEYS = [
  'ref',
  'kind',
  'pins',
  'saidPins',
  'pinNotes',
  'body',
  'marked',
  'found',
  'foundParams',
  'planned',
  'proven',
  'model',
  'params',
  'value',
];
const READOUT_KEYS = ['id', 'name', 'kind', 'want'];

/** A name that a kind does not know, with the known one that it resembles. */
export interface UnknownName {
  readonly name: string;
  readonly resembles?: string;
}

/** Two names further apart than this part of their length are not alike. */
const LARGEST_DISTANCE = 0.5;

/** The known name that a text resembles, in whatever case; undefined when none does. */
export function resembling(name: string, known: readonly string[]): string | undefined {
  if (known.length === 0) return undefined;
  const lower = name.toLowerCase();
  const nearest = closest(
    lower,
    known.map((k) => k.toLowerCase()),
  );
  if (distance(lower, nearest) > LARGEST_DISTANCE * name.length) return undefined;
  return known.find((k) => k.toLowerCase() === nearest);
}

function unknownNames(names: readonly string[], known: readonly string[]): UnknownName[] {
  return names
    .filter((name) => !known.includes(name))
    .map((name) => {
      const resembles = resembling(name, known);
      return { name, ...(resembles === undefined ? {} : { resembles }) };
    });
}

/** Names beside a part's value, and in its `params`, that its kind does not know. */
export function unknownPartNames(part: Pick<Part, 'kind' | 'params'>): UnknownName[] {
  const { fields, params } = definitionOf(part.kind);
  const meant = [...Object.keys(params), ...Object.keys(fields), ...Object.keys(COMMON_FIELDS)];
  const own = Object.entries(part)
    .filter(([, value]) => value !== undefined)
    .map(([name]) => name)
    .filter((name) => !PART_KEYS.includes(name));
  return unknownNames([...own, ...Object.keys(part.params ?? {})], meant);
}

/** Names of a readout that its kind does not know. */
export function unknownReadoutNames(readout: Pick<Readout, 'kind'>): UnknownName[] {
  const known = [
    ...Object.keys(readoutDefinitionOf(readout.kind).fields),
    ...Object.keys(READOUT_COMMON_FIELDS),
  ];
  const own = Object.entries(readout)
    .filter(([, value]) => value !== undefined)
    .map(([name]) => name)
    .filter((name) => !READOUT_KEYS.includes(name));
  return unknownNames(own, known);
}

/** Names of an own model's parameters that its kind does not know. */
export function unknownModelNames(kind: PartKind, params: Readonly<Record<string, unknown>>): UnknownName[] {
  const known = [...Object.keys(definitionOf(kind).params), ...Object.keys(definitionOf(kind).fields)];
  return unknownNames(Object.keys(params), known);
}
