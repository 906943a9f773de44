import type { Board, EvidenceData, PathData, PhotoResource, Wire } from '@zemble/contract';
import type { Traceable } from './ends.ts';
import { tracedNames } from './retrace.ts';

/** What of a unit names nets beside its circuit. */
interface NamingNets {
  readonly path?: PathData | null | undefined;
  readonly evidence?: readonly EvidenceData[] | undefined;
  readonly photos?: readonly { readonly points?: PhotoResource['points'] | undefined }[] | undefined;
  readonly boards?: readonly Board[] | undefined;
  readonly wires?: readonly Wire[] | undefined;
}

/**
 * A unit whose test points, evidence, photos, boards and wires name nets as they are called now: what was said of a net holds
 * when tracing gives it another name. What names none of the renamed ones stays the same object.
 */
export function withNetsOfNow<Unit extends NamingNets>(circuit: Traceable, unit: Unit): Unit {
  const names = tracedNames(circuit);
  if (names.size === 0) return unit;
  const { path, evidence, photos, boards, wires } = unit;
  const now = <Name extends string | undefined>(name: Name): Name | string =>
    name === undefined ? name : (names.get(name) ?? name);
  const own = new Set([
    ...[...(path?.blocks ?? []), ...(path?.testPoints ?? [])].map((p) => p.id),
    ...circuit.parts.map((p) => p.ref),
  ]);
  // A block, a test point or a part of the same name is meant before a net.
  const place = (at: string): string => (own.has(at) ? at : now(at));
  const renamed: NamingNets = {
    ...(path?.testPoints
      ? { path: kept(path, { testPoints: each(path.testPoints, ({ net }) => ({ net: now(net) })) }) }
      : {}),
    ...(evidence
      ? {
          evidence: each(evidence, ({ at, injectedAt }) => ({
            at: place(at),
            injectedAt: injectedAt === undefined ? undefined : place(injectedAt),
          })),
        }
      : {}),
    ...(photos
      ? {
          photos: each(photos, ({ points }) => ({
            points: points && each(points, ({ target }) => ({ target: place(target) })),
          })),
        }
      : {}),
    ...(boards
      ? { boards: each(boards, (b) => ({ terminals: each(b.terminals, ({ net }) => ({ net: now(net) })) })) }
      : {}),
    ...(wires
      ? { wires: each(wires, ({ net, from, to }) => ({ net: now(net), from: end(from), to: end(to) })) }
      : {}),
  };
  return kept(unit, renamed);

  /** A place on the board that goes by a terminal's own name keeps it. */
  function end(text: string): string {
    const [, name] = /^board\.(.+)$/i.exec(text) ?? [];
    const isTerminal = boards?.some((b) => b.terminals.some((t) => t.name === name)) === true;
    return name === undefined || isTerminal ? text : `board.${now(name)}`;
  }
}

/** An object with other values; the same where they are as they were. */
function kept<T extends object>(was: T, values: object): T {
  const other = Object.entries(values).filter(([key, value]) => Reflect.get(was, key) !== value);
  return other.length === 0 ? was : Object.assign({}, was, Object.fromEntries(other));
}

/** Each of a list with other values; the same list where they are as they were. */
function each<T extends object>(list: T[], values: (item: T) => Partial<T>): T[];
function each<T extends object>(list: readonly T[], values: (item: T) => Partial<T>): readonly T[];
function each<T extends object>(list: readonly T[], values: (item: T) => Partial<T>): readonly T[] {
  const made = list.map((item) => kept(item, values(item)));
  return made.every((item, i) => item === list[i]) ? list : made;
}
