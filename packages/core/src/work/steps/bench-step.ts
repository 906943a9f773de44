import type { Done, Step } from '@zemble/contract';

/** What sort of work a step is, in the order in which good hands go. */
export const STEP_KINDS = [
  'safe',
  'discharge',
  'dead',
  'photograph',
  'mark',
  'loosen',
  'take out',
  'clean',
  'unsolder',
  'cut',
  'link',
  'fit',
  'wire',
  'chip',
  'check',
  'power',
] as const;
export type StepKind = (typeof STEP_KINDS)[number];

/** A step of a change that a bench step carries out. */
export interface Ticks {
  readonly change: string;
  /** Its place among the steps of the change, from 0. */
  readonly step: number;
}

/** One thing that is done at the bench. */
export interface BenchStep {
  /** The same as long as the plan is the same, so that its tick holds. */
  readonly id: string;
  readonly kind: StepKind;
  /** What is done, a sentence. */
  readonly say: string;
  /** Why, a sentence. */
  readonly why: string;
  readonly refs: readonly string[];
  readonly nets: readonly string[];
  readonly caution?: string;
  /** Where it goes on a board of the unit: its holes. */
  readonly place?: string;
  /** Steps that come before it. */
  readonly needs: readonly string[];
  /** The step of a change that is done with it. */
  readonly ticks?: Ticks;
  /** Steps of earlier plans for the same part that are not soldered, since this one is: with its tick they are gone. */
  readonly replaces?: readonly Ticks[];
  /** That step as it is soldered, where a later plan has changed it: with its tick it is so in its change. */
  readonly as?: Step;
  /** Where that step was ticked. */
  readonly done?: Done | undefined;
}

/** A step before it is known what comes before it. */
export type Draft = Omit<BenchStep, 'needs'>;
