import { ROW_KINDS, type RowOf, type Thing } from '@zemble/contract';
import type { Model, Transaction } from 'sequelize';
import { RECORD_MODELS, ROW_MODELS, type RowModel } from './models/index.ts';

/** A row that a transaction has made or changed. */
export interface TouchedRow {
  readonly row: Model;
  isNew: boolean;
  /** Attributes that were written. */
  readonly fields: Set<string>;
}

/** What a transaction did to the fields of a unit: things that it put into some, and others that it set as a whole. */
interface FieldWrites {
  readonly things: Thing[];
  readonly whole: Set<string>;
}
const fieldWrites = new WeakMap<Transaction, FieldWrites>();
function writesOf(transaction: Transaction): FieldWrites {
  const known = fieldWrites.get(transaction) ?? { things: [], whole: new Set() };
  fieldWrites.set(transaction, known);
  return known;
}

/** Notes things that were put into fields, so that they travel instead of the whole fields. */
export const noteThings = (transaction: Transaction, things: readonly Thing[]): void =>
  void writesOf(transaction).things.push(...things);
/** Notes fields that were set as a whole, and travel so. */
export function noteWhole(transaction: Transaction, fields: readonly string[]): void {
  for (const field of fields) writesOf(transaction).whole.add(field);
}
/** Things that travel by themselves, in their order. */
export function notedThings(transaction: Transaction): readonly Thing[] {
  const { things, whole } = writesOf(transaction);
  return things.filter(({ at }) => !whole.has(at[0]!));
}

const watched = new WeakMap<Transaction, Map<string, TouchedRow>>();

/** Begins to note what a transaction changes; the rows come in the order in which they were touched first. */
export function watch(transaction: Transaction): ReadonlyMap<string, TouchedRow> {
  const rows = new Map<string, TouchedRow>();
  watched.set(transaction, rows);
  return rows;
}

interface Written {
  readonly transaction?: Transaction | null | undefined;
  readonly fields?: readonly string[] | undefined;
}

function note(row: Model, { transaction, fields = [] }: Written, isNew: boolean): void {
  const rows = transaction ? watched.get(transaction) : undefined;
  if (!rows) return;
  const key = `${row.constructor.name} ${String(row.get('id'))}`;
  const known = rows.get(key);
  if (known) for (const field of fields) known.fields.add(field);
  rows.set(key, { row, isNew: isNew || known?.isNew === true, fields: known?.fields ?? new Set(fields) });
}

/** Has every row of a unit's record noted when it is written; called once, when the models are defined. */
export function noteWrites(): void {
  for (const model of RECORD_MODELS) {
    model.addHook('afterCreate', 'note', (row, options) => note(row as Model, options as Written, true));
    model.addHook('afterUpdate', 'note', (row, options) => note(row as Model, options as Written, false));
    model.addHook('beforeBulkUpdate', 'note', () => {
      throw new Error(`Rows of ${model.name} are changed one by one, so that every page is told of each.`);
    });
  }
}

/** A row of a unit's record among those that were touched, with its kind; nothing for the unit itself. */
export function rowOfTouched({
  row,
}: TouchedRow): { readonly of: RowOf; readonly row: RowModel<RowOf>; readonly isLiving: boolean } | null {
  const kind = ROW_KINDS.find(({ of }) => row instanceof ROW_MODELS[of]);
  if (!kind) return null;
  const isLiving = kind.goes !== 'removed' || row.get('removedAt') === null;
  return { of: kind.of, row: row as RowModel<RowOf>, isLiving };
}
