import {
  asksAt,
  makeWay,
  placeIn,
  WAYS,
  ZembleError,
  type Answers,
  type Ask,
  type Chosen,
  type Circuit,
  type Drawer,
  type Made,
} from '@zemble/core';

/** A place of a circuit where something is to be done. */
export interface WaysRequest {
  readonly circuit: Circuit;
  readonly chosen: Chosen;
}

/** A way of doing that offers itself, with what it asks. */
export interface Offered {
  readonly id: string;
  readonly title: string;
  readonly isMoreSlower: boolean;
  readonly asks: readonly Ask[];
}

export interface WayRequest extends WaysRequest {
  readonly id: string;
  readonly answers: Answers;
  /** What is there comes before what must be bought. */
  readonly drawer: Drawer;
}

export type WayOutcome =
  { readonly ok: true; readonly made: Made } | { readonly ok: false; readonly sentence: string };

/** What offers itself at a place. */
export function waysAt({ circuit, chosen }: WaysRequest): readonly Offered[] {
  const place = refusedAs(() => placeIn(circuit, chosen), null);
  if (!place) return [];
  return WAYS.flatMap((way) => {
    const asks = asksAt(way, place);
    return asks ? [{ id: way.id, title: way.title, isMoreSlower: way.isMoreSlower === true, asks }] : [];
  });
}

/** What comes of a way, or why nothing does. */
export function wayAt({ circuit, chosen, id, answers, drawer }: WayRequest): WayOutcome {
  const way = WAYS.find((w) => w.id === id);
  if (!way) return { ok: false, sentence: `There is no way of doing "${id}".` };
  try {
    return { ok: true, made: makeWay(way, placeIn(circuit, chosen), answers, drawer) };
  } catch (error) {
    if (error instanceof ZembleError) return { ok: false, sentence: error.message };
    throw error;
  }
}

/** A circuit that cannot be computed yet offers nothing. */
function refusedAs<T, D>(make: () => T, otherwise: D): T | D {
  try {
    return make();
  } catch (error) {
    if (error instanceof ZembleError) return otherwise;
    throw error;
  }
}
