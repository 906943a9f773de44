import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { outlineNamed } from '../../circuit/pinout/index.ts';
import { circuitOf } from '../../testing/circuits.ts';
import { ontoPhoto, outlineSpots, padPlan, tappedPins, type Pixel } from './index.ts';
import { distance, similarity } from './pixels.ts';

const coordinate = fc.integer({ min: -500, max: 500 });
const spot = fc.record({ x: coordinate, y: coordinate });
/** Twice the area that three places enclose, with the sign of the way round. */
const area = ([a, b, c]: readonly [Pixel, Pixel, Pixel]) =>
  (b.x - a.x) * (c.y - a.y) - (c.x - a.x) * (b.y - a.y);

describe('two places taken to two others', () => {
  it('keep angles and ratios, and the way round turns where it is mirrored', () => {
    fc.assert(
      fc.property(spot, spot, spot, spot, spot, fc.boolean(), (a, b, c, d, e, isMirrored) => {
        fc.pre(distance(a, b) > 1 && distance(d, e) > 1);
        const onto = similarity([a, b], [d, e], isMirrored)!;
        const scale = distance(d, e) / distance(a, b);
        expect(distance(onto(a), d)).toBeLessThan(1e-6);
        expect(distance(onto(b), e)).toBeLessThan(1e-6 * (1 + scale));
        expect(distance(onto(a), onto(c))).toBeCloseTo(scale * distance(a, c), 3);
        const [before, after] = [area([a, b, c]), area([onto(a), onto(b), onto(c)])];
        fc.pre(Math.abs(before) > 1 && Math.abs(after) > 1);
        expect(Math.sign(after)).toBe(Math.sign(before) * (isMirrored ? -1 : 1));
      }),
    );
  });

  it('are refused where they are one', () => {
    expect(
      similarity(
        [
          { x: 1, y: 1 },
          { x: 1, y: 1 },
        ],
        [
          { x: 0, y: 0 },
          { x: 1, y: 0 },
        ],
        false,
      ),
    ).toBeUndefined();
  });
});

describe('outlines of connectors on a photo', () => {
  const spots = (name: string, tapped: readonly [Pixel, Pixel]) => {
    const found = outlineSpots(outlineNamed(name)!, tapped, false)!;
    return found.map(({ x, y }) => [Math.round(x), Math.round(y)]);
  };

  it('have every pin: a ribbon in two rows, a DIN connector on its half circle, two gangs one behind the other', () => {
    expect(
      spots('IDC-6', [
        { x: 0, y: 0 },
        { x: 10, y: 20 },
      ]),
    ).toEqual([
      [0, 0],
      [10, 0],
      [0, 10],
      [10, 10],
      [0, 20],
      [10, 20],
    ]);
    // IEC 60130-9: a half circle, its pins 45 degrees apart.
    const din = spots('DIN-5', [
      { x: 200, y: 0 },
      { x: 0, y: 0 },
    ]);
    expect(din[1]).toEqual([100, -100]);
    expect(din[3]).toEqual([171, -71]);
    expect(din[4]).toEqual([29, -71]);
    expect(
      spots('dual pot', [
        { x: 0, y: 0 },
        { x: 20, y: 20 },
      ])[4],
    ).toEqual([10, 20]);
  });
});

