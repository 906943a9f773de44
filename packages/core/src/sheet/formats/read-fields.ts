import {
  COMMON_FIELDS,
  definitionOf,
  LAYERS,
  quantityRange,
  READOUT_COMMON_FIELDS,
  readoutDefinitionOf,
  WANT_ENDS,
  whyNotWord,
  wordOf,
  type Field,
  type FilePart,
  type FileReadout,
  type MeasuredParams,
  type OwnModel,
  type Part,
  type PartKind,
  type QuantityField,
  type Readout,
  type Want,
} from '@zemble/contract';
import { KINDS, type LayerValue } from '../../circuit/circuit/index.ts';
import { regulatorType } from '../../circuit/models/index.ts';
import { problem, type Problem } from '../../base/errors/index.ts';
import { parseValue, type QuantityKind } from '../../base/quantity/index.ts';

/** Takes what is wrong with one field: where it is, and why. */
type Report = (where: string, detail: string) => void;

const reporter =
  (problems: Problem[]): Report =>
  (where, detail) =>
    void problems.push(problem('file/invalid', { where, detail: detail.replace(/\.$/, '') }));

/** A number in SI units from a number or text; reports and gives undefined when it cannot be read. */
function numberFrom(
  value: number | string,
  kind: QuantityKind,
  purpose: 'marking' | 'reading',
  where: string,
  report: Report,
): number | undefined {
  if (typeof value === 'number') {
    if (Number.isFinite(value)) return value;
    report(where, 'it is not a finite number');
    return undefined;
  }
  const parsed = parseValue(value, { kind, purpose });
  if (parsed.ok) return parsed.readings[0].value;
  report(where, parsed.problem.message);
  return undefined;
}

function quantityFrom(
  value: unknown,
  field: QuantityField,
  where: string,
  report: Report,
): number | undefined {
  if (typeof value !== 'number' && typeof value !== 'string') {
    report(where, 'it is neither a number nor text such as "4k7"');
    return undefined;
  }
  const number = numberFrom(value, field.of, 'reading', where, report);
  if (number === undefined) return undefined;
  const outside = quantityRange(field, number);
  if (outside === undefined) return number;
  report(where, `${JSON.stringify(value)} is not ${outside}`);
  return undefined;
}

/** The value of a field once it has been read; reports and gives undefined when it cannot be. */
function fieldFrom(value: unknown, field: Field, where: string, report: Report): unknown {
  switch (field.type) {
    case 'quantity':
      return quantityFrom(value, field, where, report);
    case 'word': {
      const word = typeof value === 'string' ? wordOf(field, value) : undefined;
      if (word === undefined) report(where, whyNotWord(field, String(value)));
      return word;
    }
    case 'flag':
      if (typeof value === 'boolean') return value;
      report(where, 'it is neither true nor false');
      return undefined;
    default:
      return value;
  }
}

const layerFrom = (value: unknown, kind: QuantityKind, where: string, report: Report): LayerValue => {
  if (value === null || value === 'open' || value === 'short') return value;
  if (typeof value === 'number' || typeof value === 'string')
    return numberFrom(value, kind, 'marking', where, report) ?? null;
  report(where, 'it is no value');
  return null;
};

/** A main value from a file or a request: a number in SI units, dead, or nothing; what cannot be read is reported. */
export const readMainValue = (
  value: unknown,
  kind: PartKind,
  where: string,
  problems: Problem[],
): LayerValue => layerFrom(value, KINDS[kind].value ?? 'number', where, reporter(problems));

/** A part whose fields have not been read yet: whatever they are, they are checked one by one. */
export type UnreadPart = Pick<FilePart, 'ref' | 'kind' | 'pins'> & {
  readonly params?: Readonly<Record<string, unknown>> | undefined;
  readonly foundParams?: Readonly<Record<string, unknown>> | undefined;
};

/**
 * A part from a file or a request, every text a number in SI units and every word as it is listed; parameters that stand
 * beside the main value move to `params`, where those win. What cannot be read is left out and reported with its place;
 * names that the kind does not know are kept as they are.
 */
export function readPart(file: UnreadPart, where: string, problems: Problem[]): Part {
  const report = reporter(problems);
  const { fields, params } = definitionOf(file.kind);
  const beside = new Map<string, unknown>(Object.entries(file));
  const inside = new Map<string, unknown>(Object.entries(file.params ?? {}));
  for (const layer of LAYERS) {
    const value = layer === 'planned' ? undefined : beside.get(layer);
    if (value !== undefined)
      beside.set(layer, layerFrom(value, KINDS[file.kind].value ?? 'number', `${where}.${layer}`, report));
  }
  for (const [name, field] of Object.entries({ ...COMMON_FIELDS, ...fields })) {
    const isInside = inside.has(name);
    const value = isInside ? inside.get(name) : beside.get(name);
    inside.delete(name);
    if (value === undefined || value === null) continue;
    const read = fieldFrom(value, field, `${where}.${isInside ? 'params.' : ''}${name}`, report);
    if (read === undefined) beside.delete(name);
    else beside.set(name, read);
  }
  for (const [name, field] of Object.entries(params)) {
    const isInside = inside.has(name);
    const value = isInside ? inside.get(name) : beside.get(name);
    beside.delete(name);
    if (value === undefined || value === null) continue;
    const read = quantityFrom(value, field, `${where}.${isInside ? 'params.' : ''}${name}`, report);
    if (read === undefined) inside.delete(name);
    else inside.set(name, read);
  }
  if (file.kind === 'regulator') asItsType(beside);
  // What is planned for a part is a change.
  beside.delete('planned');
  if (inside.size > 0) beside.set('params', Object.fromEntries(inside));
  else beside.delete('params');
  if (file.foundParams !== undefined && file.foundParams !== null)
    beside.set('foundParams', readMeasured(file, where, report));
  return Object.fromEntries(beside) as object as Part;
}

