import { randomUUID } from 'node:crypto';
import type { BeepData, createBeepSchema, Inverse } from '@zemble/contract';
import {
  beepSentence,
  claimedNames,
  readPart,
  renamedEnds,
  retraced,
  withClaims,
  type Part,
} from '@zemble/core';
import type { Transaction } from 'sequelize';
import type { z } from 'zod';
import type { UnitModel } from '../../database/models/index.ts';
import { setWithdrawn } from '../../database/rows.ts';
import { invalid, notFound } from '../../errors.ts';
import { timeOf } from '../../times.ts';
import { appendLog } from '../log/repository.ts';
import { columnsOf, liveParts } from '../parts/repository.ts';
import { partFromRow } from '../units/resources.ts';
import { amendBeep, beepsOf, findBeep, heardOf, insertBeep, isBeeped } from './repository.ts';

/** Records a beep; the nets of the parts follow from it. */
export async function addBeep(
  unit: UnitModel,
  { id = randomUUID(), takenAt, ...definition }: z.output<typeof createBeepSchema>,
  transaction: Transaction,
): Promise<void> {
  await insertBeep(
    { id, unitId: unit.id, definition, takenAt: timeOf(takenAt), withdrawnAt: null },
    transaction,
  );
  await retraceUnit(unit, transaction);
  const inverse = [{ op: 'withdraw' as const, of: 'beep' as const, id, withdrawn: true }];
  await appendLog(unit, { kind: 'beep', summary: beepSentence(definition), inverse }, transaction);
}

/** Withdraws one beep, whichever it was. Throws 404. */
export async function withdrawBeep(unit: UnitModel, id: string, transaction: Transaction): Promise<void> {
  const row = await findBeep(unit.id, id, transaction);
  if (!row) throw notFound('beep', id);
  await setWithdrawn(row, true, transaction);
  await retraceUnit(unit, transaction);
  const summary = `Withdrew: ${beepSentence(row.definition)}`;
  const inverse = [{ op: 'withdraw' as const, of: 'beep' as const, id, withdrawn: false }];
  await appendLog(unit, { kind: 'beep', summary, inverse }, transaction);
}

/** Says through which part it beeped; null for none. Throws 404, 422 for what did not beep together. */
export async function sayThrough(
  unit: UnitModel,
  id: string,
  through: string | null,
  transaction: Transaction,
): Promise<void> {
  const row = await findBeep(unit.id, id, transaction);
  if (!row) throw notFound('beep', id);
  if (row.definition.says !== 'together')
    throw invalid('Only what beeped together beeps through a part.', 'Choose the beep that joins both ends.');
  const before = row.definition;
  const definition: BeepData = { ...before, through };
  await amendBeep(row, definition, transaction);
  await retraceUnit(unit, transaction);
  const inverse = [{ op: 'set' as const, of: 'beep' as const, id, values: { definition: before } }];
  await appendLog(unit, { kind: 'beep', summary: beepSentence(definition), inverse }, transaction);
}

/** Beeps of a part whose designator was changed follow it. */
export async function renameEnds(
  unit: UnitModel,
  from: string,
  to: string,
  transaction: Transaction,
): Promise<{ op: 'set'; of: 'beep'; id: string; values: Record<string, unknown> }[]> {
  const inverse: { op: 'set'; of: 'beep'; id: string; values: Record<string, unknown> }[] = [];
  for (const row of await beepsOf(unit.id, transaction)) {
    const before = row.definition;
    const ends = renamedEnds(before.ends, from, to);
    const through = before.through === from ? to : before.through;
    if (through === before.through && ends.every((end, i) => end === before.ends[i])) continue;
    await amendBeep(row, { ...before, ends, ...(through === undefined ? {} : { through }) }, transaction);
    inverse.push({ op: 'set', of: 'beep', id: row.id, values: { definition: before } });
  }
  return inverse;
}

/** A part that says the name under which a net is shown is on that net: one of its pins is said to be on it, too. */
export async function claimNames(
  unit: UnitModel,
  entered: Part,
  id: string,
  transaction: Transaction,
): Promise<Inverse[]> {
  if (!(await isBeeped(unit.id, transaction))) return [];
  const rows = (await liveParts(unit.id, transaction)).filter((row) => row.id !== id);
  const parts = rows.map((row) => readPart(partFromRow(row), row.ref, []));
  const beeps = await heardOf(unit.id, transaction);
  const claims = claimedNames({ ground: unit.ground, parts, beeps }, entered);
  const inverse: Inverse[] = [];
  for (const [i, row] of rows.entries()) {
    const claimed = withClaims(parts[i]!, claims);
    if (claimed === parts[i]) continue;
    const before = columnsOf(partFromRow(row));
    await row.update({ extra: { ...before.extra, saidPins: claimed.saidPins } }, { transaction });
    inverse.push({ op: 'set', of: 'part', id: row.id, values: before });
  }
  return inverse;
}

/**
 * Puts the pins of a unit's parts on the nets that follow from what was said and what beeped. A part's version is that of what
 * people typed, and stays.
 */
export async function retraceUnit(unit: UnitModel, transaction: Transaction): Promise<void> {
  if (!(await isBeeped(unit.id, transaction))) return;
  const rows = await liveParts(unit.id, transaction);
  const parts = rows.map((row) => readPart(partFromRow(row), row.ref, []));
  const beeps = await heardOf(unit.id, transaction);
  const now = retraced({ ground: unit.ground, parts, beeps });
  for (const [i, row] of rows.entries()) {
    const part = now[i]!;
    if (part === parts[i]) continue;
    const { saidPins: _old, ...extra } = columnsOf(partFromRow(row)).extra;
    const said = part.saidPins === undefined ? {} : { saidPins: part.saidPins };
    await row.update({ pins: part.pins, extra: { ...extra, ...said } }, { transaction });
  }
}
