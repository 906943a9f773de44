import type { Defect, PhotoLink, PhotoOverlay, PhotoResource } from '@zemble/contract';
import {
  inFractions,
  inPixels,
  isSolderSide,
  outlineSpots,
  type PadPlan,
  type PhotoPlace,
} from '@zemble/core';

/** What the next tap on a photo says the place of. */
export type Marking =
  | { readonly of: 'point'; readonly target: string }
  | { readonly of: 'damage'; readonly defect: Defect }
  | { readonly of: 'pads'; readonly plan: PadPlan; readonly places: readonly PhotoPlace[] }
  | { readonly of: 'track'; readonly places: readonly PhotoPlace[] }
  /** Two places on this photo, then the same two on the other. */
  | {
      readonly of: 'link';
      readonly from: string;
      readonly to: string;
      readonly places: readonly PhotoPlace[];
    };

/** What a tap did: what is marked from now on, and what is written on the photo. */
export interface Marked {
  readonly marking: Marking | null;
  readonly points?: PhotoResource['points'];
  readonly overlay?: PhotoOverlay;
}

/** What is asked for now, as the end of "Tap …". */
export function askedWords(marking: Marking, nameOf: (target: string) => string): string {
  switch (marking.of) {
    case 'point':
      return `the place of ${nameOf(marking.target)}`;
    case 'damage':
      return `where it is ${marking.defect}`;
    case 'pads':
      return `the pad of ${marking.plan.name} ${marking.plan.taps[marking.places.length]}`;
    case 'track':
      return marking.places.length === 0 ? 'where the track begins' : 'where it goes on';
    case 'link': {
      const which = marking.places.length % 2 === 0 ? 'one place' : 'another place, far from it,';
      return marking.places.length < 2
        ? `${which} that both photos show`
        : `the same ${marking.places.length === 2 ? 'first' : 'second'} place on this one`;
    }
  }
}

/** Points with those of a plan's pads in the place of older ones. */
function withPads(
  photo: PhotoResource,
  plan: PadPlan,
  places: readonly PhotoPlace[],
): PhotoResource['points'] | undefined {
  const [a, b] = places;
  const spots = plan.outline
    ? outlineSpots(
        plan.outline,
        [inPixels(photo, a!), inPixels(photo, b!)],
        isSolderSide(photo.overlay),
      )?.map((spot) => inFractions(photo, spot))
    : places;
  if (!spots) return undefined;
  const pads = plan.targets.flatMap((targets, i) =>
    targets.map((target) => ({ target, ...inside(spots[i]!) })),
  );
  const marked = new Set(pads.map((p) => p.target));
  return [...photo.points.filter((p) => !marked.has(p.target)), ...pads];
}

/** A place at the edge, where what was computed lies beyond it. */
const inside = ({ x, y }: PhotoPlace): PhotoPlace => ({
  x: Math.min(1, Math.max(0, x)),
  y: Math.min(1, Math.max(0, y)),
});

/**
 * A tap on a photo while something is being marked on it.
 *
 * @returns what is marked next, and what is to be written; where two taps on one place tell nothing, the last is asked for again
 */
export function tapped(marking: Marking, photo: PhotoResource, place: PhotoPlace): Marked {
  switch (marking.of) {
    case 'point':
      return {
        marking: null,
        points: [
          ...photo.points.filter((p) => p.target !== marking.target),
          { target: marking.target, ...place },
        ],
      };
    case 'damage':
      return { marking: null };
    case 'pads': {
      const places = [...marking.places, place];
      if (places.length < marking.plan.taps.length) return { marking: { ...marking, places } };
      const points = withPads(photo, marking.plan, places);
      return points ? { marking: null, points } : { marking };
    }
    case 'track':
      return { marking: { ...marking, places: [...marking.places, place] } };
    case 'link': {
      const isSecond = marking.places.length % 2 === 1;
      const first = marking.places.at(-1);
      // Two places that are one say neither how it is turned nor how large it is.
      if (isSecond && first?.x === place.x && first.y === place.y) return { marking };
      const places = [...marking.places, place];
      const [a, b, c, d] = places;
      if (!a || !b || !c || !d) return { marking: { ...marking, places } };
      const link: PhotoLink = { photoId: marking.to, here: [a, b], there: [c, d] };
      return { marking: null, overlay: { link } };
    }
  }
}

/** The photo on which the next tap is made. */
export const photoOf = (marking: Marking | null, shown: string): string =>
  marking?.of === 'link' ? (marking.places.length < 2 ? marking.from : marking.to) : shown;

/** A track is written once it has two places. */
export const trackDone = (
  marking: Extract<Marking, { of: 'track' }>,
  photo: PhotoResource,
): PhotoOverlay | undefined =>
  marking.places.length < 2
    ? undefined
    : { tracks: [...(photo.overlay.tracks ?? []), { places: marking.places.map((p) => ({ ...p })) }] };
