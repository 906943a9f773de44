import type { BeepData } from '@zemble/contract';
import { BEEPS_BELOW_OHM, lowOhmSets } from './low-ohm.ts';
import { pinText, type Traceable } from './ends.ts';
import { apartSets, isOneOf, shortedBy, type TracedNets } from './nets.ts';
import { isInForce, netOfPoint, type Link } from './graph.ts';

/** Something that beeps cannot both be, or that only a look at the board can tell. */
export interface BeepContradiction {
  readonly kind:
    /** Two points are joined and were said not to be. */
    | 'joined'
    /** One of several beeped, and all of them are known not to. */
    | 'none left'
    /** Both supply pins of a chip are one net. */
    | 'supply'
    /** Both ends of a part are one net. */
    | 'bridged';
  readonly sentence: string;
  /** The beeps that take part, by their places in the list, the likeliest to be wrong first. */
  readonly beeps: readonly number[];
}

/** A beep that may go through a coil or a small resistor. */
export interface ThroughQuestion {
  readonly beep: number;
  readonly ref: string;
  readonly sentence: string;
}

/** What a point is called in a sentence. */
export const pointWords = (point: string): string => netOfPoint(point) ?? point;

/** "C3.a beeps with Q2.b, which is on n2". */
function chainWords(links: readonly Link[]): string {
  return links
    .map(({ from, to, why }, i) => {
      const subject = i === 0 ? pointWords(from) : 'which';
      switch (why.by) {
        case 'beep':
          return `${subject} beeps with ${pointWords(to)}`;
        case 'elimination':
          return `${subject} beeps with ${pointWords(to)}, the only one left of several`;
        case 'said':
          return netOfPoint(to) === undefined
            ? `${subject === 'which' ? 'where' : `on ${subject}`} ${pointWords(to)} is too`
            : `${subject} is on ${pointWords(to)}`;
        case 'package':
          return `${subject} is the same pin of ${why.designator} as ${pointWords(to)}`;
      }
    })
    .join(', ');
}

const beepsOf = (links: readonly Link[]): number[] =>
  links.flatMap(({ why }) => (why.by === 'beep' || why.by === 'elimination' ? [why.beep] : []));

/** What contradicts itself among beeps, with the beeps that take part in most contradictions first. */
export function contradictionsOf(traced: Traceable, nets: TracedNets): BeepContradiction[] {
  const found = [
    ...joinedThoughApart(traced.beeps ?? [], nets),
    ...noneLeft(traced, nets),
    ...supplyShorts(traced, nets),
    ...bridged(traced, nets),
  ];
  const told = found.map((each) => ({ ...each, beeps: withExclusions(traced, nets, each.beeps) }));
  const counts = new Map<number, number>();
  for (const { beeps } of told) for (const beep of beeps) counts.set(beep, (counts.get(beep) ?? 0) + 1);
  const byBlame = (a: number, b: number) => counts.get(b)! - counts.get(a)! || b - a;
  return told.map((each) => ({ ...each, beeps: each.beeps.toSorted(byBlame) }));
}

/** The beeps by which two points are known to be apart: what was silent, and what joins each of them to where it was. */
function reasonsApart(
  { beeps = [] }: Traceable,
  { graph, points }: Pick<TracedNets, 'graph' | 'points'>,
  one: string,
  other: string,
): number[] {
  const way = (from: string, to: string) => beepsOf(graph.chain(from, to) ?? []);
  return beeps.flatMap((beep, k) => {
    if (!isInForce(beep) || beep.says !== 'apart') return [];
    const [held, ...over] = points(beep);
    if (held === undefined) return [];
    return over.flatMap((end) => {
      if (graph.isJoined(held, one) && graph.isJoined(end, other))
        return [k, ...way(one, held), ...way(other, end)];
      if (graph.isJoined(held, other) && graph.isJoined(end, one))
        return [k, ...way(other, held), ...way(one, end)];
      return [];
    });
  });
}

/** Beeps with those that left only one of several: what was concluded from them hangs on them as well. */
function withExclusions(
  traced: Traceable,
  { graph, points }: TracedNets,
  taking: readonly number[],
): number[] {
  const { beeps = [] } = traced;
  const excluding = taking.flatMap((i) => {
    const [held, ...over] = points(beeps[i]!);
    if (beeps[i]!.says !== 'one of' || held === undefined) return [];
    return over.flatMap((o) => reasonsApart(traced, { graph, points }, held, o));
  });
  return [...new Set([...taking, ...excluding])];
}

