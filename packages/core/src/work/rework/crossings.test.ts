import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { crossingsOf, walkTo } from './crossings.ts';

const options = (target: number, resolution = 1e-9) => ({ target, resolution, mayGoOn: () => true });
const walk = (target: number, resolution = 1e-9) => ({
  ...options(target, resolution),
  farthest: 30,
  leastStride: 1.05,
});
const at = (read: (v: number) => number, value: number) => ({ value, reading: read(value) });

describe('crossings of a reading over a value', () => {
  it('are all of them, between the places that are read', () => {
    const wave = (v: number) => Math.sin(Math.log(v));
    const places = Array.from({ length: 40 }, (_, i) => Math.exp(i / 4));
    const found = crossingsOf(wave, { places, ...options(0.5) }).map((v) => Math.log(v));
    const wanted = [Math.PI / 6, (5 * Math.PI) / 6, (13 * Math.PI) / 6, (17 * Math.PI) / 6];
    expect(found).toHaveLength(4);
    found.forEach((x, i) => expect(x).toBeCloseTo(wanted[i]!, 6));
  });

  it('are not made up across a gap where there is no reading', () => {
    const broken = (v: number) => (v > 10 && v < 20 ? null : v - 15);
    expect(crossingsOf(broken, { places: [5, 12, 25], ...options(0) })).toEqual([]);
  });
});

describe('a walk along the slope', () => {
  it('meets any power law within a few readings', () => {
    const exponent = fc.constantFrom(-2, -1, -0.5, 0.5, 1, 2);
    fc.assert(
      fc.property(exponent, fc.double({ min: 0.1, max: 10, noNaN: true }), (power, factor) => {
        let readings = 0;
        const read = (v: number) => {
          readings += 1;
          return 7 * (v / 100) ** power;
        };
        const target = 7 * factor ** power;
        const found = walkTo(read, at(read, 100), at(read, 120), walk(target, 1e-4));
        expect(found! / (100 * factor)).toBeCloseTo(1, 2);
        expect(readings).toBeLessThan(20);
      }),
    );
  });

  it('gives what came nearest where the reading turns back, ends, or is too far away', () => {
    const hill = (v: number) => 4 - Math.log(v / 10) ** 2;
    const top = walkTo(hill, at(hill, 3), at(hill, 3.6), walk(6));
    expect(hill(top!)).toBeGreaterThan(3.5);
    const cliff = (v: number) => (v > 50 ? null : v);
    const edge = walkTo(cliff, { value: 10, reading: 10 }, { value: 12, reading: 12 }, walk(100));
    expect(edge).toBeGreaterThan(20);
    expect(edge).toBeLessThanOrEqual(50);
    const line = (v: number) => v;
    const far = walkTo(line, at(line, 1), at(line, 1.2), { ...walk(1000), farthest: 10 });
    expect(far).toBeGreaterThan(1);
    expect(far).toBeLessThanOrEqual(10);
  });

  it('gives nothing where nothing moves, and stops when the time is up', () => {
    const flat = () => 5;
    expect(walkTo(flat, at(flat, 1), at(flat, 1.2), walk(6))).toBeUndefined();
    let left = 2;
    const line = (v: number) => v;
    const found = walkTo(line, at(line, 1), at(line, 1.2), {
      ...walk(1e6),
      farthest: 1e9,
      mayGoOn: () => (left -= 1) >= 0,
    });
    expect(found).toBeLessThan(12);
  });
});
