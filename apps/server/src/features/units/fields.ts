import { isUnitField, UNIT_FIELDS, type FieldVersions, type UnitField } from '@zemble/contract';
import type { Transaction } from 'sequelize';
import type { UnitModel } from '../../database/models/index.ts';
import { noteWhole } from '../../database/noted-rows.ts';
import { changeUnitRow } from './repository.ts';

/** Sets fields of a unit, each with its next version. */
export async function setFields(
  unit: UnitModel,
  values: Readonly<Record<string, unknown>>,
  transaction: Transaction,
): Promise<void> {
  const fields = Object.keys(values).filter(isUnitField);
  noteWhole(transaction, fields);
  const next = Object.fromEntries(fields.map((field) => [field, (unit.versions[field] ?? 0) + 1]));
  await changeUnitRow(unit, { ...values, versions: { ...unit.versions, ...next } }, transaction);
}

/** Fields whose version is another than the one that was seen. */
export const fieldsChangedSince = (unit: UnitModel, seen: FieldVersions): UnitField[] =>
  UNIT_FIELDS.filter((field) => seen[field] !== undefined && seen[field] !== (unit.versions[field] ?? 0));