function joinedThoughApart(beeps: readonly BeepData[], { graph, points }: TracedNets): BeepContradiction[] {
  return beeps.flatMap((beep, i) => {
    if (!isInForce(beep) || beep.says !== 'apart') return [];
    const [held, ...over] = points(beep);
    return over.flatMap((other): BeepContradiction[] => {
      const chain = held === undefined ? undefined : graph.chain(held, other);
      if (!chain) return [];
      return [
        {
          kind: 'joined',
          sentence: `${pointWords(held!)} does not beep with ${pointWords(other)}, it was said; but ${chainWords(chain)}.`,
          beeps: [i, ...beepsOf(chain)],
        },
      ];
    });
  });
}

function noneLeft(traced: Traceable, { graph, points }: TracedNets): BeepContradiction[] {
  const { beeps = [] } = traced;
  const { isApart } = apartSets(traced, points, graph);
  const low = lowOhmSets(traced.parts, graph);
  return beeps.flatMap((beep, i): BeepContradiction[] => {
    if (!isOneOf(beep)) return [];
    const [held, ...over] = points(beep);
    if (held === undefined || over.length === 0) return [];
    const set = graph.setOf(held);
    const isOpen = over.some(
      (o) => low.find(set) === low.find(graph.setOf(o)) || !isApart(set, graph.setOf(o)),
    );
    if (isOpen) return [];
    const against = over.flatMap((o) => reasonsApart(traced, { graph, points }, held, o));
    return [
      {
        kind: 'none left',
        sentence: `${pointWords(held)} beeped with one of ${over.map(pointWords).join(', ')}, and with none of them by itself.`,
        beeps: [i, ...against],
      },
    ];
  });
}

/** Pins that are never one net: the two supply pins of a chip. */
const SUPPLY_PINS: readonly (readonly [string, string])[] = [
  ['vplus', 'vminus'],
  ['vcc', 'gnd'],
];

function supplyShorts({ parts }: Traceable, { graph }: TracedNets): BeepContradiction[] {
  return parts.flatMap((part) =>
    SUPPLY_PINS.flatMap(([a, b]): BeepContradiction[] => {
      if (!(a in part.pins && b in part.pins)) return [];
      const chain = graph.chain(pinText(part.ref, a), pinText(part.ref, b));
      if (!chain) return [];
      const beeps = beepsOf(chain);
      return beeps.length === 0
        ? []
        : [
            {
              kind: 'supply',
              sentence: `Both supply pins of ${part.ref} are one net: ${chainWords(chain)}.`,
              beeps,
            },
          ];
    }),
  );
}

/** Parts of two ends with both on one net through which no tester beeps: a beep too many, or a bridge of solder. */
function bridged({ parts }: Traceable, nets: TracedNets): BeepContradiction[] {
  const low = new Set(shortedBy(parts, nets.graph).map(({ part }) => part.ref));
  return parts.flatMap((part): BeepContradiction[] => {
    const [a, b, ...more] = Object.keys(part.pins);
    if (a === undefined || b === undefined || more.length > 0 || low.has(part.ref)) return [];
    const chain = nets.graph.chain(pinText(part.ref, a), pinText(part.ref, b));
    const beeps = chain ? beepsOf(chain) : [];
    if (!chain || beeps.length === 0) return [];
    return [
      {
        kind: 'bridged',
        sentence: `Both ends of ${part.ref} are one net: ${chainWords(chain)}. It is bridged, or one of these is not so.`,
        beeps,
      },
    ];
  });
}

/**
 * Beeps that close a ring through a part of low resistance, and of which it was not said whether they go through it: one after
 * the other, the latest first, until one goes through it or all are said to be direct, so that the part is bridged indeed.
 */
export function throughQuestions({ parts, beeps = [] }: Traceable, nets: TracedNets): ThroughQuestion[] {
  const asked = new Set<number>();
  return shortedBy(parts, nets.graph).flatMap(({ part, a, b }): ThroughQuestion[] => {
    const chain = nets.graph.chain(pinText(part.ref, a), pinText(part.ref, b)) ?? [];
    const last = Math.max(-1, ...beepsOf(chain).filter((i) => beeps[i]!.through === undefined));
    if (last < 0 || asked.has(last)) return [];
    asked.add(last);
    const ends = nets.points(beeps[last]!).map(pointWords).join(' and ');
    return [
      {
        beep: last,
        ref: part.ref,
        sentence: `${ends} beep, and ${part.ref} lies between its ends there: a tester beeps through less than about ${BEEPS_BELOW_OHM} Ω. Is it through ${part.ref}?`,
      },
    ];
  });
}
