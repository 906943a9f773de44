import type { Field, Fields } from './field.ts';
import { definitionOf, PART_KINDS } from './parts/index.ts';
import { COMMON_FIELDS } from './parts/part.ts';
import { QUANTITY_KINDS } from './quantity.ts';
import { READOUT_KINDS, readoutDefinitionOf } from './readouts/index.ts';

/** What a field holds, for a table: its unit or its words, and what is taken without it. */
function fieldText(name: string, field: Field): string {
  const code = `\`${name}\``;
  switch (field.type) {
    case 'quantity': {
      const unit = QUANTITY_KINDS[field.of];
      const usual =
        field.usual === undefined ? '' : Number.isFinite(field.usual) ? String(field.usual) : 'none';
      return [code, unit, usual === '' ? '' : `(${usual})`].filter((w) => w !== '').join(' ');
    }
    case 'word':
      return `${code} ${field.words.join(', ')}${field.usual === undefined ? '' : ` (${field.usual})`}`;
    case 'flag':
      return `${code} true or false${field.usual === undefined ? '' : ` (${field.usual})`}`;
    case 'samples':
      return `${code} numbers`;
    case 'settings':
      return `${code} two settings`;
    case 'name':
      return `${code} ${field.of}`;
    case 'text':
      return code;
  }
}

const fieldsText = (fields: Fields): string =>
  Object.entries(fields)
    .map(([name, field]) => fieldText(name, field))
    .join('; ');

const table = (heads: readonly string[], rows: readonly (readonly string[])[]): string =>
  [heads, heads.map(() => '---'), ...rows].map((cells) => `| ${cells.join(' | ')} |`).join('\n');

/** The kinds of part with their pins, main value, fields and parameters, as docs/unit-file.md has them. */
export function partTable(): string {
  const rows = PART_KINDS.map((kind) => {
    const { pins, optionalPins = [], hasFreePins, value, fields, params } = definitionOf(kind);
    const named = pins.map((pin) => (optionalPins.includes(pin) ? `[${pin}]` : pin));
    return [
      kind,
      [...named, ...(hasFreePins === true ? ['any'] : [])].join(' '),
      value === null ? '' : QUANTITY_KINDS[value] || 'a number',
      fieldsText(fields),
      fieldsText(params),
    ];
  });
  return `${table(['kind', 'pins', 'value', 'fields', 'parameters'], rows)}\n\nEvery kind may have ${fieldsText(COMMON_FIELDS)}.`;
}

/** The kinds of readout with their unit and fields, as docs/unit-file.md has them. */
export function readoutTable(): string {
  const rows = READOUT_KINDS.map((kind) => {
    const { words, unit, fields } = readoutDefinitionOf(kind);
    const [needed, others] = [true, false].map((isNeeded) =>
      fieldsText(
        Object.fromEntries(Object.entries(fields).filter(([, f]) => (f.isNeeded === true) === isNeeded)),
      ),
    );
    return [kind, words, unit, needed!, others!];
  });
  return table(['kind', 'what it is', 'unit', 'needed', 'may be given'], rows);
}

const TABLES = { kinds: partTable, readouts: readoutTable } as const;

/** A document with the tables between its marks written anew. Throws when a mark is missing. */
export function withTables(document: string): string {
  return Object.entries(TABLES).reduce((text, [name, make]) => {
    const [begin, end] = [`<!-- ${name} -->\n`, `\n<!-- end of ${name} -->`];
    const [from, to] = [text.indexOf(begin), text.indexOf(end)];
    if (from < 0 || to < from) throw new Error(`The document has no place for the table of ${name}.`);
    return `${text.slice(0, from + begin.length)}\n${make()}\n${text.slice(to)}`;
  }, document);
}
