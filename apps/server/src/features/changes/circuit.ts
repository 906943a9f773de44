import { readChanges, readPart, type Circuit } from '@zemble/core';
import type { Transaction } from 'sequelize';
import type { UnitModel } from '../../database/models/index.ts';
import { heardOf } from '../beeps/repository.ts';
import { liveParts } from '../parts/repository.ts';
import { partFromRow } from '../units/resources.ts';
import { liveChanges } from './repository.ts';

/** The circuit of a unit as it came, with its changes. */
export async function circuitOf(unit: UnitModel, transaction: Transaction): Promise<Circuit> {
  const rows = await liveParts(unit.id, transaction);
  const parts = rows.map((row) => readPart(partFromRow(row), row.ref, []));
  const changes = await liveChanges(unit.id, transaction);
  const definitions = changes.map((row) => row.definition);
  const beeps = await heardOf(unit.id, transaction);
  return { ground: unit.ground, parts, beeps, changes: readChanges(definitions, parts, []), sets: unit.sets };
}
