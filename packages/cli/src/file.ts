import { readFile } from 'node:fs/promises';
import {
  assumptionsOf,
  AnalysisSession,
  changesOn,
  circuitAt,
  readUnitFile,
  resolveLayer,
  withActiveSet,
  withControls,
  type UnitDocument,
} from '@zemble/core';
import { UsageError, type Options } from './options.ts';

/**
 * The unit that the command line names, with the set of `--set` active and the controls as `--setting` has them. Throws a
 * UsageError with one sentence that names the place.
 */
export async function loadUnit(options: Options): Promise<UnitDocument> {
  const unit = await readUnit(options.words[0]);
  const [set, setting] = [options.text('set'), options.text('setting')];
  let { circuit } = unit;
  if (set !== undefined) {
    const sets = circuit.sets ?? [];
    if (!sets.some((s) => s.id === set)) throw new UsageError(`There is no set "${set}"${named(sets)}.`);
    circuit = withActiveSet(circuit, set);
  }
  if (setting !== undefined) {
    const settings = unit.settings ?? [];
    const found = settings.find((s) => s.id === setting);
    if (!found) throw new UsageError(`There is no setting "${setting}"${named(settings)}.`);
    circuit = withControls(circuit, found.controls);
  }
  return { ...unit, circuit };
}

const named = (items: readonly { readonly id: string }[]): string =>
  items.length === 0
    ? '; the unit has none'
    : `; there ${items.length === 1 ? 'is' : 'are'} ${items.map((s) => s.id).join(', ')}`;

/**
 * As `loadUnit`, the circuit as it lies on the bench now where no layer is asked for: with what is done, and what is
 * temporary. It is what a meter meets.
 */
export async function loadBench(options: Options): Promise<UnitDocument> {
  const unit = await loadUnit(options);
  const isNow = options.text('layer') === undefined && changesOn(unit.circuit, 'proven').length > 0;
  return isNow ? { ...unit, circuit: circuitAt(unit.circuit, 'proven') } : unit;
}

async function readUnit(path: string | undefined): Promise<UnitDocument> {
  if (path === undefined) throw new UsageError('Name a unit file.');
  let text: string;
  try {
    text = await readFile(path, 'utf8');
  } catch {
    throw new UsageError(`The file ${path} cannot be read.`);
  }
  const result = readUnitFile(text);
  if (result.ok) return result.document;
  const [first] = result.problems;
  throw new UsageError(`${path}: ${first?.message ?? 'not a unit file.'}`);
}

/** The unit of the command line, with a session of analysis on the layer it names. */
export async function loadSession(options: Options): Promise<{
  readonly unit: UnitDocument;
  readonly session: AnalysisSession;
  /** What every number rests on where a type number is not known; nothing where all are. */
  readonly assumed: { readonly assumed?: readonly string[] };
}> {
  const unit = await loadUnit(options);
  const session = new AnalysisSession(resolveLayer(unit.circuit, options.layer()));
  const sentences = assumptionsOf(unit).map((p) => p.message);
  return { unit, session, assumed: sentences.length > 0 ? { assumed: sentences } : {} };
}
