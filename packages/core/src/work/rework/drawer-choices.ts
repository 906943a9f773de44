import type { LayerPart } from '../../circuit/circuit/index.ts';
import { makeUp, matching, type Drawer, type Wanted } from '../drawer/index.ts';
import type { Bearing } from '../../bench/judge/index.ts';
import type { ESeries } from '../../base/quantity/index.ts';
import { isHelpful, SeriesChoices, type Choices } from './choices.ts';
import { pairKindOf, singleChange, type ValueChange } from './value-change.ts';

const REACH = 100;

/** What a drawer has, and beside it the values of a series, which must be bought. */
export class DrawerChoices implements Choices {
  private readonly parts: ReadonlyMap<string, LayerPart>;
  private readonly drawer: Drawer;
  private readonly bearings: ReadonlyMap<string, Bearing>;
  private readonly bought: SeriesChoices;
  private readonly known = new Map<string, readonly number[]>();

  /** @param bearings what a new part must be rated for, by designator; what is not there is as the part says */
  constructor(
    parts: ReadonlyMap<string, LayerPart>,
    series: ESeries,
    drawer: Drawer,
    bearings: ReadonlyMap<string, Bearing> = new Map(),
  ) {
    this.parts = parts;
    this.drawer = drawer;
    this.bearings = bearings;
    this.bought = new SeriesChoices(parts, series);
  }

  private wanted(ref: string, value: number): Wanted & { value: number } {
    const { kind, voltage, power, technology } = this.parts.get(ref)!;
    return { kind, value, voltage, power, technology, ...this.bearings.get(ref) };
  }

  private home(ref: string): number {
    return this.parts.get(ref)!.value as number;
  }

  /** Values of the drawer that can do the work of a part. */
  private there(ref: string): number[] {
    const home = this.home(ref);
    return this.drawer.flatMap(({ value }) =>
      typeof value === 'number' &&
      value >= home / REACH &&
      value <= home * REACH &&
      matching(this.drawer, this.wanted(ref, value)).length > 0
        ? [value]
        : [],
    );
  }

  values(ref: string): readonly number[] {
    const known = this.known.get(ref) ?? merged([...this.there(ref), ...this.bought.values(ref)]);
    this.known.set(ref, known);
    return known;
  }

  single(ref: string, value: number): ValueChange {
    const [item] = matching(this.drawer, this.wanted(ref, value));
    return { ...singleChange(ref, this.home(ref), value), places: [item?.place ?? null] };
  }

  nearest(ref: string, exact: number): readonly ValueChange[] {
    const there = merged(this.there(ref));
    const above = there.find((v) => v >= exact);
    const below = there.findLast((v) => v <= exact);
    const bought = this.bought.nearest(ref, exact).map((c) => c.value);
    const away = (value: number) => Math.abs(Math.log(value / exact));
    return merged([above, below, ...bought].filter((v) => v !== undefined))
      .sort((a, b) => away(a) - away(b))
      .map((v) => this.single(ref, v));
  }

  pairs(ref: string, exact: number): readonly ValueChange[] {
    const from = this.home(ref);
    const made = makeUp(this.drawer, this.wanted(ref, exact), pairKindOf(this.parts.get(ref)!))
      .filter((way) => way.made !== 'single')
      .map((way): ValueChange => ({
        ref,
        from,
        value: way.value,
        made: way.made,
        of: way.of.map((item) => item.value as number),
        places: way.of.map((item) => item.place),
      }));
    const bought = this.bought.pairs(ref, exact).map((c) => ({
      ...c,
      places: c.of.map((value) => this.single(ref, value).places![0]!),
    }));
    return [...made.filter((change) => isHelpful(change, this.parts.get(ref)!)), ...bought];
  }

  /** Each part of the drawer goes once; what is gone must be bought. */
  supplied(changes: readonly ValueChange[]): readonly ValueChange[] {
    const left = new Map(this.drawer.map((item) => [item, item.count]));
    return changes.map((change): ValueChange => ({
      ...change,
      places: change.of.map((value) => {
        const item = matching(this.drawer, this.wanted(change.ref, value)).find((i) => left.get(i)! > 0);
        if (!item) return null;
        left.set(item, left.get(item)! - 1);
        return item.place;
      }),
    }));
  }
}

/** Ascending, each value once. */
function merged(values: readonly number[]): number[] {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted.filter((v, i) => i === 0 || v / sorted[i - 1]! > 1 + 1e-6);
}
