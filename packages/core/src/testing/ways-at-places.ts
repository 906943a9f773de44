import type { Circuit } from '../circuit/circuit/index.ts';
import {
  asksAt,
  makeWay,
  placeIn,
  WAYS,
  type Chosen,
  type Made,
  type Way,
} from '../work/rework/ways/index.ts';

/** A way of doing at a place where it offers itself, with what came of it. */
export interface WayAtPlace {
  readonly way: Way;
  readonly chosen: Chosen;
  /** Null where it was refused. */
  readonly made: Made | null;
  readonly refusal: unknown;
}

/** Every part and every net of a circuit. */
export const placesOf = ({ parts }: Circuit): readonly Chosen[] => [
  ...parts.map((p) => ({ ref: p.ref })),
  ...[...new Set(parts.flatMap((p) => Object.values(p.pins)))].map((net) => ({ net })),
];

/**
 * Every way at every place where it offers itself, with an answer to all that it asks: what it gives itself, unless another is
 * named.
 */
export function* waysAtPlaces(
  circuit: Circuit,
  {
    places = placesOf(circuit),
    isTried = () => true,
    answer,
  }: {
    readonly places?: readonly Chosen[];
    readonly isTried?: (way: Way) => boolean;
    readonly answer?: number;
  } = {},
): Generator<WayAtPlace> {
  for (const chosen of places) {
    const place = placeIn(circuit, chosen);
    for (const way of WAYS) {
      const asks = isTried(way) ? asksAt(way, place) : null;
      if (!asks) continue;
      try {
        const made = makeWay(way, place, Object.fromEntries(asks.map((a) => [a.id, answer ?? a.given])));
        yield { way, chosen, made, refusal: null };
      } catch (refusal) {
        yield { way, chosen, made: null, refusal };
      }
    }
  }
}
