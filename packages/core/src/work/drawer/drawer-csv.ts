import { MOST_STOCK, stockItemSchema, type PartKind, type StockItem, TECHNOLOGIES } from '@zemble/contract';
import { KINDS, kindOfRef } from '../../circuit/circuit/index.ts';
import { problem, type Problem } from '../../base/errors/index.ts';
import { readCsv, writeCsv } from '../../base/text/index.ts';
import { parseValue, prefixFor } from '../../base/quantity/index.ts';
import type { Drawer } from './stock.ts';

/** Columns of a drawer as a table; the first two are needed. */
export const DRAWER_COLUMNS = [
  'kind',
  'value',
  'tolerance',
  'rating',
  'technology',
  'count',
  'place',
] as const;
type Column = (typeof DRAWER_COLUMNS)[number];

const LARGEST_CSV = 4_000_000;
const MOST_PROBLEMS = 20;

export interface DrawerCsv {
  readonly items: readonly StockItem[];
  /** What could not be read, each with its line; the other lines stand. */
  readonly problems: readonly Problem[];
}

const bad = (line: number, detail: string) => problem('file/invalid', { where: `line ${line}`, detail });

/** Words for kinds that people write. */
const KIND_WORDS: ReadonlyMap<string, PartKind> = new Map([
  ['pot', 'potentiometer'],
  ['cap', 'capacitor'],
  ['coil', 'inductor'],
  ['transistor', 'bjt'],
  ['chip', 'opamp'],
  ['ic', 'opamp'],
]);

/**
 * Reads a drawer: `kind,value,tolerance,rating,technology,count,place`, with or without a head, separated by comma, semicolon
 * or tab. Values in any notation of the trade, a rating as `63V`, `0.25W` or both, a tolerance as `5%`; a count that is
 * missing is one. What stands twice in one place is counted together.
 */
export function readDrawerCsv(text: string): DrawerCsv {
  if (text.length > LARGEST_CSV) return { items: [], problems: [bad(1, 'it is larger than 4 MB')] };
  const lines = readCsv(text);
  const head = lines[0]?.map((c) => c.toLowerCase()) ?? [];
  const hasHead = head.includes('kind') && head.includes('value');
  const place = new Map(DRAWER_COLUMNS.map((name, i) => [name, hasHead ? head.indexOf(name) : i]));
  const items: StockItem[] = [];
  const problems: Problem[] = [];
  lines.forEach((cells, i) => {
    if ((hasHead && i === 0) || cells.every((c) => c === '')) return;
    const read = readLine((column) => cells[place.get(column)!] ?? '');
    if (typeof read === 'string') problems.push(bad(i + 1, read));
    else if (items.length >= MOST_STOCK)
      problems.push(bad(i + 1, `a drawer has ${MOST_STOCK} lines at most`));
    else items.push(read);
  });
  return { items: gathered(items), problems: problems.slice(0, MOST_PROBLEMS) };
}

/** One line; a sentence where it cannot be read. */
function readLine(cell: (column: Column) => string): StockItem | string {
  const kind = kindNamed(cell('kind'));
  if (!kind) return `"${cell('kind')}" is no kind of part; write resistor, capacitor, potentiometer, opamp …`;
  const value = valueOf(kind, cell('value'));
  if (value === null) return `"${cell('value')}" is not a value of a ${KINDS[kind].words}`;
  const tolerance = numberIn(cell('tolerance').replace(/^±\s*/, ''), 'ratio');
  if (tolerance === null || (tolerance !== undefined && tolerance > 1))
    return `"${cell('tolerance')}" is not a tolerance; write it like 5%`;
  const rating = ratingOf(cell('rating'));
  if (rating === null) return `"${cell('rating')}" is not a rating; write it like 63V or 0.25W`;
  const word = cell('technology').toLowerCase();
  const technology = TECHNOLOGIES.find((t) => t === word);
  if (word !== '' && !technology) return `"${cell('technology')}" is none of ${TECHNOLOGIES.join(', ')}`;
  const count = cell('count') === '' ? 1 : Number(cell('count'));
  const item = {
    kind,
    value,
    ...(tolerance === undefined ? {} : { tolerance }),
    ...rating,
    ...(technology ? { technology } : {}),
    count,
    place: cell('place'),
  };
  const parsed = stockItemSchema.safeParse(item);
  if (parsed.success) return parsed.data;
  const where = String(parsed.error.issues[0]?.path[0] ?? 'line');
  return where === 'count'
    ? `"${cell('count')}" is not a count; write a whole number from 0 up`
    : `its ${where} cannot be kept`;
}

