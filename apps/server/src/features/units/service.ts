import { randomUUID } from 'node:crypto';
import type { Hazard, IntakeData, UpdateUnit } from '@halfsplit/contract';
import { intakeSentences } from '@halfsplit/core';
import type { z } from 'zod';
import type { createUnitSchema } from '@halfsplit/contract';
import type { Transaction } from 'sequelize';
import type { UnitModel } from '../../database/models/index.ts';
import { stale } from '../../errors.ts';
import { appendLog } from '../log/repository.ts';
import { insertUnit, loadUnit } from './repository.ts';

export async function createUnit(
  values: z.output<typeof createUnitSchema>,
  transaction: Transaction,
): Promise<UnitModel> {
  const unit = await insertUnit({ ...blankUnit(), ...values }, transaction);
  await appendLog(unit, { kind: 'unit', summary: 'Put on the bench.' }, transaction);
  return unit;
}

/** A unit of which nothing is said yet. */
export const blankUnit = () => ({
  id: randomUUID(),
  version: 0,
  name: 'Unnamed unit',
  kind: '',
  hazards: [] as Hazard[],
  hazardNotes: '',
  settings: [],
  notes: '',
  stage: 'trace' as const,
  ground: '0',
  nudges: {},
  models: [],
  path: null,
  intake: {},
  extra: {},
  lastActivityAt: new Date(),
});

export async function updateUnit(
  unit: UnitModel,
  change: UpdateUnit,
  transaction: Transaction,
): Promise<void> {
  const { baseVersion, nudges, stage, ...described } = change;
  const isDescribing = Object.keys(described).length > 0;
  if (isDescribing && baseVersion !== unit.version)
    throw stale('This unit', await loadUnit(unit.id, transaction));
  const intake = unit.intake;
  const before = Object.fromEntries(
    Object.keys({ ...described, ...(nudges ? { nudges } : {}) }).map((k) => [k, unit.get(k)]),
  );
  await unit.update(
    { ...described, ...(nudges ? { nudges } : {}), ...(stage ? { stage } : {}) },
    { transaction },
  );
  if (isDescribing) {
    const summary = describeChange(Object.keys(described), intake, change.intake);
    await appendLog(
      unit,
      { kind: 'unit', summary, inverse: [{ op: 'set-unit', values: before }] },
      transaction,
    );
  } else if (nudges) {
    await appendLog(
      unit,
      { kind: 'drawing', summary: 'Moved a symbol.', inverse: [{ op: 'set-unit', values: before }] },
      transaction,
    );
  }
}

/** What was changed, as a sentence of the log. */
function describeChange(
  fields: readonly string[],
  before: IntakeData,
  after: IntakeData | undefined,
): string {
  const told = after === undefined || fields.length > 1 ? [] : intakeSentences(before, after);
  if (told.length > 0) return told.join(' ');
  const words: Readonly<Record<string, string>> = {
    models: 'the unit’s own models',
    path: 'the signal path',
    settings: 'the settings of its controls',
  };
  return `Changed ${fields.map((f) => words[f] ?? f).join(', ')}${fields.some((f) => words[f]) ? '' : ' of the unit'}.`;
}
