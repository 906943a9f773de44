import {
  isOfFormat,
  isTooDeep,
  splitHazards,
  UNIT_FILE_FORMAT,
  UNIT_FILE_VERSION,
  unkeepableIn,
  unitFileSchema,
  type UnitFile,
} from '@zemble/contract';
import { parseTree, type ParseError } from 'jsonc-parser';
import type { UnitDocument } from '../../circuit/circuit/index.ts';
import { isTraced, retraced, withNetsOfNow } from '../../circuit/continuity/index.ts';
import { problem, type Problem } from '../../base/errors/index.ts';
import { plannedOf, readChanges } from './read-change.ts';
import { readModel, readPart, readReadout } from './read-fields.ts';

/** Largest unit file that is read, in characters. */
export const LARGEST_UNIT_FILE = 10_000_000;

export type UnitFileResult =
  | { readonly ok: true; readonly document: UnitDocument }
  | { readonly ok: false; readonly problems: readonly Problem[] };

/**
 * Reads a unit file: text to a document whose values are numbers in SI units. Fields of later versions are kept.
 * Every problem says where it is; nothing is guessed.
 */
export function readUnitFile(text: string): UnitFileResult {
  if (text.length > LARGEST_UNIT_FILE) {
    return failed(
      problem('file/too-large', { text: megabytes(text.length), detail: megabytes(LARGEST_UNIT_FILE) }),
    );
  }
  if (isTooDeep(text))
    return failed(problem('file/not-json', { detail: 'its brackets are nested too deep for a unit' }));
  let raw: unknown;
  try {
    raw = JSON.parse(text.replace(/^\uFEFF/, ''));
  } catch {
    return failed(problem('file/not-json', { detail: whyNotJson(text) }));
  }
  return unitDocumentFrom(raw);
}

/** As `readUnitFile`, from parsed JSON. */
export function unitDocumentFrom(raw: unknown): UnitFileResult {
  if (typeof raw !== 'object' || raw === null || Array.isArray(raw)) {
    return failed(problem('file/wrong-format', { detail: 'it holds no object' }));
  }
  const { format, version } = raw as Record<string, unknown>;
  if (!isOfFormat(format, UNIT_FILE_FORMAT)) {
    const detail = format === undefined ? '"format" is missing' : `its "format" is ${JSON.stringify(format)}`;
    return failed(problem('file/wrong-format', { detail }));
  }
  if (version !== UNIT_FILE_VERSION) {
    return failed(
      problem('file/wrong-version', { text: version === undefined ? 'unknown' : JSON.stringify(version) }),
    );
  }
  const wrong = unkeepableIn(raw);
  if (wrong)
    return failed(problem('file/invalid', { where: place(wrong.path, raw), detail: wrong.sentence }));
  const parsed = unitFileSchema.safeParse({ ...raw, format: UNIT_FILE_FORMAT });
  if (!parsed.success) {
    return failed(
      ...parsed.error.issues
        .slice(0, MOST_PROBLEMS)
        .map((issue) =>
          problem('file/invalid', { where: place(issue.path, raw), detail: sentence(issue.message) }),
        ),
    );
  }
  return normalise(parsed.data);
}

/** The document as unit file text, values as numbers, two spaces of indent. */
export function writeUnitFile(document: UnitDocument): string {
  const { unit, circuit: written, readouts, ...rest } = document;
  const { changes, sets, ...circuit } = written;
  const file = {
    format: UNIT_FILE_FORMAT,
    version: UNIT_FILE_VERSION,
    ...rest,
    unit,
    circuit,
    changes,
    sets,
    readouts,
  };
  return `${JSON.stringify(file, null, 2)}\n`;
}

const MOST_PROBLEMS = 20;
const failed = (...problems: Problem[]): UnitFileResult => ({ ok: false, problems });
const megabytes = (characters: number) => `${Math.ceil(characters / 1e6)} MB`;
const sentence = (message: string) => message.charAt(0).toLowerCase() + message.slice(1);

/** jsonc-parser's code for a string without its closing quote. */
const UNFINISHED_STRING = 12;