describe('an outline on a photo', () => {
  it('has the pins of a DIP-8 where JEDEC MS-001 has them: 2.54 mm apart in rows 7.62 mm apart, counted against the clock', () => {
    const dip = outlineNamed('DIP-8')!;
    expect(tappedPins(dip)).toEqual([1, 5]);
    // 10 pixels to 2.54 mm, notch up, seen from the side of the parts.
    expect(
      outlineSpots(
        dip,
        [
          { x: 100, y: 100 },
          { x: 130, y: 130 },
        ],
        false,
      )!.map(rounded),
    ).toEqual([
      [100, 100],
      [100, 110],
      [100, 120],
      [100, 130],
      [130, 130],
      [130, 120],
      [130, 110],
      [130, 100],
    ]);
    // From below it is mirrored.
    expect(
      outlineSpots(
        dip,
        [
          { x: 100, y: 100 },
          { x: 70, y: 130 },
        ],
        true,
      )!.map(rounded),
    ).toEqual([
      [100, 100],
      [100, 110],
      [100, 120],
      [100, 130],
      [70, 130],
      [70, 120],
      [70, 110],
      [70, 100],
    ]);
  });

  it('has the pins of a valve clockwise from below', () => {
    const base = outlineNamed('B9A')!;
    const [a, b] = tappedPins(base);
    const from = (isBelow: boolean) =>
      outlineSpots(
        base,
        [
          { x: 0, y: 0 },
          { x: 100, y: 0 },
        ],
        isBelow,
      )!;
    expect([a, b]).toEqual([1, 6]);
    const middle = (pins: readonly Pixel[]) => ({
      x: pins.reduce((sum, p) => sum + p.x, 0) / pins.length,
      y: pins.reduce((sum, p) => sum + p.y, 0) / pins.length,
    });
    // With y down, clockwise has a positive area.
    const below = from(true);
    expect(area([middle(below), below[0]!, below[1]!])).toBeGreaterThan(0);
    const above = from(false);
    expect(area([middle(above), above[0]!, above[1]!])).toBeLessThan(0);
  });
});
const rounded = ({ x, y }: Pixel) => [Math.round(x * 1e6) / 1e6, Math.round(y * 1e6) / 1e6];

describe('the pads of a part', () => {
  const { parts } = circuitOf(`R1 1k a b
    U1A TL072 plus=p minus=m out=o vplus=vcc vminus=0
    U1B TL072 plus=q minus=n out=n
    Q1 2N3904 c b e`);

  it('are its ends, two pins of a package, every pin of what comes in several orders', () => {
    expect(padPlan(parts, 'R1', tappedPins)).toEqual({
      name: 'R1',
      taps: ['a', 'b'],
      targets: [['R1.a'], ['R1.b']],
    });
    expect(padPlan(parts, 'U1B', tappedPins)).toMatchObject({
      name: 'U1',
      taps: ['pin 1', 'pin 5'],
      targets: [
        ['U1A.out'],
        ['U1A.minus'],
        ['U1A.plus'],
        ['U1A.vminus'],
        ['U1B.plus'],
        ['U1B.minus'],
        ['U1B.out'],
        ['U1A.vplus'],
      ],
    });
    expect(padPlan(parts, 'Q1', tappedPins)).toMatchObject({ taps: ['c', 'b', 'e'] });
    expect(padPlan(parts, 'R9', tappedPins)).toBeUndefined();
  });
});

describe('two photos of one board', () => {
  const top = { id: 't', width: 400, height: 300 };
  const bottom = {
    id: 'b',
    width: 800,
    height: 600,
    side: 'solder' as const,
    // Turned over about the upright axis: left is right.
    link: {
      photoId: 't',
      here: [
        { x: 0.9, y: 0.1 },
        { x: 0.1, y: 0.9 },
      ] as [Pixel, Pixel],
      there: [
        { x: 0.1, y: 0.1 },
        { x: 0.9, y: 0.9 },
      ] as [Pixel, Pixel],
    },
  };

  it('are mirrored onto each other by two common points, either way', () => {
    const down = ontoPhoto(top, bottom)!;
    const up = ontoPhoto(bottom, top)!;
    const place = down({ x: 0.25, y: 0.5 });
    expect(place.x).toBeCloseTo(0.75, 9);
    expect(place.y).toBeCloseTo(0.5, 9);
    expect(up(place).x).toBeCloseTo(0.25, 9);
  });

  it('are not where they are not linked', () => {
    expect(ontoPhoto(top, { ...bottom, link: undefined })).toBeUndefined();
  });
});
