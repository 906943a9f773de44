import { MOST_TICKS, type Thing, type TickRequest } from '@zemble/contract';
import {
  benchSteps,
  documentFromResource,
  inverseThings,
  missingBefore,
  tickedSteps,
  tickOf,
  ZembleError,
  type BenchStep,
  type TickedStep,
} from '@zemble/core';
import type { Transaction } from 'sequelize';
import type { UnitModel } from '../../database/models/index.ts';
import { ApiError, invalid } from '../../errors.ts';
import { tickInChange } from '../changes/service.ts';
import { appendLog } from '../log/repository.ts';
import { putThings } from '../record/things.ts';
import { unitOrNotFound } from '../units/access.ts';

/**
 * Ticks a step of the bench work, or takes its tick back, wherever the step comes from: one of a change is ticked in it, all others
 * beside the unit's fields. What has to be done before it is done before it, whoever ticks; what follows from the last tick is
 * core's. Throws 409 naming what is missing, 422 for more ticks than any work has.
 */
export async function tickStep(
  unit: UnitModel,
  request: TickRequest,
  transaction: Transaction,
): Promise<void> {
  const { id, isDone, at } = request;
  const resource = await unitOrNotFound(unit.id, transaction);
  const found = stepsOf(documentFromResource(resource), request);
  const ticked = found ? tickedSteps(found, resource.ticks, Date.parse(at)) : null;
  const step = ticked?.find((each) => each.step.id === id)?.step;
  if (isDone && ticked && step) refuseTooEarly(ticked, step);
  const tick = tickOf(resource, found ?? [], id, isDone, at);
  if (tick.ticks) await tickBeside(unit, request, tick.ticks, transaction);
  if (tick.change) await tickInChange(unit, request, tick.change, tick.replaced, transaction);
}

/** The steps of the work that a step is of; nothing where it is no step of any work that is known. */
function stepsOf(
  document: Parameters<typeof benchSteps>[0],
  { id, work }: TickRequest,
): readonly BenchStep[] | null {
  try {
    const { steps } = benchSteps(document, work ?? {});
    return steps.some((step) => step.id === id) ? steps : null;
  } catch (error) {
    // A change that is not there, or cannot be computed, has no steps.
    if (error instanceof ZembleError) return null;
    throw error;
  }
}

function refuseTooEarly(ticked: readonly TickedStep[], step: BenchStep): void {
  const missing = missingBefore(ticked, step.id);
  if (missing.length === 0) return;
  throw new ApiError(
    'broken',
    `Before this: ${missing.map(({ say }) => say).join(' ')}`,
    'Do that first, and tick it; a pause makes what was made safe to be done again.',
  );
}

async function tickBeside(
  unit: UnitModel,
  { words, isDone }: TickRequest,
  thing: Thing,
  transaction: Transaction,
): Promise<void> {
  const isNew = thing.was === null && thing.now !== null;
  if (isNew && Object.keys(unit.ticks).length >= MOST_TICKS)
    throw invalid(
      `${MOST_TICKS} steps are ticked already.`,
      'Begin the work anew, which takes old ticks away.',
    );
  const put = await putThings(unit, [thing], transaction);
  if (put.length === 0) return;
  const summary = isDone ? words : `Not done after all: ${words}`;
  const inverse = [{ op: 'put-things' as const, things: inverseThings(put) }];
  await appendLog(unit, { kind: 'bench', summary, inverse }, transaction);
}
