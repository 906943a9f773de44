import { randomUUID } from 'node:crypto';
import {
  DELETED_DAYS,
  type Hazard,
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
import { openLedger, checkSets } from '../changes/service.ts';
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
  sequence: 0,
  versions: {},
  place: 'bench' as const,
  isDemo: false,
  name: 'Unnamed unit',
  kind: '',
  hazards: [] as Hazard[],
  hazardNotes: '',
  settings: [],
  sets: [],
  wires: [],
  boards: [],
  panels: [],
  ticks: {},
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
  if (described.sets) await checkSets(unit, described.sets, transaction);
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
const FIELD_WORDS: Readonly<Record<string, string>> = {
  name: 'its name',
  kind: 'what kind it is',
  hazards: 'what in it can hurt',
  hazardNotes: 'what else in it can hurt',
  notes: 'its notes',
  settings: 'the settings of its controls',
  wires: 'its wires',
  boards: 'its boards',
  panels: 'its panels',
  sets: 'its sets of changes',
  ground: 'its ground',
  nudges: 'the places of symbols',
  models: 'the unit’s own models',
  path: 'the signal path',
  intake: 'the complaint',
  place: 'where it is',
};
const fieldWords = (fields: readonly string[]): string => {
  const words = fields.map((field) => FIELD_WORDS[field] ?? field).join(', ');
  return `${words.charAt(0).toUpperCase()}${words.slice(1)}`;
};

/** What was changed, as a sentence of the log. */
function describeChange(
  fields: readonly string[],
  before: IntakeData,
  after: IntakeData | undefined,
): string {
  const told = after === undefined || fields.length > 1 ? [] : intakeSentences(before, after);
  if (told.length > 0) return told.join(' ');
  if (fields.every((field) => field === 'nudges')) return 'Moved a symbol.';
  return `Changed ${fields.map((field) => FIELD_WORDS[field] ?? field).join(', ')}.`;
}
