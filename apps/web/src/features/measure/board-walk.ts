import type { UnitResource } from '@zemble/contract';

interface Place {
  readonly photo: number;
  readonly x: number;
  readonly y: number;
}

/**
 * Parts in the order of a short walk over the photos: from the top left corner always to the nearest one left, photo by
 * photo. A part stands at its own point, or in the middle of the points of its nets; one with no point is not in it.
 */
export function boardWalk(unit: UnitResource): string[] {
  const points = placesOf(unit);
  const netOfPoint = new Map((unit.path?.testPoints ?? []).map((t) => [t.id, t.net]));
  const netPlaces = new Map<string, Place>();
  for (const [target, place] of points) netPlaces.set(netOfPoint.get(target) ?? target, place);
  const left = new Map<string, Place>();
  for (const { part } of unit.parts) {
    const own = points.get(part.ref);
    const around = Object.values(part.pins).flatMap((net) => netPlaces.get(net) ?? []);
    const place = own ?? middleOf(around);
    if (place) left.set(part.ref, place);
  }
  const walk: string[] = [];
  let here: Place = { photo: 0, x: 0, y: 0 };
  while (left.size > 0) {
    const [ref, place] = [...left].reduce((best, one) =>
      distance(here, one[1]) < distance(here, best[1]) ? one : best,
    );
    walk.push(ref);
    left.delete(ref);
    here = place;
  }
  return walk;
}

function placesOf(unit: UnitResource): Map<string, Place> {
  return new Map(
    unit.photos.flatMap((photo, index) =>
      photo.points.map(({ target, x, y }): [string, Place] => [
        target,
        { photo: index, x, y: (y * photo.height) / photo.width },
      ]),
    ),
  );
}

/** Middle of the places on the first photo that has any. */
function middleOf(places: readonly Place[]): Place | null {
  const [first] = places;
  if (!first) return null;
  const same = places.filter((p) => p.photo === first.photo);
  const mean = (of: (p: Place) => number) => same.reduce((sum, p) => sum + of(p), 0) / same.length;
  return { photo: first.photo, x: mean((p) => p.x), y: mean((p) => p.y) };
}

/** Another photo is farther than anything on one. */
const distance = (a: Place, b: Place): number =>
  10 * Math.abs(a.photo - b.photo) + Math.hypot(a.x - b.x, a.y - b.y);
