import { randomUUID } from 'node:crypto';
import type { AmendReading, createReadingSchema } from '@zemble/contract';
import {
  aspectNamed,
  aspectsOf,
  aspectText,
  formatQuantity,
  judgeAspect,
  judgeReading,
  KINDS,
  partPutIn,
  readChanges,
  readPart,
  readReadout,
  QUANTITY_KINDS,
  unitOf,
  withEsr,
  type JudgedReading,
  type Part,
} from '@zemble/core';
import type { Transaction } from 'sequelize';
import type { z } from 'zod';
import type { UnitModel } from '../../database/models/index.ts';
import { invalid, notFound } from '../../errors.ts';
import { timeOf } from '../../times.ts';
import { appendLog } from '../log/repository.ts';
import { findPart } from '../parts/repository.ts';
import { partAtVersion } from '../parts/service.ts';
import { findChange } from '../changes/repository.ts';
import { findReadout } from '../readouts/repository.ts';
import { partFromRow } from '../units/resources.ts';
import { findReading, insertReading, tellOfReading } from './repository.ts';

type NewReading = z.output<typeof createReadingSchema>;

/** Adds a reading. Earlier ones stay: a correction is a new reading. */
export async function addReading(
  unit: UnitModel,
  request: NewReading,
  transaction: Transaction,
): Promise<void> {
  const summary = request.readoutId
    ? await describeReadoutReading(unit, request.readoutId, request, transaction)
    : await describePartReading(unit, request, transaction);
  const id = request.id ?? randomUUID();
  await insertReading(
    {
      id,
      unitId: unit.id,
      partId: request.partId ?? null,
      readoutId: request.readoutId ?? null,
      changeId: request.changeId ?? null,
      ref: request.ref ?? null,
      value: request.value,
      condition: request.condition,
      instrument: request.instrument ?? null,
      esr: request.esr ?? null,
      aspect: request.aspect ?? null,
      red: request.red ?? null,
      isAsDrawn: request.isAsDrawn,
      between: request.between ?? null,
      takenAt: timeOf(request.takenAt),
      withdrawnAt: null,
    },
    transaction,
  );
  await appendLog(
    unit,
    { kind: 'reading', summary, inverse: [{ op: 'withdraw', of: 'reading', id, withdrawn: true }] },
    transaction,
  );
}

/** Tells of a reading what was not known when it was typed: the red lead, that the controls stood as drawn. Throws 404, 422. */
export async function amendReading(
  unit: UnitModel,
  id: string,
  told: AmendReading,
  transaction: Transaction,
): Promise<void> {
  const row = await findReading(unit.id, id, transaction);
  const part = row?.partId ? await findPart(unit.id, row.partId, transaction) : null;
  if (!row || !part) throw notFound('reading', id);
  const { ref, pins } = part;
  const { red, isAsDrawn } = told;
  if (red !== undefined && !Object.hasOwn(pins, red))
    throw invalid(`${ref} has no pin ${red}.`, `It has ${Object.keys(pins).join(', ')}.`);
  const before = { red: row.red, isAsDrawn: row.isAsDrawn };
  await tellOfReading(
    row,
    {
      ...(red === undefined ? {} : { red }),
      ...(isAsDrawn === undefined ? {} : { isAsDrawn }),
    },
    transaction,
  );
  const words = [
    ...(red === undefined ? [] : [`the red lead was on pin ${red}`]),
    ...(isAsDrawn === undefined
      ? []
      : [`the controls ${isAsDrawn ? 'stood as drawn' : 'may have stood anywhere'}`]),
  ];
  const inverse = [{ op: 'set' as const, of: 'reading' as const, id, values: before }];
  await appendLog(
    unit,
    { kind: 'reading', summary: `Of the reading of ${ref}: ${words.join(', ')}.`, inverse },
    transaction,
  );
}

/** The part that was in when it was read: as it came, or as a change put it in. Throws 404, 409. */
async function partRead(
  unit: UnitModel,
  { partId, changeId, ref, baseVersion }: NewReading,
  transaction: Transaction,
): Promise<Part> {
  const row = partId && (await partAtVersion(unit, partId, baseVersion, transaction));
  const came = row ? readPart(partFromRow(row), row.ref, []) : undefined;
  if (changeId === undefined) return came!;
  const change = await findChange(unit.id, changeId, transaction);
  if (!change) throw notFound('change', changeId);
  const [plain] = readChanges([change.definition], came ? [came] : [], []);
  const part = partPutIn(plain!, came, ref ?? came!.ref);
  if (!part)
    throw invalid(`${plain!.name} puts no ${ref ?? came!.ref} in.`, 'Read a part that the change puts in.');
  return part;
}

async function describePartReading(
  unit: UnitModel,
  request: NewReading,
  transaction: Transaction,
): Promise<string> {
  const part = await partRead(unit, request, transaction);
  if (request.aspect !== undefined && !aspectNamed(part, request.aspect))
    throw invalid(
      `Nothing called "${request.aspect}" is read of ${part.ref}.`,
      `What can be read of it: ${
        aspectsOf(part)
          .map((a) => a.id)
          .join(', ') || 'its value'
      }.`,
    );
  return readingSummary(part, request, unit);
}

const HOW = {
  'in circuit': 'in circuit',
  'leg lifted': 'with a leg lifted',
  'from a change': 'by what a known part changed',
} as const;

/** The sentence of the log for a reading of a part. */
export function readingSummary(
  part: Part,
  reading: JudgedReading,
  around: Pick<UnitModel, 'ground' | 'models'> = { ground: '0', models: [] },
): string {
  const how = HOW[reading.condition];
  if (reading.aspect) {
    const circuit = { ground: around.ground, parts: [part], models: around.models };
    const { sentence } = judgeAspect(circuit, part, reading.aspect, { ...reading, condition: 'leg lifted' });
    const words = reading.condition === 'in circuit' ? '' : `, ${sentence}`;
    return `Measured ${part.ref} ${reading.aspect} ${how}: ${aspectText(part, reading.aspect, reading.value)}${words}.`;
  }
  const unit = QUANTITY_KINDS[KINDS[part.kind].value ?? 'number'];
  const value =
    typeof reading.value === 'number' ? formatQuantity(reading.value, unit, { digits: 4 }) : reading.value;
  return `Measured ${part.ref} ${how}: ${value}, ${withEsr(part, judgeReading(part, reading), reading.esr).sentence}.`;
}

async function describeReadoutReading(
  unit: UnitModel,
  readoutId: string,
  request: NewReading,
  transaction: Transaction,
): Promise<string> {
  const row = await findReadout(unit.id, readoutId, transaction);
  if (!row) throw notFound('readout', readoutId);
  const value =
    typeof request.value === 'number'
      ? formatQuantity(request.value, unitOf(readReadout(row.definition, row.definition.name, [])), {
          digits: 4,
        })
      : request.value;
  return `On the bench, ${row.definition.name}: ${value}.`;
}
