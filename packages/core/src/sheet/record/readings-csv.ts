import { READING_CONDITIONS, type Between, type ReadingCondition, type UnitResource } from '@zemble/contract';
import { KINDS, type Part } from '../../circuit/circuit/index.ts';
import { problem, type Problem } from '../../base/errors/index.ts';
import { delimiterOf, readCsv, writeCsv } from '../../base/text/index.ts';
import { aspectNamed, aspectsOf, bareAspect } from '../../bench/judge/index.ts';
import { meterWord, parseValue, QUANTITY_KINDS } from '../../base/quantity/index.ts';
import { partsInPlace, type PartInPlace } from './unit-resource.ts';

/** Columns of a table of readings; the first two are needed. */
export const READING_COLUMNS = [
  'part',
  'value',
  'unit',
  'condition',
  'instrument',
  'taken_at',
  'withdrawn',
  'esr',
  'aspect',
  'red',
  'as_drawn',
  'low',
  'high',
  'change',
] as const;
const LARGEST_CSV = 2_000_000;
const MOST_PROBLEMS = 20;

/** One reading of a table. */
export interface ReadingRow {
  readonly line: number;
  /** The part that it is of: the one that was in at the time. */
  readonly place: PartInPlace;
  readonly value: number | 'open' | 'short';
  readonly condition: ReadingCondition;
  readonly instrument?: string;
  /** Series resistance read with a capacity, ohm. */
  readonly esr?: number;
  /** What was read beside the main value; see `aspectsOf`. */
  readonly aspect?: string;
  /** Pin that had the red lead. */
  readonly red?: string;
  readonly isAsDrawn?: true;
  /** Where it lies, of a value from a change. */
  readonly between?: Between;
}

export interface ReadingsCsv {
  readonly rows: readonly ReadingRow[];
  /** What could not be read, each with its line; the other rows stand. */
  readonly problems: readonly Problem[];
}

const bad = (line: number, detail: string) => problem('file/invalid', { where: `line ${line}`, detail });

/**
 * Reads a table of readings: `part,value[,unit][,condition][,instrument]`, with or without a head, separated by comma,
 * semicolon or tab, a decimal comma where the separator allows it. Values are in any notation of the trade. A reading is of the
 * part that is in now; where the head has `change`, of the one that this change put in, or without one of the part as it came.
 */
