import type { QuantityKind } from '../../../base/quantity/index.ts';
import type { Spot } from './spot.ts';

/** Something that a way of doing must be told. */
export interface Ask {
  readonly id: string;
  readonly label: string;
  readonly quantity: QuantityKind;
  readonly usual: number;
}

export type Answers = Readonly<Record<string, number>>;

/** What came of it: a change as it is typed, what it will do, and what to beware of. */
export interface Made {
  readonly line: string;
  readonly says: readonly string[];
  readonly traps: readonly string[];
}

/** A way of doing, in a file of its own. */
export interface Recipe {
  readonly id: string;
  /** In the trade's words. */
  readonly title: string;
  /** Whether more of the first thing it asks is slower, quieter or lower to the ear. */
  readonly isMoreSlower?: true;
  /** What it asks at a place; null where it does not fit. */
  readonly asks: (spot: Spot) => readonly Ask[] | null;
  /** Throws `rework/recipe` where it does not come out. */
  readonly make: (spot: Spot, answers: Answers) => Made;
}
