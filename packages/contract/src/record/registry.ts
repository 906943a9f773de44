import { z } from 'zod';
import { beepActs, beepRow } from './beep.ts';
import { changeActs, changeRow } from './change.ts';
import { evidenceActs, evidenceRow } from './evidence.ts';
import { logActs, logRow } from './log.ts';
import { partActs, partRow } from './part.ts';
import { photoActs, photoRow } from './photo.ts';
import { planActs } from './plan.ts';
import { readingActs, readingRow } from './reading.ts';
import { readoutActs, readoutRow } from './readout.ts';
import { thingsSchema, type Thing } from './things.ts';
import { tickActs } from './tick.ts';
import { identitySchema, unitActs, unitFieldsSchema } from './unit.ts';

/** Every kind of row, in an order in which each finds those that it refers to. */
export const ROW_KINDS = [
  partRow,
  readoutRow,
  changeRow,
  readingRow,
  evidenceRow,
  beepRow,
  photoRow,
  logRow,
] as const;
export type AnyRowKind = (typeof ROW_KINDS)[number];
export type RowOf = AnyRowKind['of'];
export type RowList = AnyRowKind['list'];
export type RowKindOf<Of extends RowOf> = Extract<AnyRowKind, { of: Of }>;
/** What a row of a kind is. */
export type RowValue<Of extends RowOf> = z.output<RowKindOf<Of>['schema']>;

export const rowKind = <Of extends RowOf>(of: Of): RowKindOf<Of> =>
  ROW_KINDS.find((kind) => kind.of === of) as RowKindOf<Of>;

type ListsOf<Kinds extends readonly AnyRowKind[]> = {
  [Kind in Kinds[number] as Kind['list']]: z.ZodArray<Kind['schema']>;
};
export const unitResourceSchema = z.object({
  ...identitySchema.shape,
  ...unitFieldsSchema.shape,
  ...(Object.fromEntries(ROW_KINDS.map(({ list, schema }) => [list, z.array(schema)])) as ListsOf<
    typeof ROW_KINDS
  >),
});
export type UnitResource = z.infer<typeof unitResourceSchema>;

/** Everything that a person does to the record of a unit. A new act is an entry in the file of its kind. */
export const ACTS = {
  ...unitActs,
  ...partActs,
  ...readoutActs,
  ...changeActs,
  ...readingActs,
  ...evidenceActs,
  ...beepActs,
  ...photoActs,
  ...tickActs,
  ...planActs,
  ...logActs,
} as const;
export type ActType = keyof typeof ACTS;
/** One act of a person on the record, as data. */
export type Act = { [Type in ActType]: z.output<(typeof ACTS)[Type]['schema']> }[ActType];
export type ActOf<Type extends ActType> = Extract<Act, { type: Type }>;

const actSchemas = Object.values(ACTS).map(({ schema }) => schema);
export const actSchema = z.discriminatedUnion(
  'type',
  actSchemas as [(typeof actSchemas)[number], ...(typeof actSchemas)[number][]],
) as z.ZodType<Act>;

/** The most acts that are one thought. */
export const MOST_ACTS = 1000;
/** Several acts that are one thought: one step of the log, taken back at once; all of them or none. */
export const batchSchema = z.object({
  acts: z
    .array(actSchema)
    .min(1)
    .max(MOST_ACTS)
    .refine((acts) => acts.every(({ type }) => type !== 'undo'), {
      message: 'a step is taken back by itself',
    }),
  /** What was done, for the log; the words of the acts where it is absent. */
  words: z.string().trim().min(1).max(500).optional(),
});
export type Batch = z.infer<typeof batchSchema>;

const effectOf = <Kind extends AnyRowKind>({ of, schema }: Kind) =>
  z.object({
    of: z.literal(of as Kind['of']),
    value: schema as Kind['schema'],
    /** It was put in: those that stand at its place and after it move on by one. */
    isNew: z.boolean().optional(),
  });
type RowEffect = {
  [Kind in AnyRowKind as Kind['of']]: {
    of: Kind['of'];
    value: z.output<Kind['schema']>;
    isNew?: boolean | undefined;
  };
}[RowOf];
/** What an edit does to the record of a unit: an entity as it is now, one that is gone, or fields of the unit itself. */
export type Effect =
  | RowEffect
  | { of: 'unit'; value: Partial<z.infer<typeof unitFieldsSchema>> }
  /** Things of fields that were put or removed, one by one. */
  | { of: 'things'; things: Thing[] }
  | { of: 'gone'; entity: RowOf; id: string };
const rowEffects = ROW_KINDS.map(effectOf);
export const effectSchema = z.discriminatedUnion('of', [
  z.object({ of: z.literal('unit'), value: unitFieldsSchema.partial() }),
  z.object({ of: z.literal('things'), things: thingsSchema }),
  z.object({
    of: z.literal('gone'),
    entity: z.enum(ROW_KINDS.map((kind) => kind.of)),
    id: z.uuid(),
  }),
  ...rowEffects,
]) as z.ZodType<Effect>;