export function readReadingsCsv(text: string, unit: UnitResource): ReadingsCsv {
  if (text.length > LARGEST_CSV) return { rows: [], problems: [bad(1, 'it is larger than 2 MB')] };
  const delimiter = delimiterOf(text);
  const lines = readCsv(text, { skipsEmpty: true });
  const head = lines[0]?.map((c) => c.toLowerCase()) ?? [];
  const hasHead = head.includes('part') || head.includes('ref');
  const place = (name: string, usual: number) =>
    hasHead ? head.indexOf(name === 'part' && !head.includes('part') ? 'ref' : name) : usual;
  const columns = {
    part: place('part', 0),
    value: place('value', 1),
    unit: place('unit', hasHead ? -1 : 2),
    condition: place('condition', 3),
    instrument: place('instrument', 4),
    withdrawn: hasHead ? head.indexOf('withdrawn') : -1,
    esr: hasHead ? head.indexOf('esr') : -1,
    aspect: hasHead ? head.indexOf('aspect') : -1,
    red: hasHead ? head.indexOf('red') : -1,
    asDrawn: hasHead ? head.indexOf('as_drawn') : -1,
    low: hasHead ? head.indexOf('low') : -1,
    high: hasHead ? head.indexOf('high') : -1,
    change: hasHead ? head.indexOf('change') : -1,
  };
  const rows: ReadingRow[] = [];
  const problems: Problem[] = [];
  const places = new Places(unit);
  lines.slice(hasHead ? 1 : 0).forEach((cells, i) => {
    const line = i + (hasHead ? 2 : 1);
    const cell = (column: number) => (column < 0 ? '' : (cells[column] ?? ''));
    if (/^(yes|true|1)$/i.test(cell(columns.withdrawn))) return;
    const by = columns.change < 0 ? null : cell(columns.change);
    const place = places.find(cell(columns.part), by);
    if (!place) {
      const whose = by === null || by === '' ? '' : ` that "${by}" put in`;
      problems.push(bad(line, `there is no part "${cell(columns.part)}"${whose}`));
      return;
    }
    const { part } = place;
    const word = cell(columns.aspect).toLowerCase();
    const aspect =
      word === '' ? bareAspect(part) : aspectsOf(part).find((a) => a.id === word || a.words.includes(word));
    if (aspect === undefined) {
      problems.push(bad(line, `nothing called "${word}" is read of ${part.ref}`));
      return;
    }
    const quantity = aspect ? aspect.quantity : KINDS[part.kind].value;
    const typed = cell(columns.value);
    if (isThousandsPerhaps(typed, delimiter)) {
      const [whole, rest] = typed.split(/[.,]/);
      problems.push(
        bad(
          line,
          `"${typed}" may be ${Number(whole)} or ${Number(`${whole}${rest}`)}; write it without the mark, or with a prefix as 1k`,
        ),
      );
      return;
    }
    const value = valueIn(typed, cell(columns.unit), quantity);
    if (value === null) {
      problems.push(bad(line, `"${cell(columns.value)}" is not a reading of ${part.ref}`));
      return;
    }
    const condition = conditionIn(cell(columns.condition));
    if (condition === null) {
      problems.push(bad(line, `"${cell(columns.condition)}" is none of ${READING_CONDITIONS.join(', ')}`));
      return;
    }
    const [low, high] = [columns.low, columns.high].map((c) => valueIn(cell(c), '', quantity));
    const isChange = condition === 'from a change';
    if (isChange && typeof low !== 'number') {
      problems.push(bad(line, `a value of ${part.ref} from a change needs its lower end in "low"`));
      return;
    }
    const red = cell(columns.red);
    if (red !== '' && !Object.hasOwn(part.pins, red)) {
      problems.push(bad(line, `${part.ref} has no pin ${red}`));
      return;
    }
    const instrument = cell(columns.instrument);
    const esr = valueIn(cell(columns.esr), '', 'resistor');
    rows.push({
      line,
      place,
      value,
      condition,
      ...(instrument === '' ? {} : { instrument: instrument.slice(0, 80) }),
      ...(typeof esr === 'number' ? { esr } : {}),
      ...(aspect ? { aspect: aspect.id } : {}),
      ...(red === '' ? {} : { red }),
      ...(cell(columns.asDrawn).toLowerCase() === 'yes' ? { isAsDrawn: true as const } : {}),
      ...(isChange && typeof low === 'number'
        ? { between: { low, ...(typeof high === 'number' ? { high } : {}) } }
        : {}),
    });
  });
  return { rows, problems: problems.slice(0, MOST_PROBLEMS) };
}

/** The parts of a unit that a table can name. */
class Places {
  private readonly now: readonly PartInPlace[];
  private readonly came: readonly PartInPlace[];
  private readonly names: ReadonlyMap<string | undefined, string>;

  constructor(unit: UnitResource) {
    this.now = partsInPlace(unit);
    this.came = partsInPlace({ ...unit, changes: [] });
    this.names = new Map(unit.changes.map(({ id, change }) => [id, change.name.toLowerCase()]));
  }

  /** @param by the name of the change that put it in, empty for the part as it came; null for the one that is in now */
  find(ref: string, by: string | null): PartInPlace | undefined {
    const isMeant = ({ part }: PartInPlace) => part.ref.toLowerCase() === ref.toLowerCase();
    if (by === '') return this.came.find(isMeant);
    return this.now.find(
      (p) => isMeant(p) && (by === null || this.names.get(p.of.changeId) === by.toLowerCase()),
    );
  }
}

