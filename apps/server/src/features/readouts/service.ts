import { randomUUID } from 'node:crypto';
import type { createReadoutSchema, FileReadout, updateReadoutSchema } from '@zemble/contract';
import { readReadout, type Problem } from '@zemble/core';
import type { Transaction } from 'sequelize';
import type { z } from 'zod';
import type { ReadoutModel, UnitModel } from '../../database/models/index.ts';
import { changeRow, setRemoved } from '../../database/rows.ts';
import { invalid, notFound, stale } from '../../errors.ts';
import { readoutResource } from '../units/resources.ts';
import { appendLog } from '../log/repository.ts';
import { findReadout, insertReadout, liveReadouts } from './repository.ts';

/** The readout with every text a number and every word as it is listed. Throws 422 naming the field that cannot be read. */
async function readable(
  unitId: string,
  readout: FileReadout,
  transaction: Transaction,
): Promise<FileReadout> {
  const problems: Problem[] = [];
  const others = await liveReadouts(unitId, transaction);
  const plain = readReadout(
    readout,
    `Readout "${readout.name}"`,
    problems,
    others.map((r) => r.definition),
  );
  if (problems[0]) throw invalid(problems[0].message, problems[0].hint);
  return plain;
}

async function refuseSecond(
  unitId: string,
  id: string,
  except: string | undefined,
  transaction: Transaction,
): Promise<void> {
  const rows = await liveReadouts(unitId, transaction);
  if (rows.some((r) => r.definition.id === id && r.id !== except)) {
    throw invalid(`There is a readout "${id}" already.`, 'Give the new one another id.');
  }
}

export async function addReadout(
  unit: UnitModel,
  { id = randomUUID(), readout: file }: z.output<typeof createReadoutSchema>,
  transaction: Transaction,
): Promise<void> {
  const readout = await readable(unit.id, file, transaction);
  await refuseSecond(unit.id, readout.id, undefined, transaction);
  await insertReadout(unit.id, readout, transaction, id);
  const step = {
    kind: 'readout',
    summary: `Added the readout ${readout.name}.`,
    inverse: [{ op: 'set-removed' as const, of: 'readout' as const, id, removed: true }],
  };
  await appendLog(unit, step, transaction);
}

async function readoutAtVersion(
  unit: UnitModel,
  id: string,
  baseVersion: number,
  transaction: Transaction,
): Promise<ReadoutModel> {
  const row = await findReadout(unit.id, id, transaction);
  if (!row) throw notFound('readout', id);
  if (row.version !== baseVersion) {
    throw stale(row.definition.name, readoutResource(row));
  }
  return row;
}

export async function updateReadout(
  unit: UnitModel,
  id: string,
  request: z.output<typeof updateReadoutSchema>,
  transaction: Transaction,
): Promise<void> {
  const row = await readoutAtVersion(unit, id, request.baseVersion, transaction);
  const readout = await readable(unit.id, request.readout, transaction);
  await refuseSecond(unit.id, readout.id, id, transaction);
  const before = row.definition;
  await changeRow(row, { definition: readout }, transaction);
  const summary = `Changed the readout ${readout.name}.`;
  await appendLog(
    unit,
    {
      kind: 'readout',
      summary,
      inverse: [{ op: 'set', of: 'readout', id, values: { definition: before } }],
    },
    transaction,
  );
}

export async function removeReadout(
  unit: UnitModel,
  id: string,
  baseVersion: number,
  transaction: Transaction,
): Promise<void> {
  const row = await readoutAtVersion(unit, id, baseVersion, transaction);
  await setRemoved(row, true, transaction);
  const summary = `Removed the readout ${row.definition.name}.`;
  await appendLog(
    unit,
    {
      kind: 'readout',
      summary,
      inverse: [{ op: 'set-removed', of: 'readout', id, removed: false }],
    },
    transaction,
  );
}