/** A kind by its name, its words, or the letters of its designators. */
export function kindNamed(text: string): PartKind | undefined {
  const word = text.toLowerCase();
  const kinds = Object.keys(KINDS) as PartKind[];
  return (
    kinds.find((k) => k.toLowerCase() === word || KINDS[k].words === word) ??
    KIND_WORDS.get(word) ??
    (/^[a-z]{1,2}$/.test(word) ? kindOfRef(`${word}1`) : undefined)
  );
}

function valueOf(kind: PartKind, text: string): number | string | null {
  const quantity = KINDS[kind].value;
  if (text === '') return null;
  if (quantity === null) return text.slice(0, 80);
  const parsed = parseValue(text, { kind: quantity });
  if (parsed.ok) return parsed.readings[0].value > 0 ? parsed.readings[0].value : null;
  // A part that has a value may also be known by its type: a regulator, a capsule.
  return KINDS[kind].value === 'resistor' || quantity === 'capacitor' || quantity === 'inductor'
    ? null
    : text;
}

/** Undefined for nothing, null for nonsense. */
function numberIn(text: string, kind: 'ratio' | 'voltage' | 'power'): number | null | undefined {
  if (text === '') return undefined;
  const parsed = parseValue(text, { kind, purpose: 'reading' });
  return parsed.ok && parsed.readings[0].value >= 0 ? parsed.readings[0].value : null;
}

/** A rating as `63V`, `0.25W` or both; null for what is none. */
export function ratingOf(text: string): { voltage?: number; power?: number } | null {
  const found: { voltage?: number; power?: number } = {};
  const words = halves(text.replace(/(\d)\s+(?=[vw])/gi, '$1')).split(/[\s/+]+/);
  for (const word of words.filter((w) => w !== '')) {
    const kind = /w$/i.test(word) ? 'power' : /v(dc|ac)?$/i.test(word) ? 'voltage' : null;
    const number = kind === null ? null : numberIn(word.replace(/(dc|ac)$/i, ''), kind);
    if (kind === null || number === null || number === undefined || !(number > 0)) return null;
    found[kind] = number;
  }
  return found;
}

/** "1/4W" as people write it. */
const halves = (text: string): string =>
  text.replace(/\b(\d+)\/(\d+)(?=w)/gi, (_, a: string, b: string) => String(Number(a) / Number(b)));

/** What is the same in the same place, counted together. */
function gathered(items: readonly StockItem[]): StockItem[] {
  const found = new Map<string, StockItem>();
  for (const item of items) {
    const { count, ...rest } = item;
    const key = JSON.stringify(rest);
    found.set(key, { ...item, count: count + (found.get(key)?.count ?? 0) });
  }
  return [...found.values()];
}

/** A drawer as a table that `readDrawerCsv` reads back, and a spreadsheet does not take for formulas. */
export function writeDrawerCsv(drawer: Drawer): string {
  const rows = drawer.map((item) => [
    item.kind,
    typeof item.value === 'number' ? exact({ ...item, value: item.value }) : item.value,
    item.tolerance === undefined ? '' : `${Number((100 * item.tolerance).toPrecision(6))}%`,
    [item.voltage === undefined ? '' : `${item.voltage}V`, item.power === undefined ? '' : `${item.power}W`]
      .filter((w) => w !== '')
      .join(' '),
    item.technology ?? '',
    item.count,
    item.place,
  ]);
  return writeCsv(DRAWER_COLUMNS, rows);
}

/** A value with all its digits, its prefix, and a unit where a bare number would be read as another. */
function exact({ kind, value }: StockItem & { readonly value: number }): string {
  const { factor, symbol } = prefixFor(value);
  const sign = { capacitor: 'F', inductor: 'H', voltage: 'V' }[KINDS[kind].value as string] ?? '';
  return `${Number((value / factor).toPrecision(12))}${symbol}${sign}`;
}
