import { outsideBy, wantedRange, type Readout, type ReadoutAnswer } from '../../analysis/readouts/index.ts';

/** A readout with what was computed of it as found, and what the bench says. */
export interface ReadoutState {
  readonly readout: Readout;
  /** Undefined while it is being computed. */
  readonly answer: ReadoutAnswer | undefined;
  /** In the readout's unit; null where the bench says nothing yet. */
  readonly bench: number | null;
}

/** Where a unit stands against what is wanted of it. */
export type Health =
  /** No readout has a wanted range. */
  | { readonly kind: 'nothing wanted' }
  | { readonly kind: 'computing' }
  /** The readout furthest out, and its value as computed or on the bench. */
  | { readonly kind: 'out'; readonly readout: Readout; readonly value: number; readonly isBench: boolean }
  /** Wanted readouts without a computed value: what has none is not in its range. */
  | { readonly kind: 'no value'; readonly readouts: readonly Readout[] }
  /** As computed all is well; these are not measured yet. */
  | { readonly kind: 'not measured'; readonly readouts: readonly Readout[] }
  | { readonly kind: 'well' };

/** Whether all that is wanted is so, computed and on the bench; what is furthest out, or missing, otherwise. */
export function healthOf(states: readonly ReadoutState[]): Health {
  const wanted = states.filter(({ readout }) => wantedRange(readout.want) !== undefined);
  if (wanted.length === 0) return { kind: 'nothing wanted' };
  const values = wanted.flatMap(({ readout, answer, bench }) => [
    ...(answer?.ok ? [{ readout, value: answer.value, isBench: false }] : []),
    ...(bench === null ? [] : [{ readout, value: bench, isBench: true }]),
  ]);
  const excess = ({ readout, value }: (typeof values)[number]) =>
    Math.abs(outsideBy(value, readout.want)) / Math.max(Math.abs(value), Number.MIN_VALUE);
  const worst = values.reduce<(typeof values)[number] | null>(
    (most, next) => (excess(next) > (most ? excess(most) : 0) ? next : most),
    null,
  );
  if (worst) return { kind: 'out', ...worst };
  const without = wanted.filter(({ answer }) => answer?.ok === false).map((s) => s.readout);
  if (without.length > 0) return { kind: 'no value', readouts: without };
  if (wanted.some(({ answer }) => answer === undefined)) return { kind: 'computing' };
  const unmeasured = wanted.filter(({ bench }) => bench === null).map((s) => s.readout);
  return unmeasured.length > 0 ? { kind: 'not measured', readouts: unmeasured } : { kind: 'well' };
}
