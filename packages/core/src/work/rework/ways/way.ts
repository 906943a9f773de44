import type { Readout, Step } from '@zemble/contract';
import type { QuantityKind } from '../../../base/quantity/index.ts';
import type { ESeries } from '../../../base/quantity/index.ts';
import type { Place } from './place.ts';

/** Something that a way of doing must be told. */
export interface Ask {
  readonly id: string;
  readonly label: string;
  readonly quantity: QuantityKind;
  /** What is taken where nothing is said, in the quantity's SI unit. */
  readonly given: number;
}

export type Answers = Readonly<Record<string, number>>;

type Unnamed<R> = R extends Readout ? Omit<R, 'id' | 'name'> : never;
/** A readout without the names that it gets as a promise. */
export type ReadoutSpec = Unnamed<Readout>;

/** Where controls that a change brings stand. */
export type Stands = ReadonlyMap<string, number | string | boolean>;

/** What the planned circuit must read. */
export interface Goal {
  readonly readout: ReadoutSpec;
  /** What is asked for, in the readout's unit. */
  readonly aim: number;
  readonly is: 'equal' | 'most' | 'least';
  /** What it may miss: in dB of a level, otherwise as a share of the aim; a thing that is merely told has none. */
  readonly within: number;
  /** Where the controls stand for it; as the change draws them when absent, and only then is it a promise. */
  readonly stands?: Stands;
}

/** A value that is not known yet: that of one part, or of several that are to be equal. */
export interface Unknown {
  readonly refs: readonly string[];
  readonly series: ESeries;
  /** The goal that it is turned for, by its place. */
  readonly goal: number;
  /** What the place bears, in the value's unit. */
  readonly least?: number;
  readonly most?: number;
}

/** The values found, and what each goal reads with them, in order. */
export interface Found {
  readonly value: (ref: string) => number;
  readonly reads: readonly number[];
  /** A direct voltage of the planned circuit, V. */
  readonly volts: (net: string) => number;
  /** Heat in a part of the planned circuit, W. */
  readonly watts: (ref: string) => number;
  /** What another readout is with the change. Throws `rework/way` where it has no value. */
  readonly read: (readout: ReadoutSpec, stands?: Stands) => number;
}

/** A change with what is still to be found of it. */
export interface Draft {
  readonly name: string;
  /** With starting values for the unknowns. */
  readonly steps: readonly Step[];
  readonly unknowns: readonly Unknown[];
  /** At least one: what it promises. */
  readonly goals: readonly Goal[];
  /** Whether direct voltages elsewhere may move: otherwise a change that moves one is refused. */
  readonly mayMoveRest?: true;
  readonly says: (found: Found) => readonly string[];
  readonly traps: (found: Found) => readonly string[];
}

/** A way of doing, in a file of its own. */
export interface Way {
  readonly id: string;
  /** In the trade's words. */
  readonly title: string;
  /** Whether more of the first thing it asks is slower, quieter or lower to the ear. */
  readonly isMoreSlower?: true;
  /** Whether it may be offered where more than 60 V direct stand. */
  readonly isForHighTension?: true;
  /** What it asks at a place; null where it does not fit. */
  readonly asks: (place: Place) => readonly Ask[] | null;
  /**
   * What it would do, several where more than one would do it, the best first: the first that comes within its own limits is
   * taken. Throws `rework/way` where it cannot be done.
   */
  readonly drafts: (place: Place, answers: Answers) => readonly Draft[];
}
