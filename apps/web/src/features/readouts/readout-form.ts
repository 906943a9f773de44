import {
  readoutDefinitionOf,
  type Field,
  type FileReadout,
  type QuantityField,
  type Readout,
  type ReadoutKind,
} from '@zemble/contract';
import {
  controlState,
  describeReadout,
  exactText,
  formatWant,
  netsOf,
  parseValue,
  parseWant,
  quantityOf,
  readoutFields,
  readReadout,
  resolveLayer,
  unitOf,
  type Problem,
  type UnitDocument,
} from '@zemble/core';

/** What a form holds of a readout: a text, a choice, a tick, or two choices, by the field's name. */
export type FormValues = Readonly<Record<string, unknown>> & {
  readonly kind: ReadoutKind;
  readonly name?: string;
  readonly want?: string;
};

export interface Choice {
  readonly value: string;
  readonly label?: string;
}
export interface ChoiceGroup {
  readonly label: string;
  readonly options: readonly Choice[];
}

/** What can be chosen for a field that names something, in groups where it may be one of two sorts. */
export function choicesFor(field: Field, document: UnitDocument): readonly (Choice | ChoiceGroup)[] {
  if (field.type === 'word')
    return field.words.map((value) => ({ value, label: field.captions?.[value] ?? value }));
  if (field.type === 'settings') return settingsOf(document);
  if (field.type !== 'name') return [];
  const { parts } = document.circuit;
  const nets = netsOf(document.circuit).map((value) => ({ value }));
  const ofKind = (...kinds: string[]) =>
    parts.filter((p) => kinds.includes(p.kind)).map((p) => ({ value: p.ref }));
  switch (field.of) {
    case 'net':
      return nets;
    case 'net or source':
      return [
        { label: 'A net, whatever drives it', options: nets },
        {
          label: 'A source, its resistance in the way',
          options: ofKind('signal').map(({ value }) => ({ value, label: `${value}, its EMF` })),
        },
      ];
    case 'part':
      return parts.map((p) => ({ value: p.ref }));
    case 'source':
      return ofKind('signal', 'supply');
    case 'supply':
      return ofKind('supply');
    case 'control':
      return resolveLayer(document.circuit, 'marked')
        .parts.filter((p) => p.kind === 'potentiometer' && controlState(p) !== undefined)
        .map((p) => ({ value: p.ref }));
    case 'readout':
      return document.readouts
        .filter((r) => r.kind !== 'range' && r.kind !== 'overlap')
        .map((r) => ({ value: r.id, label: r.name }));
    case 'setting':
      return settingsOf(document);
  }
}

const settingsOf = ({ settings = [] }: UnitDocument): Choice[] =>
  settings.map((s) => ({ value: s.id, label: s.name ?? s.id }));

/** Why a typed value cannot be taken; undefined when it can. */
export function typedProblem(field: QuantityField, text: string): string | undefined {
  const parsed = parseValue(text, { kind: field.of, purpose: 'reading' });
  if (!parsed.ok)
    return `"${text}" cannot be read here${field.example ? `; write it like ${field.example}` : ''}.`;
  return undefined;
}

/** Why a wanted range cannot be taken; undefined when it can. */
export function wantProblem(text: string, values: FormValues, document: UnitDocument): string | undefined {
  const { readout } = draftOf(values, 'draft', document);
  return parseWant(text, quantityOf(readout, document.readouts)) === undefined
    ? `"${text}" cannot be read as a wanted range.`
    : undefined;
}

/** What a new form begins with, or the fields of a readout as they are typed. */
export function initialValues(readout: Readout | null, document: UnitDocument): FormValues {
  if (!readout) return usualValues('gain');
  const fields = readoutFields(readout).flatMap(({ name, field, value }) => {
    if (value === undefined) return [];
    return [[name, field.type === 'quantity' ? textOf(field, Number(value)) : value] as const];
  });
  return {
    ...Object.fromEntries(fields),
    kind: readout.kind,
    name: readout.name,
    want: formatWant(readout.want, unitOf(readout, document.readouts)),
  };
}

/** The values that a kind's fields usually have, as they are typed. */
export function usualValues(kind: ReadoutKind): FormValues {
  const fields = Object.entries(readoutDefinitionOf(kind).fields).flatMap(([name, field]) => {
    if (field.type === 'quantity' && field.isNeeded === true && field.example !== undefined)
      return [[name, field.example] as const];
    if (field.type === 'word') return [[name, field.usual ?? field.words[0]] as const];
    return [];
  });
  return { ...Object.fromEntries(fields), kind };
}

const textOf = (field: QuantityField, value: number): string =>
  field.of === 'ratio' ? `${Number((100 * value).toPrecision(6))} %` : exactText(value, field.of);

/** The readout that a form says, with what could not be read of it. */
export function draftOf(
  values: FormValues,
  id: string,
  document: UnitDocument,
): { readout: Readout; problems: readonly Problem[] } {
  const definition = readoutDefinitionOf(values.kind);
  const given = new Map(Object.entries(values));
  const fields = Object.keys(definition.fields).flatMap((name) => {
    const value = given.get(name);
    return value === undefined || value === '' || value === null ? [] : [[name, value] as const];
  });
  const problems: Problem[] = [];
  const file = { ...Object.fromEntries(fields), id, name: values.name?.trim() || id, kind: values.kind };
  const read = readReadout(file as FileReadout, 'The readout', problems, document.readouts);
  const want = parseWant(values.want ?? '', quantityOf(read, document.readouts));
  const name = values.name?.trim() || `${definition.words}: ${describeReadout(read)}`;
  return { readout: { ...read, name, ...(want && Object.keys(want).length > 0 ? { want } : {}) }, problems };
}

/** An id that no readout of the unit has. */
export function newReadoutId(kind: string, taken: readonly string[]): string {
  for (let n = 1; ; n += 1) if (!taken.includes(`${kind}${n}`)) return `${kind}${n}`;
}
