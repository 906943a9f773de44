import { describe, expect, it } from 'vitest';
import { resolvePart } from '../../circuit/circuit/index.ts';
import { circuitOf } from '../../testing/circuits.ts';
import {
  bodyOf,
  capacitorCode,
  depthOfOverlap,
  distanceApart,
  lookOf,
  rectangle,
  stanceOf,
  whyNotOn,
} from './index.ts';

const part = (line: string) => resolvePart(circuitOf(line).parts[0]!, 'marked');
const at = (mm: number) => [
  { x: 0, y: 0 },
  { x: mm, y: 0 },
];

describe('sizes of parts (catalogues, from memory)', () => {
  it('go by kind, value and rating, and what the part says of itself comes first', () => {
    expect(bodyOf(part('R1 10k a b'))).toMatchObject({ mounting: 'axial', lengthMm: 6.3, widthMm: 2.4 });
    expect(bodyOf(part('R1 10k 2W a b')).lengthMm).toBeGreaterThan(12);
    // A 100 uF 25 V can is 5 to 6.3 mm across, a 1000 uF 25 V one 10 to 12.5 mm.
    expect(bodyOf(part('C1 100u 25V a b'))).toMatchObject({ isRound: true, lengthMm: 5 });
    expect(bodyOf(part('C1 1000u 25V a b')).lengthMm).toBeGreaterThanOrEqual(10);
    expect(bodyOf(part('C1 100n a b'))).toMatchObject({ mounting: 'radial', leadPitchMm: 5.08 });
    expect(bodyOf(part('U1 TL072 a b c d e'))).toMatchObject({
      mounting: 'dual in line',
      lengthMm: 4 * 2.54,
    });
    expect(bodyOf({ ...part('R1 10k a b'), body: { lengthMm: 20 } })).toMatchObject({
      lengthMm: 20,
      widthMm: 2.4,
    });
    expect(bodyOf({ ...part('V1 12AX7 a g k'), body: { leadPitchMm: 5 } }).mounting).toBe('row');
  });

  it('lie where their leads reach over the body and both bends, and stand where not', () => {
    const body = bodyOf(part('R1 10k a b'));
    expect(stanceOf(body, at(10.16))).toMatchObject({ kind: 'lying', heightMm: 2.4 });
    expect(stanceOf(body, at(2.54)).kind).toBe('standing');
    expect(stanceOf(body, at(2.54)).heightMm).toBeGreaterThan(6.3);
    expect(whyNotOn(body, at(80))).toContain('56 mm at most');
    expect(whyNotOn(bodyOf(part('C1 4700u 63V a b')), at(2.54))).toContain('stiff pins');
  });
});

describe('outlines', () => {
  const square = (x: number) => rectangle({ x, y: 0 }, { x: 1, y: 0 }, 2, 2);

  it('overlap by the shortest way apart, and are apart by their distance (closed form)', () => {
    expect(depthOfOverlap(square(0), square(1.5))).toBeCloseTo(0.5);
    expect(depthOfOverlap(square(0), square(3))).toBeLessThanOrEqual(0);
    expect(distanceApart(square(0), square(5))).toBeCloseTo(3);
    const turned = rectangle({ x: 2.2, y: 0 }, { x: 1, y: 1 }, 2, 2);
    // A square on its corner reaches to the square root of two.
    expect(depthOfOverlap(square(0), turned)).toBeCloseTo(1 + Math.SQRT2 - 2.2);
  });
});

describe('what is printed on a part', () => {
  it('is the code of EIA-198: two digits and the zeros, in picofarads', () => {
    expect([4.7e-8, 1e-7, 2.2e-10, 1e-6, 3.3e-9, 1e-11].map(capacitorCode)).toEqual([
      '473',
      '104',
      '221',
      '105',
      '332',
      '100',
    ]);
    expect([1e-4, 5e-12, 1.23e-9].map(capacitorCode)).toEqual([undefined, undefined, undefined]);
  });

  it('is bands, a code, or words, with the mark where the ends are told apart', () => {
    expect(lookOf(part('R1 820 a b')).words).toBe('grey red brown gold');
    expect(lookOf(part('C1 100u polarised 25V a b'))).toMatchObject({
      mark: { pin: 'b' },
      words: expect.stringContaining('100µF 25 V'),
    });
    expect(lookOf(part('C1 100u a b')).mark).toBeUndefined();
    expect(lookOf(part('D1 1N4148 a b')).mark).toEqual({ pin: 'k', what: 'band' });
    expect(lookOf(part('Q1 2N3904 a b c')).words).toContain('look it up');
  });
});
