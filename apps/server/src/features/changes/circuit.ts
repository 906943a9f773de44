import { readChanges, readPart, type Circuit } from '@zemble/core';
import type { BeepData } from '@zemble/contract';
import type { Transaction } from 'sequelize';
import type { ChangeModel, PartModel, UnitModel } from '../../database/models/index.ts';
import { heardOf } from '../beeps/repository.ts';
import { liveParts } from '../parts/repository.ts';
import { rowsOfUnits } from '../record/repository.ts';
import { partFromRow } from '../units/resources.ts';
import { liveChanges } from './repository.ts';

/** The circuit of a unit as it came, with its changes. */
export async function circuitOf(unit: UnitModel, transaction: Transaction): Promise<Circuit> {
  const parts = await liveParts(unit.id, transaction);
  const changes = await liveChanges(unit.id, transaction);
  return circuitFrom(unit, parts, changes, await heardOf(unit.id, transaction));
}

/** The circuits of those units that have changes at all, by their ids: a query a table, however many units there are. */
export async function changedCircuits(
  units: readonly UnitModel[],
  transaction: Transaction,
): Promise<ReadonlyMap<string, Circuit>> {
  const changes = await rowsOfUnits(
    'change',
    units.map(({ id }) => id),
    transaction,
  );
  const changed = units.filter(({ id }) => changes.has(id));
  const ids = changed.map(({ id }) => id);
  const parts = await rowsOfUnits('part', ids, transaction);
  const beeps = await rowsOfUnits('beep', ids, transaction);
  return new Map(
    changed.map((unit) => [
      unit.id,
      circuitFrom(
        unit,
        parts.get(unit.id) ?? [],
        changes.get(unit.id)!,
        (beeps.get(unit.id) ?? []).map((b) => ({ ...b.definition, withdrawn: b.withdrawnAt !== null })),
      ),
    ]),
  );
}

function circuitFrom(
  { ground, sets }: UnitModel,
  rows: readonly PartModel[],
  changes: readonly ChangeModel[],
  beeps: readonly BeepData[],
): Circuit {
  const parts = rows.map((row) => readPart(partFromRow(row), row.ref, []));
  const definitions = changes.map((row) => row.definition);
  return { ground, parts, beeps, changes: readChanges(definitions, parts, []), sets };
}
