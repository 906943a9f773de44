import { ACTS, type Act, type ActType, type Batch, type UnitResource } from '@zemble/contract';
import { dropPlanActs, inverseThings, planActs, thingsSentence } from '@zemble/core';
import type { Transaction } from 'sequelize';
import type { z } from 'zod';
import type { UnitModel } from '../../database/models/index.ts';
import { invalid } from '../../errors.ts';
import { addBeep, sayThrough, withdrawBeep } from '../beeps/service.ts';
import { addChange, updateChange } from '../changes/service.ts';
import { addEvidence, withdrawEvidence } from '../evidence/service.ts';
import { appendLog, asOneStep } from '../log/repository.ts';
import { addNote, undoStep } from '../log/service.ts';
import { addPart, removePart, updatePart } from '../parts/service.ts';
import { removePhoto, updatePhoto } from '../photos/service.ts';
import { addReading, amendReading } from '../readings/service.ts';
import { addReadout, removeReadout, updateReadout } from '../readouts/service.ts';
import { tickStep } from '../ticks/service.ts';
import { unitOrNotFound } from '../units/access.ts';
import { describeChange, updateUnit } from '../units/service.ts';
import { putThings } from './things.ts';

/** What carries out each act: the unit is locked, and what it breaks is told before it commits. */
type Handlers = {
  readonly [Type in ActType]: (
    unit: UnitModel,
    body: z.output<(typeof ACTS)[Type]['body']>,
    id: string,
    transaction: Transaction,
  ) => Promise<void>;
};

const HANDLERS: Handlers = {
  'update-unit': (unit, body, _, t) => updateUnit(unit, body, t),
  'put-things': async (unit, { things, words }, _, t) => {
    if (things.some(({ at }) => at[0] === 'ticks'))
      throw invalid(
        'A step is ticked by an act of its own.',
        'Tick it; what comes before it is looked at then.',
      );
    const intake = unit.intake;
    const put = await putThings(unit, things, t);
    if (put.length === 0) return;
    const fields = [...new Set(put.map(({ at }) => at[0]!))];
    const isDrawing = fields.every((field) => field === 'nudges');
    const said =
      words ??
      (isDrawing || fields.includes('intake')
        ? describeChange(fields, intake, unit.intake)
        : thingsSentence(put));
    const inverse = [{ op: 'put-things' as const, things: inverseThings(put) }];
    await appendLog(unit, { kind: isDrawing ? 'drawing' : 'unit', summary: said, inverse }, t);
  },
  'add-part': (unit, body, _, t) => addPart(unit, body, t),
  'update-part': (unit, body, id, t) => updatePart(unit, id, body, t),
  'remove-part': (unit, body, id, t) => removePart(unit, id, body.baseVersion, t),
  'add-readout': (unit, body, _, t) => addReadout(unit, body, t),
  'update-readout': (unit, body, id, t) => updateReadout(unit, id, body, t),
  'remove-readout': (unit, body, id, t) => removeReadout(unit, id, body.baseVersion, t),
  'add-change': (unit, body, _, t) => addChange(unit, body, t),
  'update-change': (unit, body, id, t) => updateChange(unit, id, body, t),
  'add-reading': (unit, body, _, t) => addReading(unit, body, t),
  'amend-reading': (unit, body, id, t) => amendReading(unit, id, body, t),
  'add-evidence': (unit, body, _, t) => addEvidence(unit, body, t),
  'withdraw-evidence': (unit, _, id, t) => withdrawEvidence(unit, id, t),
  'add-beep': (unit, body, _, t) => addBeep(unit, body, t),
  'withdraw-beep': (unit, _, id, t) => withdrawBeep(unit, id, t),
  'beep-through': (unit, body, id, t) => sayThrough(unit, id, body.through, t),
  'update-photo': (unit, body, id, t) => updatePhoto(unit, id, body, t),
  'remove-photo': (unit, body, id, t) => removePhoto(unit, id, body.baseVersion, t),
  'tick-step': (unit, body, _, t) => tickStep(unit, body, t),
  'plan-values': (unit, body, _, t) => carryOutThose(unit, (resource) => planActs(resource, body), t),
  'drop-plan': (unit, body, _, t) => carryOutThose(unit, (resource) => dropPlanActs(resource, body.ref), t),
  'add-note': (unit, body, _, t) => addNote(unit, body.text, t),
  undo: (unit, body, _, t) => undoStep(unit, body.sequence, t),
};

/** The parameter of an act's path, without which it is of no thing that is there already. */
export const paramOf = (type: ActType): string | undefined => /:(\w+)/.exec(ACTS[type].route.path)?.[1];

/** Carries out one act. */
export const carryOut = <Type extends ActType>(
  type: Type,
  unit: UnitModel,
  body: z.output<(typeof ACTS)[Type]['body']>,
  id: string,
  transaction: Transaction,
): Promise<void> => HANDLERS[type](unit, body, id, transaction);

/** Carries out acts that are one thought: one step of the log, or nothing at all. */
export const carryOutAll = (
  unit: UnitModel,
  { acts, words }: Batch,
  transaction: Transaction,
): Promise<void> =>
  asOneStep(
    unit,
    words,
    async () => {
      for (const act of acts) await carryOutAct(unit, act, transaction);
    },
    transaction,
  );

/** Carries out the acts that follow from how the unit is now. */
async function carryOutThose(
  unit: UnitModel,
  actsFor: (resource: UnitResource) => readonly Act[],
  transaction: Transaction,
): Promise<void> {
  const acts = actsFor(await unitOrNotFound(unit.id, transaction));
  await carryOutAll(unit, { acts: [...acts] }, transaction);
}

async function carryOutAct(unit: UnitModel, act: Act, transaction: Transaction): Promise<void> {
  const kind = ACTS[act.type];
  const read = (kind.body as z.ZodType).safeParse((kind.toBody as (act: unknown) => unknown)(act));
  if (!read.success) {
    const [issue] = read.error.issues;
    throw invalid(
      `${act.type}: ${[...issue!.path, ''].join(': ')}${issue!.message}.`,
      'Correct it and try again; nothing of the rest was done.',
    );
  }
  const param = paramOf(act.type);
  const id = param === undefined ? '' : String(Reflect.get(act, param));
  await carryOut(act.type, unit, read.data as never, id, transaction);
}
