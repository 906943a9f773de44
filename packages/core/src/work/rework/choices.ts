import { usualTolerance, type LayerPart } from '../../circuit/circuit/index.ts';
import {
  bestPair,
  nearestPreferred,
  preferredBetween,
  stepPreferred,
  type ESeries,
} from '../../base/quantity/index.ts';
import { pairKindOf, singleChange, type ValueChange } from './value-change.ts';

/** What can be fitted in the place of a part. */
export interface Choices {
  /** Single values within a factor of a hundred of the present one, ascending. */
  values(ref: string): readonly number[];
  /** A single value as a change. */
  single(ref: string, value: number): ValueChange;
  /** The single values next to an exact one, the nearest first. */
  nearest(ref: string, exact: number): readonly ValueChange[];
  /** Two parts in series or parallel that come closest to an exact value. */
  pairs(ref: string, exact: number): readonly ValueChange[];
  /** Changes with what each takes from what is there once what the others take is gone; as they are where nothing is there. */
  supplied(changes: readonly ValueChange[]): readonly ValueChange[];
}

const REACH = 100;

/** Whether the second part of a pair does more than the tolerance of the first hides: 270 nF beside 15 uF at 20 % does not. */
export function isHelpful({ made, of, value }: ValueChange, part: LayerPart): boolean {
  if (made === 'single') return true;
  const { tolerance: _old, ...untold } = part;
  return of.every(
    (one) => Math.abs(value / one - 1) > usualTolerance({ ...untold, value: one } as LayerPart),
  );
}

/** Values of a preferred series, each to be bought. */
export class SeriesChoices implements Choices {
  private readonly parts: ReadonlyMap<string, LayerPart>;
  private readonly series: ESeries;
  private readonly known = new Map<string, readonly number[]>();

  constructor(parts: ReadonlyMap<string, LayerPart>, series: ESeries) {
    this.parts = parts;
    this.series = series;
  }

  private home(ref: string): number {
    return this.parts.get(ref)!.value as number;
  }

  values(ref: string): readonly number[] {
    const home = this.home(ref);
    const known = this.known.get(ref) ?? preferredBetween(home / REACH, home * REACH, this.series);
    this.known.set(ref, known);
    return known;
  }

  single(ref: string, value: number): ValueChange {
    return singleChange(ref, this.home(ref), value);
  }

  nearest(ref: string, exact: number): readonly ValueChange[] {
    const nearest = nearestPreferred(exact, this.series);
    const other = stepPreferred(nearest, nearest > exact ? -1 : 1, this.series);
    return [this.single(ref, nearest), this.single(ref, other)];
  }

  pairs(ref: string, exact: number): readonly ValueChange[] {
    const from = this.home(ref);
    const part = this.parts.get(ref)!;
    return (['series', 'parallel'] as const)
      .map((wiring): ValueChange => {
        const pair = bestPair(exact, this.series, wiring, pairKindOf(part));
        return { ref, from, value: pair.value, made: wiring, of: pair.values };
      })
      .filter((change) => isHelpful(change, part));
  }

  supplied(changes: readonly ValueChange[]): readonly ValueChange[] {
    return changes;
  }
}
