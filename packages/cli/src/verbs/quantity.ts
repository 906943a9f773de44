import {
  parseValue,
  preferred as preferredFor,
  QUANTITY_KINDS,
  seriesNamed,
  type PairKind,
  type QuantityKind,
} from '@zemble/core';
import { UsageError, type Options } from '../options.ts';

function kindOption(options: Options): QuantityKind | undefined {
  const text = options.text('kind');
  if (text === undefined) return undefined;
  const kind = (Object.keys(QUANTITY_KINDS) as QuantityKind[]).find((k) => k === text);
  if (kind) return kind;
  throw new UsageError(`--kind is one of ${Object.keys(QUANTITY_KINDS).join(', ')}, not "${text}".`);
}

function readings(options: Options, kind: QuantityKind | undefined) {
  const text = options.words.join(' ');
  const parsed = parseValue(text, kind === undefined ? {} : { kind });
  if (!parsed.ok) throw new UsageError(parsed.problem.message);
  return parsed.readings;
}

/** `value TEXT [--kind resistor|capacitor|inductor]` */
export function value(options: Options): unknown {
  const found = readings(options, kindOption(options));
  const { value, unit, kind } = found[0];
  return { value, unit, kind, readings: found };
}

const isPairKind = (kind: QuantityKind): kind is PairKind =>
  kind === 'resistor' || kind === 'capacitor' || kind === 'inductor';

/** `preferred TEXT --series E24 [--kind]` */
export function preferred(options: Options): unknown {
  const kind = kindOption(options);
  const reading = readings(options, kind)[0];
  if (!(reading.value > 0)) throw new UsageError(`"${options.words.join(' ')}" is not above zero.`);
  const series = seriesNamed(options.text('series') ?? 'E24');
  const answer = preferredFor(reading.value, series, isPairKind(reading.kind) ? reading.kind : 'resistor');
  return {
    target: answer.target,
    unit: reading.unit,
    kind: reading.kind,
    seriesName: series,
    nearest: answer.nearest,
    nearestError: answer.nearestError,
    series: answer.seriesPair.values,
    seriesValue: answer.seriesPair.value,
    seriesError: answer.seriesPair.error,
    parallel: answer.parallelPair.values,
    parallelValue: answer.parallelPair.value,
    parallelError: answer.parallelPair.error,
  };
}
