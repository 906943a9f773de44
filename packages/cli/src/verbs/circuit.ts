import { LAYERS } from '@zemble/contract';
import {
  acCurrent,
  acResponse,
  assumptionsOf,
  checkUnit,
  describe,
  logSpaced,
  readoutTable,
  type DeviceReport,
  type ReadoutAnswer,
} from '@zemble/core';
import { loadSession, loadUnit } from '../file.ts';
import type { Options } from '../options.ts';
import { UsageError } from '../options.ts';

/** Frequencies of a response to a decade: finer than any screen or printer. */
const MOST_PER_DECADE = 10_000;

/** `check FILE` */
export async function check(options: Options): Promise<unknown> {
  const unit = await loadUnit(options);
  const problems = checkUnit(unit, options.layer()).map(({ code, message, ref, net }) => ({
    code,
    message,
    ref,
    net,
  }));
  return { ok: problems.length === 0, problems };
}

/** `op FILE` */
export async function op(options: Options): Promise<unknown> {
  const { session, assumed } = await loadSession(options);
  const { nets, parts } = describe(session.system, session.operatingPoint());
  const rounded = (report: DeviceReport) => ({
    ...report,
    current: plusZero(report.current),
    power: plusZero(report.power),
  });
  return {
    nets,
    parts: Object.fromEntries(Object.entries(parts).map(([ref, report]) => [ref, rounded(report)])),
    ...assumed,
  };
}

/** Minus zero reads like a direction that is not there. */
const plusZero = (value: number) => (value === 0 ? 0 : value);

/** `ac FILE --source V1 --out NET`, or `--current REF` for the current into a part. */
export async function ac(options: Options): Promise<unknown> {
  const { session, assumed } = await loadSession(options);
  const fromHz = options.positive('from', 20, 'frequency');
  const toHz = options.positive('to', 20000, 'frequency');
  if (toHz < fromHz) throw new UsageError('--to must not be below --from.');
  const perDecade = options.positive('per-decade', 20);
  if (perDecade > MOST_PER_DECADE)
    throw new UsageError(`--per-decade is at most ${MOST_PER_DECADE}, not ${perDecade}.`);
  const frequencies = logSpaced(fromHz, toHz, perDecade);
  const source = options.requiredText('source');
  const part = options.text('current');
  const response =
    part === undefined
      ? acResponse(session, source, options.requiredText('out'), frequencies)
      : acCurrent(session, source, part, frequencies);
  return { ...response, ...assumed };
}

/** A number, the two ends of a range, or null. */
const plain = (answer: ReadoutAnswer) => (answer.ok ? (answer.range ?? answer.value) : null);

/** `readouts FILE`: every readout on every layer; null with a reason where there is none. */
export async function readouts(options: Options): Promise<unknown> {
  const document = await loadUnit(options);
  const rows = readoutTable(document).map(({ id, unit, answers }) => {
    const reasons = Object.fromEntries(
      LAYERS.flatMap((l) => (answers[l].ok ? [] : [[l, answers[l].problem.message]])),
    );
    return {
      id,
      unit,
      ...Object.fromEntries(LAYERS.map((l) => [l, plain(answers[l])])),
      ...(Object.keys(reasons).length > 0 ? { reasons } : {}),
    };
  });
  const assumed = assumptionsOf(document).map((p) => p.message);
  return { readouts: rows, ...(assumed.length > 0 ? { assumed } : {}) };
}
