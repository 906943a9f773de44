import { rowKind, type Effect, type Thing } from '@zemble/contract';
import { UnitModel } from '../../database/models/index.ts';
import { rowOfTouched, type TouchedRow } from '../../database/noted-rows.ts';
import { rowResource, unitFields } from '../units/resources.ts';

/**
 * What a transaction did to the record of a unit, from the rows that it touched. A field whose things were put one by one travels
 * as those.
 */
export function effectsOf(rows: Iterable<TouchedRow>, things: readonly Thing[], summary: string): Effect[] {
  const put = new Set(things.map(({ at }) => at[0]!));
  const effects = [...rows].flatMap((touched) => effectOf(touched, put, summary) ?? []);
  return things.length > 0 ? [{ of: 'things', things: [...things] }, ...effects] : effects;
}

function effectOf(touched: TouchedRow, put: ReadonlySet<string>, summary: string): Effect | null {
  const found = rowOfTouched(touched);
  if (found) {
    const { of, row, isLiving } = found;
    if (!isLiving) return { of: 'gone', entity: of, id: row.id };
    const isNew = touched.isNew && rowKind(of).order === 'position' ? { isNew: true } : {};
    return { of, value: rowResource(of, row), ...isNew } as Effect;
  }
  const { row, fields } = touched;
  if (!(row instanceof UnitModel)) return null;
  const all = Object.entries(unitFields(row, summary));
  const written = all.filter(([name]) => name === 'lastActivity' || (fields.has(name) && !put.has(name)));
  return { of: 'unit', value: Object.fromEntries(written) };
}
