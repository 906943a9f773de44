import type { createPartSchema, updatePartSchema, FilePart, SheetPart } from '@zemble/contract';
import { formatSheetLine, readPart, restated, type Part, type Problem } from '@zemble/core';
import type { Transaction } from 'sequelize';
import type { z } from 'zod';
import type { PartModel, UnitModel } from '../../database/models/index.ts';
import { changeRow, setRemoved } from '../../database/rows.ts';
import { invalid, notFound, stale } from '../../errors.ts';
import { claimNames, renameEnds, retraceUnit } from '../beeps/service.ts';
import { appendLog } from '../log/repository.ts';
import { partFromRow, partResource } from '../units/resources.ts';
import { columnsOf, findPart, insertPart, livePartNamed, makeRoom, nextPosition } from './repository.ts';

/** The part with every text value a number. Throws 422 naming the field that cannot be read. */
function readable(part: SheetPart): Part {
  const problems: Problem[] = [];
  const plain = readPart(part, part.ref, problems);
  if (problems[0]) throw invalid(problems[0].message, problems[0].hint);
  return plain;
}

const lineOf = (part: FilePart) => formatSheetLine(readPart(part, part.ref, []));

/** A designator is one part's: throws 422 where another live part has it. */
async function refuseSecond(
  unitId: string,
  ref: string,
  except: string | undefined,
  transaction: Transaction,
): Promise<void> {
  const other = await livePartNamed(unitId, ref, transaction);
  if (other && other.id !== except)
    throw invalid(`There is a part ${ref} already.`, 'Give this one another designator.');
}

export async function addPart(
  unit: UnitModel,
  request: z.output<typeof createPartSchema>,
  transaction: Transaction,
): Promise<void> {
  const part = readable(request.part);
  const position = request.position ?? (await nextPosition(unit.id, transaction));
  if (request.position !== undefined) await makeRoom(unit.id, position, transaction);
  await refuseSecond(unit.id, part.ref, undefined, transaction);
  const row = await insertPart(unit.id, position, part, transaction, request.id);
  const claimed = await claimNames(unit, part, row.id, transaction);
  await retraceUnit(unit, transaction);
  const step = {
    kind: 'part',
    summary: `Added ${lineOf(part)}`,
    inverse: [...claimed, { op: 'set-removed' as const, of: 'part' as const, id: row.id, removed: true }],
  };
  await appendLog(unit, step, transaction);
}

export async function partAtVersion(
  unit: UnitModel,
  id: string,
  baseVersion: number,
  transaction: Transaction,
): Promise<PartModel> {
  const row = await findPart(unit.id, id, transaction);
  if (!row) throw notFound('part', id);
  if (row.version !== baseVersion) {
    throw stale(row.ref, partResource(row));
  }
  return row;
}

export async function updatePart(
  unit: UnitModel,
  id: string,
  request: z.output<typeof updatePartSchema>,
  transaction: Transaction,
): Promise<void> {
  const row = await partAtVersion(unit, id, request.baseVersion, transaction);
  const known = partFromRow(row);
  const part = restated(readPart(known, row.ref, []), readable(request.part));
  await refuseSecond(unit.id, part.ref, id, transaction);
  const before = columnsOf(known);
  await changeRow(row, columnsOf(part), transaction);
  const renamed = part.ref === before.ref ? [] : await renameEnds(unit, before.ref, part.ref, transaction);
  const claimed = await claimNames(unit, part, id, transaction);
  await retraceUnit(unit, transaction);
  const summary = `Changed ${before.ref} to ${lineOf(part)}`;
  const inverse = [...renamed, ...claimed, { op: 'set' as const, of: 'part' as const, id, values: before }];
  await appendLog(unit, { kind: 'part', summary, inverse }, transaction);
}

export async function removePart(
  unit: UnitModel,
  id: string,
  baseVersion: number,
  transaction: Transaction,
): Promise<void> {
  const row = await partAtVersion(unit, id, baseVersion, transaction);
  await setRemoved(row, true, transaction);
  await retraceUnit(unit, transaction);
  const summary = `Removed ${lineOf(partFromRow(row))}`;
  await appendLog(
    unit,
    {
      kind: 'part',
      summary,
      inverse: [{ op: 'set-removed', of: 'part', id, removed: false }],
    },
    transaction,
  );
}