function whyNotJson(text: string): string {
  if (text.trim() === '') return 'it is empty';
  const start = text.slice(0, 16);
  if (/^(\uFFFDPNG|\u0089PNG|GIF8|\uFFFD\uFFFD\uFFFD|ÿØÿ|%PDF|PK)/.test(start))
    return 'it is a picture or another kind of file';
  if (!text.trimStart().startsWith('{')) return 'it does not begin with "{"';
  const errors: ParseError[] = [];
  parseTree(text, errors);
  const first = errors[0];
  if (!first || first.offset >= text.trimEnd().length || first.error === UNFINISHED_STRING) {
    return 'it ends in the middle, as a file does that was cut short';
  }
  const before = text.slice(0, first.offset).split('\n');
  return `its JSON is broken at line ${before.length}, column ${(before.at(-1)?.length ?? 0) + 1}`;
}

/** "circuit.parts[3] (R4).marked" for a path into the raw file. */
function place(path: readonly PropertyKey[], raw: unknown): string {
  let at: unknown = raw;
  let text = '';
  for (const key of path) {
    at = (at as Record<PropertyKey, unknown> | undefined)?.[key];
    text += typeof key === 'number' ? `[${key}]` : `${text === '' ? '' : '.'}${String(key)}`;
    const ref = (at as { ref?: unknown } | undefined)?.ref;
    if (typeof key === 'number' && typeof ref === 'string') text += ` (${ref})`;
  }
  return text === '' ? 'the top' : text;
}

function normalise(file: UnitFile): UnitFileResult {
  const problems: Problem[] = [];
  const parts = file.circuit.parts.map((part, i) =>
    readPart(part, `circuit.parts[${i}] (${part.ref})`, problems),
  );
  const changes = [
    ...plannedOf(file.circuit.parts, problems),
    ...readChanges(file.changes ?? [], parts, problems),
  ];
  const models = file.circuit.models?.map((model, i) =>
    readModel(model, `circuit.models[${i}] (${model.name})`, problems),
  );
  const readouts = (file.readouts ?? []).map((r, i) =>
    readReadout(r, `readouts[${i}] (${r.id})`, problems, file.readouts),
  );
  problems.push(
    ...doubles('readouts', readouts),
    ...doubles('settings', file.settings ?? []),
    ...doubles('changes', changes),
    ...doubles('sets', file.sets ?? []),
    ...doubles('wires', file.wires ?? []),
    ...doubles('boards', file.boards ?? []),
    ...doubles('panels', file.panels ?? []),
  );
  if ((file.sets ?? []).filter((s) => s.active === true).length > 1)
    problems.push(problem('file/invalid', { where: 'sets', detail: 'more than one set is active' }));
  if (problems.length > 0) return { ok: false, problems: problems.slice(0, MOST_PROBLEMS) };
  const { beeps } = file.circuit;
  const { format: _format, version: _version, changes: _changes, sets, ...rest } = file;
  const circuit = {
    ...file.circuit,
    parts: isTraced({ parts, beeps }) ? retraced({ ...file.circuit, parts }) : parts,
    ...(models ? { models } : {}),
    ...(changes.length > 0 ? { changes } : {}),
    ...(sets && sets.length > 0 ? { sets } : {}),
  };
  const document = { ...rest, unit: unitFrom(file.unit ?? {}), circuit, readouts };
  return { ok: true, document: withNetsOfNow(circuit, document) };
}

/** Ids that are there more than once. */
function doubles(where: string, items: readonly { readonly id: string }[]): Problem[] {
  const ids = items.map((r) => r.id);
  const twice = new Set(ids.filter((id, i) => ids.indexOf(id) !== i));
  return [...twice].map((id) =>
    problem('file/invalid', { where, detail: `the id "${id}" is there more than once` }),
  );
}

/** A unit's own fields. Hazards in words that are not known stand on as notes, so that nothing written is lost. */
function unitFrom(unit: NonNullable<UnitFile['unit']>): UnitDocument['unit'] {
  if (!unit.hazards) return { ...unit, hazards: undefined };
  const { hazards, notes } = splitHazards(unit.hazards);
  const words = [unit.hazardNotes ?? '', ...notes].filter((w) => w !== '').join('; ');
  return { ...unit, hazards, ...(words === '' ? {} : { hazardNotes: words }) };
}
