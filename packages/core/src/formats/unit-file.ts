import {
  LAYERS,
  UNIT_FILE_FORMAT,
  UNIT_FILE_VERSION,
  unitFileSchema,
  type UnitFile,
  type UnitFilePart,
  type UnitFileReadout,
} from '@halfsplit/contract';
import { parseTree, type ParseError } from 'jsonc-parser';
import {
  KINDS,
  type LayerValue,
  type Part,
  type Readout,
  type UnitDocument,
  type Want,
} from '../circuit/index.ts';
import { problem, type Problem } from '../errors.ts';
import { parseValue, type QuantityKind } from '../quantity/index.ts';

/** Largest unit file that is read, in characters. */
export const LARGEST_UNIT_FILE = 10_000_000;

export type UnitFileResult =
  | { readonly ok: true; readonly document: UnitDocument }
  | { readonly ok: false; readonly problems: readonly Problem[] };

/** What the numeric fields beside a part's main value are of. */
export const PART_FIELD_QUANTITIES: Readonly<Record<string, QuantityKind>> = {
  esr: 'resistor',
  leakage: 'resistor',
  voltage: 'voltage',
  power: 'power',
  dcr: 'resistor',
  resistance: 'resistor',
  frequency: 'frequency',
  offset: 'voltage',
  position: 'number',
  re: 'resistor',
  le: 'inductor',
  fs: 'frequency',
  qms: 'number',
  qes: 'number',
  lp: 'inductor',
  rp: 'resistor',
  rs: 'resistor',
  pressurePa: 'number',
  coupling: 'number',
  delay: 'time',
  width: 'time',
  periodS: 'time',
  rise: 'time',
  fall: 'time',
};

const READOUT_NUMBERS = [
  'frequencyHz',
  'referenceHz',
  'dropDb',
  'fromHz',
  'toHz',
  'levelV',
  'thd',
  'thresholdV',
  'sourceV',
] as const;

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
  if (format !== UNIT_FILE_FORMAT) {
    const detail = format === undefined ? '"format" is missing' : `its "format" is ${JSON.stringify(format)}`;
    return failed(problem('file/wrong-format', { detail }));
  }
  if (version !== UNIT_FILE_VERSION) {
    return failed(
      problem('file/wrong-version', { text: version === undefined ? 'unknown' : JSON.stringify(version) }),
    );
  }
  const parsed = unitFileSchema.safeParse(raw);
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
  const { unit, circuit, readouts, ...rest } = document;
  const file = { format: UNIT_FILE_FORMAT, version: UNIT_FILE_VERSION, ...rest, unit, circuit, readouts };
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
    normalisePart(part, `circuit.parts[${i}] (${part.ref})`, problems),
  );
  const readouts = (file.readouts ?? []).map((r, i) =>
    normaliseReadout(r, `readouts[${i}] (${r.id})`, problems),
  );
  const ids = new Set<string>();
  for (const { id } of readouts) {
    if (ids.has(id))
      problems.push(
        problem('file/invalid', { where: 'readouts', detail: `the id "${id}" is there more than once` }),
      );
    ids.add(id);
  }
  if (problems.length > 0) return { ok: false, problems: problems.slice(0, MOST_PROBLEMS) };
  const { format: _format, version: _version, ...rest } = file;
  return {
    ok: true,
    document: { ...rest, unit: file.unit ?? {}, circuit: { ...file.circuit, parts }, readouts },
  };
}

/** A number from a number or text; adds a problem and gives undefined when it cannot be read. */
function numberFrom(
  value: unknown,
  kind: QuantityKind,
  where: string,
  problems: Problem[],
): number | undefined {
  if (typeof value === 'number') return value;
  if (typeof value !== 'string') return undefined;
  const parsed = parseValue(value, { kind });
  if (parsed.ok) return parsed.readings[0].value;
  problems.push(problem('file/invalid', { where, detail: lowerSentence(parsed.problem) }));
  return undefined;
}

const lowerSentence = (p: Problem) => p.message.replace(/\.$/, '');

/** One part's text values as numbers. Problems are added to the list, each with its place. */
export function normalisePart(part: UnitFilePart, where: string, problems: Problem[]): Part {
  const kind = KINDS[part.kind].value ?? 'number';
  const result: Record<string, unknown> = { ...part };
  for (const layer of LAYERS) {
    const value = part[layer];
    if (value === undefined) continue;
    const isDead = value === 'open' || value === 'short' || value === null;
    result[layer] = isDead ? value : (numberFrom(value, kind, `${where}.${layer}`, problems) ?? null);
  }
  for (const [field, quantity] of Object.entries(PART_FIELD_QUANTITIES)) {
    if (typeof part[field] === 'string')
      result[field] = numberFrom(part[field], quantity, `${where}.${field}`, problems);
  }
  if (part.params) {
    result['params'] = Object.fromEntries(
      Object.entries(part.params).map(([name, value]) => {
        const number =
          typeof value === 'string' ? parseValue(value, { kind: 'number', purpose: 'reading' }) : undefined;
        return [name, number?.ok ? number.readings[0].value : value];
      }),
    );
  }
  return result as unknown as Part;
}

function normaliseReadout(readout: UnitFileReadout, where: string, problems: Problem[]): Readout {
  const result: Record<string, unknown> = { ...readout };
  for (const field of READOUT_NUMBERS) {
    if (typeof readout[field] === 'string')
      result[field] = anyNumber(readout[field], `${where}.${field}`, problems);
  }
  if (readout.want) {
    result['want'] = Object.fromEntries(
      Object.entries(readout.want).map(([end, value]) => [
        end,
        typeof value === 'string' ? anyNumber(value, `${where}.want.${end}`, problems) : value,
      ]),
    ) as Want;
  }
  return result as unknown as Readout;
}

/** A number whose unit the field already tells; "1 kHz", "38 dB" and "10k" are all taken. */
function anyNumber(text: string, where: string, problems: Problem[]): number | undefined {
  const plain = parseValue(text, { kind: 'number', purpose: 'reading' });
  if (plain.ok) return plain.readings[0].value;
  const withUnit = parseValue(text, { purpose: 'reading' });
  if (withUnit.ok) return withUnit.readings[0].value;
  problems.push(problem('file/invalid', { where, detail: lowerSentence(plain.problem) }));
  return undefined;
}

/** The value of a layer as it is written for a person to edit; empty when there is none. */
export const isValue = (value: LayerValue | undefined): value is Exclude<LayerValue, null> =>
  value !== null && value !== undefined;
