import {
  BenchModel,
  evaluateReadout,
  naturalFrequencies,
  noiseAt,
  outsideBy,
  seededRandom,
  spreadParts,
  toleranceOf,
  transient as integrate,
  unitOf,
  usualTolerance,
  wantedRange,
  WEIGHTINGS,
  type Weighting,
} from '@halfsplit/core';
import { loadUnit } from '../file.ts';
import { UsageError, type Options } from '../options.ts';

const FROM_HZ = 20;
const TO_HZ = 20_000;

/** `noise FILE --out NET [--source V1] [--from --to --weighting none|A|468 --level V]` */
export async function noise(options: Options): Promise<unknown> {
  const { circuit } = await loadUnit(options.words[0]);
  const weighting = options.text('weighting') ?? 'none';
  if (!WEIGHTINGS.includes(weighting as Weighting))
    throw new UsageError(`--weighting is one of ${WEIGHTINGS.join(', ')}, not "${weighting}".`);
  const source = options.text('source');
  const level = options.text('level') === undefined ? undefined : options.positive('level', 1, 'voltage');
  return noiseAt(new BenchModel(circuit, options.layer()), {
    out: options.requiredText('out'),
    weighting: weighting as Weighting,
    fromHz: options.positive('from', FROM_HZ, 'frequency'),
    toHz: options.positive('to', TO_HZ, 'frequency'),
    ...(source === undefined ? {} : { source }),
    ...(level === undefined ? {} : { levelV: level }),
  });
}

/** `transient FILE --stop S --out NET[,NET] [--step S] [--start zero|op]` */
export async function transient(options: Options): Promise<unknown> {
  const { circuit } = await loadUnit(options.words[0]);
  const stopS = options.positive('stop', Number.NaN, 'time');
  if (!Number.isFinite(stopS)) throw new UsageError('--stop is missing.');
  const start = options.text('start') ?? 'op';
  if (start !== 'op' && start !== 'zero') throw new UsageError(`--start is op or zero, not "${start}".`);
  const step = options.text('step') === undefined ? undefined : options.positive('step', stopS, 'time');
  const nets = options.requiredText('out').split(',');
  const model = new BenchModel(circuit, options.layer());
  const nodes = nets.map((net) => model.system.node(net, 'The run in time'));
  const timeS: number[] = [];
  const values: number[][] = nets.map(() => []);
  const outcome = integrate(model, {
    stopS,
    start,
    ...(step === undefined ? {} : { stepS: step }),
    onPoint(t, x) {
      timeS.push(t);
      nodes.forEach((node, i) => values[i]!.push(x[node]!));
    },
  });
  if (!outcome.ok) throw new NoAnswer(outcome.problem.message);
  return { timeS, nets: Object.fromEntries(nets.map((net, i) => [net, values[i]])) };
}

/** A computation without an answer, in one sentence. */
export class NoAnswer extends Error {}

/** `poles FILE` */
export async function poles(options: Options): Promise<unknown> {
  const { circuit } = await loadUnit(options.words[0]);
  return naturalFrequencies(new BenchModel(circuit, options.layer()));
}

const USUAL_RUNS = 10_000;

/** `tolerance FILE --readout ID --runs 10000 --seed 1` */
export async function tolerance(options: Options): Promise<unknown> {
  const { circuit, readouts } = await loadUnit(options.words[0]);
  const id = options.requiredText('readout');
  const readout = readouts.find((r) => r.id === id);
  if (!readout) throw new UsageError(`There is no readout "${id}".`);
  const model = new BenchModel(circuit, options.layer());
  const first = evaluateReadout(model, readout, readouts);
  if (!first.ok) throw new NoAnswer(first.problem.message);
  const distribution = options.text('distribution') ?? 'uniform';
  if (distribution !== 'uniform' && distribution !== 'normal')
    throw new UsageError(`--distribution is uniform or normal, not "${distribution}".`);
  const read = () => {
    const answer = evaluateReadout(model, readout, readouts);
    return answer.ok ? answer.value : null;
  };
  const isWanted = wantedRange(readout.want)
    ? (value: number) => outsideBy(value, readout.want) === 0
    : undefined;
  const runs = Math.round(options.positive('runs', USUAL_RUNS));
  const seed = Number(options.text('seed') ?? '1');
  const answer = toleranceOf(model, spreadParts(circuit, model, usualTolerance), read, isWanted, {
    runs,
    random: seededRandom(seed),
    distribution,
  });
  return { unit: unitOf(readout, readouts), ...answer };
}
