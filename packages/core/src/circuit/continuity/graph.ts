import type { BeepData } from '@zemble/contract';
import { UnionFind } from '../circuit/index.ts';

/** Why two points are one net. */
export type Why =
  /** A beep, by its place in the list. */
  | { readonly by: 'beep'; readonly beep: number }
  /** One of several beeped, and all others are known not to. */
  | { readonly by: 'elimination'; readonly beep: number }
  /** The net was said of the pin. */
  | { readonly by: 'said'; readonly net: string }
  /** Two units share the pin of their package. */
  | { readonly by: 'package'; readonly designator: string };

/** Two points that are one net. */
export interface Link {
  readonly from: string;
  readonly to: string;
  readonly why: Why;
}

/** Points that are joined, with what joins them: pins by their text, nets by `netPoint`. */
export class JoinGraph {
  private readonly sets = new UnionFind();
  private readonly links = new Map<string, Link[]>();

  join(from: string, to: string, why: Why): void {
    this.sets.join(from, to);
    this.listOf(from).push({ from, to, why });
    this.listOf(to).push({ from: to, to: from, why });
  }

  /** The name of the set that a point is in. */
  setOf(point: string): string {
    return this.sets.find(point);
  }

  isJoined(a: string, b: string): boolean {
    return this.setOf(a) === this.setOf(b);
  }

  /** The fewest links from one point to another; undefined where they are not joined. */
  chain(from: string, to: string): Link[] | undefined {
    if (!this.isJoined(from, to)) return undefined;
    const came = new Map<string, Link | null>([[from, null]]);
    const queue = [from];
    for (let at = queue.shift(); at !== undefined && at !== to; at = queue.shift())
      for (const link of this.links.get(at) ?? [])
        if (!came.has(link.to)) {
          came.set(link.to, link);
          queue.push(link.to);
        }
    const links: Link[] = [];
    for (let link = came.get(to); link; link = came.get(link.from)) links.unshift(link);
    return links;
  }

  private listOf(point: string): Link[] {
    const known = this.links.get(point);
    if (known) return known;
    const made: Link[] = [];
    this.links.set(point, made);
    return made;
  }
}

/** The point that stands for a net with a name: no designator begins with a line break. */
export const netPoint = (net: string): string => `\n${net}`;
/** The net that a point stands for; undefined for a pin. */
export const netOfPoint = (point: string): string | undefined =>
  point.startsWith('\n') ? point.slice(1) : undefined;

/** Whether a beep still counts. */
export const isInForce = (beep: BeepData): boolean => beep.withdrawn !== true;
