import { z } from 'zod';
import { netNameSchema } from './field.ts';
import { partSchema, partValueSchema, refSchema } from './part-schema.ts';
import type { FilePart, LayerValue, Part } from './parts/part.ts';
import { writtenTimeSchema } from './reading.ts';

/** What a change is for. A trial is clipped on and not soldered; a diagnosis is temporary and must come back. */
export const CHANGE_PURPOSES = ['repair', 'modification', 'trial', 'diagnosis'] as const;
export type ChangePurpose = (typeof CHANGE_PURPOSES)[number];

/** Where a change stands: `undone` was done and has been taken back. */
export const CHANGE_STATES = ['planned', 'done', 'undone', 'dropped'] as const;
export type ChangeState = (typeof CHANGE_STATES)[number];

/** When a step was ticked, and by which hand. */
const doneSchema = z.looseObject({ at: writtenTimeSchema, by: z.string().max(60).optional() });

/** A pin by its part and name: "C7.a". */
const pinSchema = z
  .string()
  .trim()
  .max(66)
  .regex(/^.+\..+$/, 'a pin is written as its part and its name with a dot between them, as C7.a');

const common = { done: doneSchema.optional() };
const stepSchemas = {
  fit: z.looseObject({
    do: z.literal('fit'),
    ref: refSchema,
    value: partValueSchema.optional(),
    part: z.record(z.string().max(32), z.unknown()).optional(),
    ...common,
  }),
  add: z.looseObject({ do: z.literal('add'), part: partSchema, ...common }),
  remove: z.looseObject({ do: z.literal('remove'), ref: refSchema, ...common }),
  lift: z.looseObject({ do: z.literal('lift'), pin: pinSchema, ...common }),
  cut: z.looseObject({
    do: z.literal('cut'),
    net: netNameSchema,
    pins: z.array(pinSchema).min(1, 'a cut names the pins that it takes away').max(200),
    as: netNameSchema,
    ...common,
  }),
  join: z.looseObject({ do: z.literal('join'), net: netNameSchema, to: netNameSchema, ...common }),
  move: z.looseObject({ do: z.literal('move'), pin: pinSchema, to: netNameSchema, ...common }),
} as const;

const STEP_KINDS = Object.keys(stepSchemas) as (keyof typeof stepSchemas)[];

const stepSchema = z.discriminatedUnion(
  'do',
  [
    stepSchemas.fit,
    stepSchemas.add,
    stepSchemas.remove,
    stepSchemas.lift,
    stepSchemas.cut,
    stepSchemas.join,
    stepSchemas.move,
  ],
  {
    error: (issue) =>
      issue.code === 'invalid_union' ? `it is no step; there are ${STEP_KINDS.join(', ')}` : undefined,
  },
);

/** Readouts by their ids; null where there was no value. */
export const readoutValuesSchema = z.record(z.string().max(64), z.number().nullable());

/** Something done, or to be done, to the circuit of a unit, as a file has it. */
export const changeSchema = z
  .looseObject({
    id: z.string().trim().min(1).max(64),
    name: z.string().trim().min(1).max(120),
    purpose: z.enum(CHANGE_PURPOSES),
    state: z.enum(CHANGE_STATES),
    /** The set that it belongs to; to every one when absent. */
    set: z.string().trim().min(1).max(64).optional(),
    why: z.string().max(2000).optional(),
    /** In order. */
    steps: z.array(stepSchema).max(200),
    /** What is seen while it is in force is seen under this: "disconnected: amp", "dummy load". */
    condition: z.string().trim().min(1).max(80).optional(),
    /** Readouts before it, and as predicted with it. */
    before: readoutValuesSchema.optional(),
    predicted: readoutValuesSchema.optional(),
    /** Since when it is as its state says. */
    since: writtenTimeSchema.optional(),
  })
  .refine((change) => change.steps.length > 0 || isTemporary(change), {
    path: ['steps'],
    message: 'a change has at least one step; only something temporary may be its name alone',
  }) as z.ZodType<FileChange, FileChange>;

/** A set of changes: one of several alternatives, of which one is active. */
export const setSchema = z.looseObject({
  id: z.string().trim().min(1).max(64),
  name: z.string().trim().max(120).optional(),
  active: z.boolean().optional(),
});
export interface ChangeSet {
  readonly id: string;
  readonly name?: string | undefined;
  readonly active?: boolean | undefined;
}

/** Who ticked a step, and when. */
export type Done = z.infer<typeof doneSchema>;
interface Tickable {
  readonly done?: Done | undefined;
}

/** Another value or type in the same place; `part` has the fields that differ. */
export interface FitStep<V = LayerValue> extends Tickable {
  readonly do: 'fit';
  readonly ref: string;
  readonly value?: V | undefined;
  readonly part?: Readonly<Record<string, unknown>> | undefined;
}
/** A new part between nets, which may be new ones. */
export interface AddStep<P = Part> extends Tickable {
  readonly do: 'add';
  readonly part: P;
}
/** Taken out; its pads stay open. */
export interface RemoveStep extends Tickable {
  readonly do: 'remove';
  readonly ref: string;
}
/** One leg out: that pin hangs on a net of its own. */
export interface LiftStep extends Tickable {
  readonly do: 'lift';
  readonly pin: string;
}
/** A track cut or a wire unsoldered: the named pins belong to net `as` from then on. */
export interface CutStep extends Tickable {
  readonly do: 'cut';
  readonly net: string;
  readonly pins: readonly string[];
  readonly as: string;
}
/** A wire between two nets. */
export interface JoinStep extends Tickable {
  readonly do: 'join';
  readonly net: string;
  readonly to: string;
}
/** One pin rewired. */
export interface MoveStep extends Tickable {
  readonly do: 'move';
  readonly pin: string;
  readonly to: string;
}
type StepWith<P, V> = FitStep<V> | AddStep<P> | RemoveStep | LiftStep | CutStep | JoinStep | MoveStep;
/** A step with values in SI units. */
export type Step = StepWith<Part, LayerValue>;
/** A step as a file may have it. */
export type FileStep = StepWith<FilePart, string | number | null>;

/** Something done, or to be done, to the circuit of a unit, with values in SI units. */
export interface Change {
  readonly id: string;
  readonly name: string;
  readonly purpose: ChangePurpose;
  readonly state: ChangeState;
  readonly set?: string | undefined;
  readonly why?: string | undefined;
  /** Something temporary that no step says, as a plug that is pulled, has none. */
  readonly steps: readonly Step[];
  readonly condition?: string | undefined;
  readonly before?: Readonly<Record<string, number | null>> | undefined;
  readonly predicted?: Readonly<Record<string, number | null>> | undefined;
  readonly since?: string | undefined;
}

/** A change as a file may have it. */
export type FileChange = Omit<Change, 'steps'> & { readonly steps: readonly FileStep[] };

/** Whether a change is one that must come back: it goes on the ledger while it is in force. */
export const isTemporary = ({ purpose }: Pick<Change, 'purpose'>): boolean =>
  purpose === 'trial' || purpose === 'diagnosis';
