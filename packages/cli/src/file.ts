import { readFile } from 'node:fs/promises';
import {
  assumptionsOf,
  AnalysisSession,
  readUnitFile,
  resolveLayer,
  type UnitDocument,
} from '@halfsplit/core';
import { UsageError, type Options } from './options.ts';

/** Reads a unit file, or throws a UsageError with one sentence that names the place. */
export async function loadUnit(path: string | undefined): Promise<UnitDocument> {
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
  const unit = await loadUnit(options.words[0]);
  const session = new AnalysisSession(resolveLayer(unit.circuit, options.layer()));
  const sentences = assumptionsOf(unit).map((p) => p.message);
  return { unit, session, assumed: sentences.length > 0 ? { assumed: sentences } : {} };
}
