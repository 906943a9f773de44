import type { Effect } from '@zemble/contract';
import {
  BeepModel,
  ChangeModel,
  EvidenceModel,
  LogEntryModel,
  PartModel,
  PhotoModel,
  ReadingModel,
  ReadoutModel,
  UnitModel,
} from '../../database/models/index.ts';
import type { TouchedRow } from '../../database/noted-rows.ts';
import {
  beepResource,
  changeResource,
  evidenceResource,
  goneEffect,
  logResource,
  partResource,
  photoResource,
  readingResource,
  readoutResource,
  unitFields,
} from '../units/resources.ts';

/** What a transaction did to the record of a unit, from the rows that it touched. */
export function effectsOf(rows: Iterable<TouchedRow>, summary: string): Effect[] {
  return [...rows].flatMap((touched) => effectOf(touched, summary) ?? []);
}

function effectOf({ row, isNew, fields }: TouchedRow, summary: string): Effect | null {
  if (row instanceof PartModel)
    return row.removedAt
      ? goneEffect('part', row.id)
      : { of: 'part', value: partResource(row), ...(isNew ? { isNew } : {}) };
  if (row instanceof ReadoutModel)
    return row.removedAt ? goneEffect('readout', row.id) : { of: 'readout', value: readoutResource(row) };
  if (row instanceof ChangeModel)
    return row.removedAt ? goneEffect('change', row.id) : { of: 'change', value: changeResource(row) };
  if (row instanceof PhotoModel)
    return row.removedAt ? goneEffect('photo', row.id) : { of: 'photo', value: photoResource(row) };
  if (row instanceof ReadingModel) return { of: 'reading', value: readingResource(row) };
  if (row instanceof EvidenceModel) return { of: 'evidence', value: evidenceResource(row) };
  if (row instanceof BeepModel) return { of: 'beep', value: beepResource(row) };
  if (row instanceof LogEntryModel) return { of: 'log', value: logResource(row) };
  if (row instanceof UnitModel) {
    const all = Object.entries(unitFields(row, summary));
    const written = all.filter(([name]) => name === 'lastActivity' || fields.has(name));
    return { of: 'unit', value: Object.fromEntries(written) };
  }
  return null;
}
