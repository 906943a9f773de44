import type { Circuit } from '../circuit/index.ts';
import { matchesOf, Surroundings, type Match } from './pattern.ts';
import type { Pattern } from './elements.ts';
import { PATTERNS } from './patterns.ts';

/** A figure that a circuit has: parts that the trade calls by one name. */
export interface Figure {
  readonly id: string;
  /** "long-tailed pair". */
  readonly name: string;
  /** The name with the parts that it goes by: "long-tailed pair Q1 Q2". */
  readonly title: string;
  /** Designators by role. */
  readonly roles: ReadonlyMap<string, string>;
  /** Every part of it, once. */
  readonly refs: readonly string[];
  /** Nets by the letters of its pattern. */
  readonly nets: ReadonlyMap<string, string>;
}

/**
 * The figures of a circuit as it came, those that are told most surely first: subgraphs of parts in roles, with what the
 * pattern asks of values, polarities and rails. A part may belong to several; a plainer figure that is wholly part of another
 * which replaces it (a follower that is half of an output) is not listed.
 */
export function figuresOf(circuit: Circuit): Figure[] {
  const around = new Surroundings(circuit);
  const found: { figure: Figure; pattern: Pattern }[] = [];
  for (const pattern of PATTERNS) {
    const seen = new Set<string>();
    const own = matchesOf(pattern, around, (match) => pattern.isIt(match, around));
    for (const match of own) {
      const figure = figureOf(pattern, match);
      const key = [...figure.refs].sort().join(' ');
      if (seen.has(key) || found.some((f) => replaces(f.pattern, pattern, f.figure, figure))) continue;
      seen.add(key);
      found.push({ figure, pattern });
    }
  }
  return found.map((f) => f.figure);
}

/** Whether an earlier figure stands for a plainer one: it says so, and has the parts that the plainer one goes by. */
const replaces = (by: Pattern, pattern: Pattern, one: Figure, other: Figure): boolean =>
  by.insteadOf?.includes(pattern.id) === true &&
  pattern.named.every((role) => {
    const ref = other.roles.get(role);
    return ref === undefined || one.refs.includes(ref);
  });

function figureOf({ id, name, named }: Pattern, { parts, nets }: Match): Figure {
  const roles = new Map([...parts].map(([role, part]) => [role, part.ref]));
  const by = [...new Set(named.flatMap((role) => roles.get(role) ?? []))].sort(byNumber);
  return { id, name, title: `${name} ${by.join(' ')}`, roles, refs: [...roles.values()], nets };
}

const byNumber = (a: string, b: string): number => a.localeCompare(b, 'en', { numeric: true });
