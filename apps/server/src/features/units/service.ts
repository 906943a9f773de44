import { randomUUID } from 'node:crypto';
import {
  DELETED_DAYS,
  emptyFields,
  isUnitField,
  UNIT_FIELD_KINDS,
  type IntakeData,
  type UnitPlace,
  type UpdateUnit,
} from '@zemble/contract';
import { intakeSentences } from '@zemble/core';
import type { z } from 'zod';
import type { createUnitSchema } from '@zemble/contract';
import type { Transaction } from 'sequelize';
import type { UnitModel } from '../../database/models/index.ts';
import { invalid, stale } from '../../errors.ts';
import { openLedger } from '../changes/service.ts';
import { appendLog } from '../log/repository.ts';
import { fieldsChangedSince, setFields } from './fields.ts';
import { changeUnitRow, insertUnit } from './repository.ts';

export async function createUnit(
  values: z.output<typeof createUnitSchema>,
  transaction: Transaction,
): Promise<UnitModel> {
  const { id = randomUUID(), ...described } = values;
  const unit = await insertUnit({ ...blankUnit(), ...described, id }, transaction);
  await appendLog(unit, { kind: 'unit', summary: 'Put on the bench.' }, transaction);
  return unit;
}

/** A unit of which nothing is said yet. */
export const blankUnit = () => ({
  ...emptyFields(),
  sequence: 0,
  versions: {},
  isDemo: false,
  ticks: {},
  stage: 'trace' as const,
  extra: {},
  lastActivityAt: new Date(),
});

/** Changes fields of a unit. Throws 409 where one of them was changed since it was seen, with those fields as they are. */
export async function updateUnit(
  unit: UnitModel,
  change: UpdateUnit,
  transaction: Transaction,
): Promise<void> {
  const { seen, stage, reason = '', ...described } = change;
  const changed = fieldsChangedSince(unit, seen).filter((field) => field in described);
  if (changed.length > 0)
    throw stale(fieldWords(changed), {
      versions: Object.fromEntries(changed.map((field) => [field, unit.versions[field] ?? 0])),
      values: Object.fromEntries(changed.map((field) => [field, unit.get(field)])),
    });
  const left = change.place === 'away' ? await openLedger(unit, transaction) : [];
  if (left.length > 0 && reason === '')
    throw invalid(
      `Something temporary is still in force: ${left.map((entry) => entry.sentence).join(' ')}`,
      'Take it back, or say why the unit is put away with it.',
    );
  if (stage) await changeUnitRow(unit, { stage }, transaction);
  const fields = Object.keys(described);
  if (fields.length === 0) return;
  const intake = unit.intake;
  const before = Object.fromEntries(fields.map((field) => [field, unit.get(field)]));
  await setFields(unit, described, transaction);
  const summary =
    change.place !== undefined && fields.length === 1
      ? left.length > 0
        ? `Put away although something temporary is still in force (${left.map((e) => e.sentence).join(' ')}): ${reason}`
        : PLACED[change.place]
      : describeChange(fields, intake, change.intake);
  const kind = fields.every((field) => field === 'nudges') ? 'drawing' : 'unit';
  await appendLog(unit, { kind, summary, inverse: [{ op: 'set-unit', values: before }] }, transaction);
}

const PLACED: Readonly<Record<UnitPlace, string>> = {
  bench: 'Brought back to the bench.',
  away: 'Put away.',
  deleted: `Deleted; it can be brought back for ${DELETED_DAYS} days.`,
};
const wordsOf = (fields: readonly string[]): string =>
  fields.map((field) => (isUnitField(field) ? UNIT_FIELD_KINDS[field].words : field)).join(', ');
const fieldWords = (fields: readonly string[]): string => {
  const words = wordsOf(fields);
  return `${words.charAt(0).toUpperCase()}${words.slice(1)}`;
};

/** What was changed, as a sentence of the log. */
export function describeChange(
  fields: readonly string[],
  before: IntakeData,
  after: IntakeData | undefined,
): string {
  const told = after === undefined || fields.length > 1 ? [] : intakeSentences(before, after);
  if (told.length > 0) return told.join(' ');
  if (fields.every((field) => field === 'nudges')) return 'Moved a symbol.';
  return `Changed ${wordsOf(fields)}.`;
}
