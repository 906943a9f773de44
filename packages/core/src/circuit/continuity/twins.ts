import { markedNumber, type Part } from '../circuit/index.ts';
import { pinText, type Traceable } from './ends.ts';
import { isInForce } from './graph.ts';
import { apartSets, type TracedNets } from './nets.ts';

/** Parts of two equal channels, each with the one that mirrors it, both ways. */
export type Twins = ReadonlyMap<string, string>;

/** Fewer pairs than these may be chance. */
const FEWEST_PAIRS = 3;

/** How the designators of two channels are usually told apart (common practice): a letter behind them, or a hundred. */
const RULES: readonly ((ref: string) => string | undefined)[] = [
  (ref) => (/\dL$/.test(ref) ? `${ref.slice(0, -1)}R` : undefined),
  (ref) => counted(ref, 100),
  (ref) => counted(ref, 200),
];

function counted(ref: string, by: number): string | undefined {
  const [, letters, number, unit = ''] = /^([A-Za-z]+)(\d+)([A-D]?)$/.exec(ref) ?? [];
  return letters === undefined ? undefined : `${letters}${Number(number) + by}${unit}`;
}

/** Of the parts whose designators say that they are twins, so many are alike in two channels; by chance few are. */
const LEAST_SHARE = 0.6;

/** What a part is told by. */
type Told = Pick<Part, 'ref' | 'kind' | 'model'>;

/** The parts that mirror one another in two channels, by their designators and what is printed on them; none where too few do. */
export const twinsOf = (parts: readonly Part[]): Twins => twinsBy(parts, markedNumber);

/** The same by values of another kind, as those of a layer. */
export function twinsBy<P extends Told>(parts: readonly P[], worthOf: (part: P) => unknown): Twins {
  const areAlike = (a: P, b: P) => a.kind === b.kind && a.model === b.model && worthOf(a) === worthOf(b);
  const byRef = new Map(parts.map((p) => [p.ref, p]));
  const pairs = RULES.map((rule) => {
    const called = parts.flatMap((part): [P, P][] => {
      const ref = rule(part.ref);
      const other = ref === undefined ? undefined : byRef.get(ref);
      return other ? [[part, other]] : [];
    });
    const alike = called.filter(([part, other]) => areAlike(part, other));
    return alike.length < LEAST_SHARE * called.length ? [] : alike;
  })
    .reduce((best, found) => (found.length > best.length ? found : best), [])
    .map(([part, other]): [string, string] => [part.ref, other.ref]);
  if (pairs.length < FEWEST_PAIRS) return new Map();
  const taken = new Set(pairs.flat());
  // Each channel has one half of a package, as a rule.
  const halves = parts.flatMap(({ ref }): [string, string][] => {
    const other = byRef.get(`${ref.slice(0, -1)}B`);
    const isHalf = /\dA$/.test(ref) && other !== undefined && !taken.has(ref) && !taken.has(other.ref);
    return isHalf && !byRef.has(`${ref.slice(0, -1)}C`) ? [[ref, other.ref]] : [];
  });
  return new Map([...pairs, ...halves].flatMap(([a, b]) => [[a, b] as const, [b, a] as const]));
}

/** The pin of the other channel that mirrors one; the pin itself where its part has no twin. */
export function mirrored(twins: Twins, pin: string): string {
  const dot = pin.indexOf('.');
  const twin = dot < 0 ? undefined : twins.get(pin.slice(0, dot));
  return twin === undefined ? pin : pinText(twin, pin.slice(dot + 1));
}

/** What the other channel says of a pin: the pins that it should be one net with, and is not known to be or not to be. */
export function expectedWith(
  pin: string,
  twins: Twins,
  { graph }: Pick<TracedNets, 'graph'>,
  netOf: (pin: string) => readonly string[],
  isApart: (a: string, b: string) => boolean,
): readonly string[] {
  const image = mirrored(twins, pin);
  if (image === pin) return [];
  return netOf(image)
    .filter((other) => other !== image)
    .map((other) => mirrored(twins, other))
    .filter((other) => {
      const [a, b] = [graph.setOf(pin), graph.setOf(other)];
      return a !== b && !isApart(a, b);
    });
}

/** Two pins of one channel that are one net while those that mirror them are known not to be. */
export interface TwinDifference {
  readonly joined: readonly [string, string];
  readonly apart: readonly [string, string];
  readonly sentence: string;
}

/** Where two channels differ, as far as it was heard: what is one net in one of them and known not to be in the other. */
export function twinDifferences(
  traced: Traceable,
  twins: Twins,
  { graph, points }: Pick<TracedNets, 'graph' | 'points'>,
): TwinDifference[] {
  if (twins.size === 0) return [];
  const { beeps = [] } = traced;
  const { isApart } = apartSets(traced, points, graph);
  const seen = new Set<string>();
  return beeps.flatMap((beep) => {
    if (!isInForce(beep) || beep.says !== 'apart') return [];
    const [held, ...over] = points(beep);
    return over.flatMap((other): TwinDifference[] => {
      const [a, b] = [mirrored(twins, held!), mirrored(twins, other)];
      const key = [graph.setOf(held!), graph.setOf(other)].sort().join('\n');
      const isMirrored = a !== held || b !== other;
      if (!isMirrored || seen.has(key) || !graph.isJoined(a, b) || graph.isJoined(held!, other)) return [];
      if (!isApart(graph.setOf(held!), graph.setOf(other))) return [];
      seen.add(key);
      return [
        {
          joined: [a, b],
          apart: [held!, other],
          sentence: `${a} and ${b} are one net, and ${held} and ${other}, which mirror them, are not.`,
        },
      ];
    });
  });
}
