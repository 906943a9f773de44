import { z } from 'zod';
import { ticksSchema } from '../bench.ts';
import { boardsSchema, type BoardLink, type BoardTerminal, type Hole } from '../board.ts';
import { setSchema } from '../change.ts';
import { netNameSchema } from '../field.ts';
import { intakeSchema, pathSchema, type LinkData } from '../finding.ts';
import { hazardSchema } from '../hazard.ts';
import { unitPlaceSchema } from '../names.ts';
import { panelsSchema } from '../panel.ts';
import { modelSchema } from '../model.ts';
import { nudgesSchema } from '../nudge.ts';
import { settingSchema } from '../setting.ts';
import { wiresSchema } from '../wire.ts';
import { fields, listBy, listById, record, type Shape } from './things.ts';

/** A field of a unit. What is written, read, limited, said in the log and kept in a file follows from it. */
interface FieldKind<Schema extends z.ZodType> {
  /** What is written and read. */
  readonly schema: Schema;
  /** What a unit has of which nothing is said yet. */
  readonly empty: () => z.input<Schema>;
  /** What it is called in the log. */
  readonly words: string;
  /** What it is made of, where one thing of it travels. */
  readonly shape?: Shape;
}
const field = <Schema extends z.ZodType>(kind: FieldKind<Schema>): FieldKind<Schema> => kind;

export const nameSchema = z.string().trim().min(1, 'a unit needs a name').max(120);
export const LIMITS = { hazards: 20, settings: 200, sets: 50, models: 200 } as const;

const hole = ([column, row]: Hole) => `${column},${row}`;
/** A board, whose parts, cuts, links and terminals are things by themselves. */
const boardShape = fields({
  places: listBy<{ readonly ref: string }>(({ ref }) => ref),
  cuts: listBy(hole),
  links: listBy<BoardLink>(({ from, to }) => `${hole(from)}-${hole(to)}`),
  terminals: listBy<BoardTerminal>(({ net, hole: at, name }) => `${net} ${hole(at)} ${name ?? ''}`.trim()),
});
const panelShape = fields({ controls: listById(), obstacles: listById() });
const pathShape = fields({
  blocks: listById(fields()),
  links: listBy<LinkData>(({ from, to, carries }) => `${from} ${to} ${carries}`),
  testPoints: listById(fields()),
  twins: listBy<readonly [string, string]>((twin) => twin.join(' ')),
});

/** Fields of a unit that are changed each by itself; each has a version of its own. */
export const UNIT_FIELD_KINDS = {
  name: field({ schema: nameSchema, empty: () => 'Unnamed unit', words: 'its name' }),
  kind: field({ schema: z.string().trim().max(80), empty: () => '', words: 'what kind it is' }),
  hazards: field({
    schema: z.array(hazardSchema).max(LIMITS.hazards),
    empty: () => [],
    words: 'what in it can hurt',
  }),
  /** What else can hurt, in free words. */
  hazardNotes: field({
    schema: z.string().max(2000),
    empty: () => '',
    words: 'what else in it can hurt',
  }),
  notes: field({ schema: z.string().max(20_000), empty: () => '', words: 'its notes' }),
  settings: field({
    schema: z.array(settingSchema).max(LIMITS.settings),
    empty: () => [],
    words: 'the settings of its controls',
    shape: listById(),
  }),
  wires: field({ schema: wiresSchema, empty: () => [], words: 'its wires', shape: listById() }),
  boards: field({ schema: boardsSchema, empty: () => [], words: 'its boards', shape: listById(boardShape) }),
  panels: field({ schema: panelsSchema, empty: () => [], words: 'its panels', shape: listById(panelShape) }),
  sets: field({
    schema: z.array(setSchema).max(LIMITS.sets),
    empty: () => [],
    words: 'its sets of changes',
    shape: listById(),
  }),
  ground: field({ schema: netNameSchema, empty: () => '0', words: 'its ground' }),
  nudges: field({ schema: nudgesSchema, empty: () => ({}), words: 'the places of symbols', shape: record() }),
  models: field({
    schema: z.array(modelSchema).max(LIMITS.models),
    empty: () => [],
    words: 'the unit’s own models',
    shape: listBy<{ readonly name: string; readonly kind: string }>(({ name, kind }) => `${kind} ${name}`),
  }),
  path: field({
    schema: pathSchema.nullable(),
    empty: () => null,
    words: 'the signal path',
    shape: pathShape,
  }),
  intake: field({
    schema: intakeSchema,
    empty: () => ({}),
    words: 'the complaint',
    shape: fields({ checks: record() }),
  }),
  place: field({ schema: unitPlaceSchema, empty: () => 'bench' as const, words: 'where it is' }),
} as const;
export type UnitField = keyof typeof UNIT_FIELD_KINDS;
export const UNIT_FIELDS = Object.keys(UNIT_FIELD_KINDS) as readonly UnitField[];

/** Kept beside the fields, and changed by acts of its own: which steps of the bench work are ticked. */
export const TICKS_FIELD = field({
  schema: ticksSchema,
  empty: () => ({}),
  words: 'what is ticked',
  shape: record(),
});

type Schemas<Kinds extends Readonly<Record<string, { readonly schema: z.ZodType }>>> = {
  readonly [Name in keyof Kinds]: Kinds[Name]['schema'];
};
/** The schemas of some fields, by their names. */
const schemasOf = <Kinds extends Readonly<Record<string, { readonly schema: z.ZodType }>>>(kinds: Kinds) =>
  Object.fromEntries(Object.entries(kinds).map(([name, { schema }]) => [name, schema])) as Schemas<Kinds>;

export const unitFieldSchemas = schemasOf(UNIT_FIELD_KINDS);

/** Whether a text names a field of a unit. */
export const isUnitField = (name: string): name is UnitField => Object.hasOwn(UNIT_FIELD_KINDS, name);

type Empty = { [Name in UnitField]: z.output<(typeof UNIT_FIELD_KINDS)[Name]['schema']> };
/** What a unit has of which nothing is said yet. */
export const emptyFields = (): Empty =>
  Object.fromEntries(UNIT_FIELDS.map((name) => [name, UNIT_FIELD_KINDS[name].empty()])) as Empty;
