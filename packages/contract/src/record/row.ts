import type { z } from 'zod';

/**
 * One sort of row of a unit's record. Lists of the unit, effects of edits, what the server keeps and reads, archives and limits
 * follow from it.
 */
export interface RowKind<Of extends string, List extends string, Schema extends z.ZodType> {
  /** What an effect calls it. */
  readonly of: Of;
  /** The unit's list of them. */
  readonly list: List;
  /** One and several of them, in words. */
  readonly words: readonly [one: string, several: string];
  /** What is written and read. */
  readonly schema: Schema;
  /** The most that a unit holds; a unit file has room for the same. */
  readonly most: number;
  /** What the list is sorted by: a place that the value says, as it was added, when it was taken, or the newest first. */
  readonly order: 'position' | 'added' | 'time' | 'newest';
  /** How one goes: taken out and kept, so that it can be put back; withdrawn and still shown; or never. */
  readonly goes: 'removed' | 'withdrawn' | 'never';
  /** The name of its own by which a unit has it once. */
  readonly nameOf?: (value: z.output<Schema>) => string;
}

/** Declares a sort of row. */
export const row = <Of extends string, List extends string, Schema extends z.ZodType>(
  kind: RowKind<Of, List, Schema>,
): RowKind<Of, List, Schema> => kind;
