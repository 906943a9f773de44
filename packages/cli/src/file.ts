import { readFile } from 'node:fs/promises';
import { readUnitFile, type UnitDocument } from '@halfsplit/core';
import { UsageError } from './options.ts';

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
