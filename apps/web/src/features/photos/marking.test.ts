import type { PhotoResource } from '@zemble/contract';
import { padPlan, parseTraceLine, tappedPins, type Part, type PhotoPlace } from '@zemble/core';
import { describe, expect, it } from 'vitest';
import { photoOf, tapped, trackDone, type Marking } from './marking.ts';

const photo: PhotoResource = {
  id: 'p',
  version: 0,
  name: 'Top',
  width: 400,
  height: 200,
  points: [],
  overlay: {},
};
const partsOf = (line: string): readonly Part[] => {
  const read = parseTraceLine(line, { ground: '0', parts: [] });
  if (!read.ok || read.kind !== 'parts') throw new Error(line);
  return read.parts;
};
const padsOf = (line: string): Marking => {
  const parts = partsOf(line);
  return { of: 'pads', plan: padPlan(parts, parts[0]!.ref, tappedPins)!, places: [] };
};
/** Taps one after the other, as long as something is asked. */
function tapAll(marking: Marking, places: readonly PhotoPlace[], on = photo) {
  let now: ReturnType<typeof tapped> = { marking };
  for (const place of places) if (now.marking) now = tapped(now.marking, on, place);
  return now;
}

describe('pads on a photo', () => {
  it('are marked by two taps for a part with two, in the place of older ones', () => {
    const old = {
      ...photo,
      points: [
        { target: 'R1.a', x: 0.9, y: 0.9 },
        { target: 'TP1', x: 0.5, y: 0.5 },
      ],
    };
    const done = tapAll(
      padsOf('R1 1k'),
      [
        { x: 0.1, y: 0.2 },
        { x: 0.3, y: 0.2 },
      ],
      old,
    );
    expect(done).toEqual({
      marking: null,
      points: [
        { target: 'TP1', x: 0.5, y: 0.5 },
        { target: 'R1.a', x: 0.1, y: 0.2 },
        { target: 'R1.b', x: 0.3, y: 0.2 },
      ],
    });
  });

  it('are all laid by two taps on a package, whatever the shape of the picture', () => {
    const done = tapAll(padsOf('U1 TL072'), [
      { x: 0.25, y: 0.25 },
      { x: 0.325, y: 0.4 },
    ]);
    const at = (target: string) => done.points!.find((p) => p.target === target)!;
    // 30 pixels either way between pin 1 and pin 5: the pitch is 10 pixels.
    expect(at('U1A.minus').x).toBeCloseTo(0.25, 9);
    expect(at('U1A.minus').y).toBeCloseTo(0.3, 9);
    expect(at('U1A.vplus').x).toBeCloseTo(0.325, 9);
    expect(at('U1A.vplus').y).toBeCloseTo(0.25, 9);
    expect(done.points).toHaveLength(10);
  });

  it('ask again where both taps were on one place', () => {
    const done = tapAll(padsOf('U1 TL072'), [
      { x: 0.25, y: 0.25 },
      { x: 0.25, y: 0.25 },
    ]);
    expect(done.points).toBeUndefined();
    expect(done.marking).toMatchObject({ of: 'pads', places: [{ x: 0.25, y: 0.25 }] });
  });
});

describe('two photos', () => {
  it('are lined up by two places on one and the same two on the other', () => {
    let marking: Marking | null = { of: 'link', from: 'p', to: 'q', places: [] };
    const places = [0.1, 0.2, 0.3, 0.4].map((x) => ({ x, y: 0.5 }));
    const on: string[] = [];
    for (const place of places) {
      on.push(photoOf(marking, 'p'));
      const done = tapped(marking!, photo, place);
      marking = done.marking;
      if (done.overlay)
        expect(done.overlay.link).toEqual({
          photoId: 'q',
          here: [places[0], places[1]],
          there: [places[2], places[3]],
        });
    }
    expect(on).toEqual(['p', 'p', 'q', 'q']);
    expect(marking).toBeNull();
  });
});

describe('a track', () => {
  it('is written with what it ends on, and not where it is a single place', () => {
    const begun = tapAll({ of: 'track', places: [] }, [{ x: 0.1, y: 0.1 }]).marking;
    if (begun?.of !== 'track') throw new Error('a track goes on');
    expect(trackDone(begun, photo)).toBeUndefined();
    const two = tapped(begun, photo, { x: 0.2, y: 0.1 }).marking;
    if (two?.of !== 'track') throw new Error('a track goes on');
    expect(trackDone(two, photo)).toEqual({
      tracks: [
        {
          places: [
            { x: 0.1, y: 0.1 },
            { x: 0.2, y: 0.1 },
          ],
        },
      ],
    });
  });
});