/** A regulator holds what its type number says, with the sign of its type: "-12 V" of a 7912 that is written as 12 V. */
function asItsType(fields: Map<string, unknown>): void {
  const { model } = Object.fromEntries(fields);
  const type = typeof model === 'string' ? regulatorType(model) : undefined;
  if (!type) return;
  const marked = fields.get('marked');
  if (marked === undefined || marked === null) fields.set('marked', type.volt);
  else if (typeof marked === 'number') fields.set('marked', Math.sign(type.volt) * Math.abs(marked));
}

/** What was measured beside the main value: fields and parameters that the kind has, with numbers. */
function readMeasured(file: UnreadPart, where: string, report: Report): MeasuredParams {
  const { fields, params } = definitionOf(file.kind);
  const known: Readonly<Record<string, Field>> = { ...fields, ...params };
  return Object.fromEntries(
    Object.entries(file.foundParams ?? {}).flatMap(([name, value]) => {
      const place = `${where}.foundParams.${name}`;
      const field = Object.hasOwn(known, name) ? known[name] : undefined;
      if (field?.type !== 'quantity') {
        report(place, `a ${definitionOf(file.kind).words} has no number of that name`);
        return [];
      }
      const read = quantityFrom(value, field, place, report);
      return read === undefined ? [] : [[name, read] as const];
    }),
  );
}

/** A readout from a file or a request, as `readPart` reads a part. */
export function readReadout(
  file: FileReadout,
  where: string,
  problems: Problem[],
  others: readonly FileReadout[] = [],
): Readout {
  const report = reporter(problems);
  const values = new Map<string, unknown>(Object.entries(file));
  const fields = { ...READOUT_COMMON_FIELDS, ...readoutDefinitionOf(file.kind).fields };
  for (const [name, field] of Object.entries(fields)) {
    const value = values.get(name);
    if (value === undefined || value === null) continue;
    const read = fieldFrom(value, field, `${where}.${name}`, report);
    if (read === undefined) values.delete(name);
    else values.set(name, read);
  }
  const want = file.want && readWant(file.want, quantityWanted(file, others), `${where}.want`, report);
  if (want) values.set('want', want);
  else values.delete('want');
  return Object.fromEntries(values) as object as Readout;
}

/** What a wanted value is of: a range's are those of the readout it is of. */
function quantityWanted(file: FileReadout, others: readonly FileReadout[]): QuantityKind {
  if (file.kind !== 'range') return readoutDefinitionOf(file.kind).quantity;
  const other = others.find((r) => r.id === file.of);
  return other && file.in !== 'semitones' ? readoutDefinitionOf(other.kind).quantity : 'number';
}

function readWant(
  file: NonNullable<FileReadout['want']>,
  kind: QuantityKind,
  where: string,
  report: Report,
): Want | undefined {
  const given = new Map<string, number | string | undefined>(Object.entries(file));
  const read = new Map<string, number>();
  for (const end of WANT_ENDS) {
    const value = given.get(end);
    if (value === undefined || value === null) continue;
    const number = numberFrom(value, kind, 'reading', `${where}.${end}`, report);
    if (number !== undefined) read.set(end, number);
  }
  const want: Want = Object.fromEntries(read);
  if (want.min !== undefined && want.max !== undefined && want.min > want.max) {
    report(where, `its min ${want.min} is above its max ${want.max}`);
    return undefined;
  }
  if (want.within !== undefined && want.within < 0) {
    report(`${where}.within`, 'it is below zero');
    return undefined;
  }
  if (want.within !== undefined && want.target === undefined) {
    report(`${where}.within`, 'there is no target that it belongs to');
    return undefined;
  }
  if (read.size === 0) return undefined;
  return file.wish === undefined ? want : { ...want, wish: file.wish };
}

/** A model that a unit brings along, its parameters as numbers and its polarity as it is listed. */
export function readModel(file: OwnModel, where: string, problems: Problem[]): OwnModel {
  const report = reporter(problems);
  const { params, fields } = definitionOf(file.kind);
  const known = new Map<string, Field>([...Object.entries(params), ...Object.entries(fields)]);
  const read = new Map<string, number | string>();
  for (const [name, value] of Object.entries(file.params)) {
    const field = known.get(name);
    const result = field ? fieldFrom(value, field, `${where}.params.${name}`, report) : value;
    if (typeof result === 'number' || typeof result === 'string') read.set(name, result);
  }
  return { ...file, params: Object.fromEntries(read) };
}
