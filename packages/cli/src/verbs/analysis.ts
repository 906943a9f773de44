import {
  evaluateReadout,
  naturalFrequencies,
  noiseAt,
  readoutRuns,
  readoutSlopes,
  spreadParts,
  summariseReadout,
  transient as integrate,
  unitOf,
  usualTolerance,
  WEIGHTINGS,
  type LayerPart,
  type Weighting,
} from '@zemble/core';
import { loadSession } from '../file.ts';
import { NoAnswer } from '../no-answer.ts';
import { UsageError, type Options } from '../options.ts';

/** Points that a run in time gives at most. */
const MOST_POINTS = 2_000_000;
const FROM_HZ = 20;
const TO_HZ = 20_000;

/** `noise FILE --out NET [--source V1] [--from --to --weighting none|A|468 --level V]` */
export async function noise(options: Options): Promise<unknown> {
  const { session, assumed } = await loadSession(options);
  const weighting = options.text('weighting') ?? 'none';
  if (!WEIGHTINGS.includes(weighting as Weighting))
    throw new UsageError(`--weighting is one of ${WEIGHTINGS.join(', ')}, not "${weighting}".`);
  const source = options.text('source');
  const level = options.text('level') === undefined ? undefined : options.positive('level', 1, 'voltage');
  const answer = noiseAt(session, {
    out: options.requiredText('out'),
    weighting: weighting as Weighting,
    fromHz: options.positive('from', FROM_HZ, 'frequency'),
    toHz: options.positive('to', TO_HZ, 'frequency'),
    ...(source === undefined ? {} : { source }),
    ...(level === undefined ? {} : { levelV: level }),
  });
  return { ...answer, ...assumed };
}

/** `transient FILE --stop S --out NET[,NET] [--step S] [--start zero|op] [--seconds 20]` */
export async function transient(options: Options): Promise<unknown> {
  const { session, assumed } = await loadSession(options);
  const stopS = options.positive('stop', Number.NaN, 'time');
  if (!Number.isFinite(stopS)) throw new UsageError('--stop is missing.');
  const start = options.text('start') ?? 'op';
  if (start !== 'op' && start !== 'zero') throw new UsageError(`--start is op or zero, not "${start}".`);
  const step = options.text('step') === undefined ? undefined : options.positive('step', stopS, 'time');
  const nets = options.requiredText('out').split(',');
  const nodes = nets.map((net) => session.system.node(net, 'The run in time'));
  if (step !== undefined && stopS / step > MOST_POINTS)
    throw new UsageError(
      `--stop ${stopS} with --step ${step} are ${Math.round(stopS / step)} points: at most ${MOST_POINTS} are kept.`,
    );
  const mayGoOn = options.untilSeconds(USUAL_SECONDS);
  const timeS: number[] = [];
  const values: number[][] = nets.map(() => []);
  const outcome = integrate(session, {
    stopS,
    start,
    ...(step === undefined ? {} : { stepS: step }),
    onPoint(t, x) {
      if (timeS.length >= MOST_POINTS)
        throw new NoAnswer(`More than ${MOST_POINTS} points: ask for a shorter --stop or a longer --step.`);
      if (!mayGoOn())
        throw new NoAnswer(
          `The time ended at ${t} s of the run: ask for a shorter --stop, or give it more --seconds.`,
        );
      timeS.push(t);
      nodes.forEach((node, i) => values[i]!.push(x[node]!));
    },
  });
  if (!outcome.ok) throw new NoAnswer(outcome.problem.message);
  return { timeS, nets: Object.fromEntries(nets.map((net, i) => [net, values[i]])), ...assumed };
}

/** `poles FILE` */
export async function poles(options: Options): Promise<unknown> {
  const { session, assumed } = await loadSession(options);
  return { ...naturalFrequencies(session), ...assumed };
}

const USUAL_RUNS = 10_000;
/** Runs of a spread that fit into memory with their deviations. */
const MOST_RUNS = 1_000_000;
const USUAL_SECONDS = 20;

/** `tolerance FILE --readout ID --runs 10000 --seed 1 [--distribution uniform|normal --seconds 20]` */
export async function tolerance(options: Options): Promise<unknown> {
  const { session, readout, unit, parts, assumed } = await readoutOf(options);
  const distribution = options.text('distribution') ?? 'uniform';
  if (distribution !== 'uniform' && distribution !== 'normal')
    throw new UsageError(`--distribution is uniform or normal, not "${distribution}".`);
  const runs = readoutRuns(session, [readout], unit, parts, {
    runs: options.bounded('runs', USUAL_RUNS, MOST_RUNS),
    random: options.random(),
    distribution,
    mayGoOn: options.untilSeconds(USUAL_SECONDS),
  });
  return {
    unit: unitOf(readout, unit.readouts),
    ...summariseReadout(session, readout, unit, parts, runs),
    ...leftOut(session.circuit),
    ...assumed,
  };
}

/** Transistors and valves spread by factors, which a box of tolerances does not hold: said, where there are any. */
function leftOut({ parts }: { readonly parts: readonly LayerPart[] }): { readonly leftOut?: string } {
  const refs = parts.filter((p) => SPREADING.has(p.kind)).map((p) => p.ref);
  return refs.length === 0
    ? {}
    : {
        leftOut: `The spread between copies of ${refs.join(', ')} is not in it: gains differ by a factor of two either way.`,
      };
}
const SPREADING: ReadonlySet<LayerPart['kind']> = new Set(['bjt', 'jfet', 'mosfet', 'triode', 'pentode']);

const PER_CENT = 0.01;

/** `sensitivity FILE --readout ID`: how far each part moves the readout, a per cent of its value; largest first. */
export async function sensitivity(options: Options): Promise<unknown> {
  const { session, readout, unit, parts, assumed } = await readoutOf(options);
  const [slopes] = readoutSlopes(session, [readout], unit, parts) as [number[]];
  return {
    unit: unitOf(readout, unit.readouts),
    sensitivities: parts
      .map((p, i) => ({ ref: p.ref, value: p.value, perPercent: slopes[i]! * PER_CENT }))
      .sort((a, b) => Math.abs(b.perPercent) - Math.abs(a.perPercent)),
    ...assumed,
  };
}

/** The readout that `--readout` names, with the session it is read on and the parts that spread. */
async function readoutOf(options: Options) {
  const { unit, session, assumed } = await loadSession(options);
  const id = options.requiredText('readout');
  const readout = unit.readouts.find((r) => r.id === id);
  if (!readout) throw new UsageError(`There is no readout "${id}".`);
  const first = evaluateReadout(session, readout, unit);
  if (!first.ok) throw new NoAnswer(first.problem.message);
  return { session, readout, unit, assumed, parts: spreadParts(session.circuit, usualTolerance) };
}
