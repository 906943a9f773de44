import type { Change, StockItem } from '@zemble/contract';
import type { Circuit, Part } from '../../circuit/circuit/index.ts';
import { pickFor } from './pick.ts';
import { matching, sameValue, wantedFor, type Drawer, type Wanted } from './stock.ts';

/** A part that a planned change needs. */
export interface Need {
  readonly wanted: Wanted;
  readonly ref: string;
  readonly changeId: string;
}

/** Parts of one sort that are needed together, and where they come from. */
export interface Supply {
  readonly wanted: Wanted;
  readonly count: number;
  /** What the drawer gives, by item. */
  readonly reserved: readonly { readonly item: StockItem; readonly count: number }[];
  /** What must be bought. */
  readonly buy: number;
  /** Indices of the needs, in the order given. */
  readonly of: readonly number[];
}

/**
 * The parts that a step puts in; nothing for one that only moves wires.
 *
 * @param partAt the part that a fit replaces, as the circuit has it by then
 */
export function partsPutIn(change: Change, partAt: (ref: string) => Part | undefined): Need[] {
  return change.steps.flatMap((step): Need[] => {
    if (step.done !== undefined && change.state === 'planned') return [];
    const part = step.do === 'add' ? step.part : step.do === 'fit' ? partAt(step.ref) : undefined;
    if (!part) return [];
    const fields = step.do === 'fit' ? { ...part, ...(step.part ?? {}) } : part;
    const value = step.do === 'fit' ? step.value : part.marked;
    const wanted = wantedFor(fields as Part, value);
    return wanted ? [{ wanted, ref: part.ref, changeId: change.id }] : [];
  });
}

/** What the planned changes of a circuit need: those without a set, and those of the active one. */
export function needsOf(circuit: Circuit): Need[] {
  const active = circuit.sets?.find((s) => s.active)?.id;
  const changes = (circuit.changes ?? []).filter(
    (c) => c.state === 'planned' && (c.set === undefined || c.set === active),
  );
  const added = changes.flatMap((c) => c.steps.flatMap((s) => (s.do === 'add' ? [s.part] : [])));
  const parts = new Map([...circuit.parts, ...added].map((p) => [p.ref, p]));
  const needs = changes.flatMap((change) => partsPutIn(change, (ref) => parts.get(ref)));
  // Of several plans for one part the last is soldered.
  return [...new Map(needs.map((need) => [need.ref, need])).values()];
}

/** What the changes that are done took out of a circuit: the parts that others replaced, and those removed. */
export function takenOut(circuit: Circuit): Need[] {
  const parts = new Map(circuit.parts.map((p) => [p.ref, p]));
  const found: Need[] = [];
  for (const change of circuit.changes ?? []) {
    for (const step of change.steps) {
      const part = step.do === 'fit' || step.do === 'remove' ? parts.get(step.ref) : undefined;
      if (step.do === 'add') parts.set(step.part.ref, step.part);
      if (!part || change.state !== 'done') continue;
      const wanted = wantedFor(part, part.marked);
      if (wanted) found.push({ wanted, ref: part.ref, changeId: change.id });
      if (step.do === 'fit') parts.set(step.ref, { ...part, marked: step.value } as Part);
    }
  }
  return found;
}

const isSameSort = (a: Wanted, b: Wanted): boolean =>
  a.kind === b.kind &&
  sameValue(a.value, b.value) &&
  a.voltage === b.voltage &&
  a.power === b.power &&
  a.tolerance === b.tolerance &&
  a.technology === b.technology;

/** Where what is needed comes from: what the drawer has is reserved in the order of the needs, the rest is to be bought. */
export function supplyFor(needs: readonly Need[], drawer: Drawer): Supply[] {
  const left = new Map(drawer.map((item) => [item, item.count]));
  const sorts: { wanted: Wanted; of: number[] }[] = [];
  needs.forEach(({ wanted }, i) => {
    const sort = sorts.find((s) => isSameSort(s.wanted, wanted));
    if (sort) sort.of.push(i);
    else sorts.push({ wanted, of: [i] });
  });
  return sorts.map(({ wanted, of }) => {
    let missing = of.length;
    const reserved: { item: StockItem; count: number }[] = [];
    for (const item of matching(drawer, wanted)) {
      const count = Math.min(missing, left.get(item)!);
      if (count === 0) continue;
      left.set(item, left.get(item)! - count);
      reserved.push({ item, count });
      missing -= count;
    }
    // A value that nobody makes is made up of two parts that are there.
    for (; missing > 0; missing -= 1) {
      const there = drawer.map((item) => ({ ...item, count: left.get(item)! }));
      const picked = pickFor(there, wanted);
      if (!picked || picked.made === 'single') break;
      for (const of of picked.of) {
        const item = drawer[there.indexOf(of)]!;
        left.set(item, left.get(item)! - 1);
        reserved.push({ item, count: 1 });
      }
    }
    return { wanted, count: of.length, reserved, buy: missing, of };
  });
}