/**
 * Whether a mark before three digits may set thousands apart: a full stop where the comma is not the separator of cells and
 * may be the decimal mark, a comma where it is.
 */
const isThousandsPerhaps = (text: string, delimiter: string): boolean =>
  (delimiter === ',' ? /^\d{1,3},\d{3}$/ : /^\d{1,3}\.\d{3}$/).test(text);

/** An empty cell is a leg lifted; null for a word that is no condition. */
function conditionIn(text: string): ReadingCondition | null {
  const word = text.toLowerCase();
  if (word === '' || word === 'lifted') return 'leg lifted';
  return READING_CONDITIONS.find((c) => c === word) ?? null;
}

function valueIn(
  text: string,
  unitText: string,
  kind: (typeof KINDS)['resistor']['value'],
): ReadingRow['value'] | null {
  const state = meterWord(text);
  if (state) return state;
  if (kind === null || text === '') return null;
  const plain = /^-?\d+,\d+/.test(text) ? text.replace(',', '.') : text;
  // A bare number is what it says, in SI units.
  const number = /^\d*\.?\d+(e[+-]?\d+)?$/i.test(plain) ? Number(plain) : Number.NaN;
  if (Number.isFinite(number) && (unitText === '' || unitText === QUANTITY_KINDS[kind]))
    return number === 0 ? 'short' : number;
  const parsed = parseValue(
    `${plain}${unitText === QUANTITY_KINDS[kind] || unitText === 'Ω' ? '' : unitText}`,
    {
      kind,
      purpose: 'reading',
    },
  );
  if (!parsed.ok || !(parsed.readings[0].value >= 0)) return null;
  const { value } = parsed.readings[0];
  return value === 0 ? 'short' : value;
}

const unitRead = (part: Pick<Part, 'kind'>, aspect: string | null): string =>
  aspect === null
    ? QUANTITY_KINDS[KINDS[part.kind].value ?? 'number']
    : (aspectNamed(part, aspect)?.unit ?? '');

/** The part that a change puts in, whether it is done now or not. */
function putInBy(unit: UnitResource, changeId: string, ref: string): Part | undefined {
  const at = unit.changes.findIndex((c) => c.id === changeId);
  const changes = unit.changes
    .slice(0, at + 1)
    .map((c, i) => (i === at ? { ...c, change: { ...c.change, state: 'done' as const } } : c));
  return partsInPlace({ ...unit, changes }).find((p) => p.of.changeId === changeId && p.part.ref === ref)
    ?.part;
}

/** Every reading of parts as a table, those of parts that changes put in and the withdrawn ones too, in SI units. */
export function writeReadingsCsv(unit: UnitResource): string {
  const parts = new Map(unit.parts.map((p) => [p.id, p.part as Pick<Part, 'kind' | 'ref'>]));
  const names = new Map(unit.changes.map(({ id, change }) => [id, change.name]));
  const rows = unit.readings.flatMap((r) => {
    const came = r.partId === null ? undefined : parts.get(r.partId);
    const ref = r.ref ?? came?.ref;
    const part = r.changeId === null || ref === undefined ? came : putInBy(unit, r.changeId, ref);
    if (!part) return [];
    return [
      {
        part: part.ref,
        value: r.value,
        unit: typeof r.value === 'number' ? unitRead(part, r.aspect) : '',
        condition: r.condition,
        instrument: r.instrument ?? '',
        taken_at: r.takenAt,
        withdrawn: r.withdrawn ? 'yes' : '',
        esr: r.esr ?? '',
        aspect: r.aspect ?? '',
        red: r.red ?? '',
        as_drawn: r.isAsDrawn ? 'yes' : '',
        low: r.between?.low ?? '',
        high: r.between?.high ?? '',
        change: names.get(r.changeId ?? '') ?? '',
      },
    ];
  });
  const cells = rows.map((r) => READING_COLUMNS.map((c) => r[c]));
  return `${writeCsv(READING_COLUMNS, cells)}\n`;
}
