import type { Model, Transaction } from 'sequelize';
import { RECORD_MODELS } from './models/index.ts';

/** A row that a transaction has made or changed. */
export interface TouchedRow {
  readonly row: Model;
  isNew: boolean;
  /** Attributes that were written. */
  readonly fields: Set<string>;
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
