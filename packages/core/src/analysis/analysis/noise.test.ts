import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { weightingAt } from '../audio/index.ts';
import { BOLTZMANN, TEMPERATURE_K } from '../../circuit/devices/index.ts';
import { circuitOf, sessionOf } from '../../testing/circuits.ts';
import { noiseAt } from './noise.ts';

const noise = (lines: string, options: Parameters<typeof noiseAt>[1]) =>
  noiseAt(sessionOf(circuitOf(lines)), options);

describe('weightings', () => {
  /** IEC 61672-1, table of the A weighting at the exact frequencies 10^(n/10), its rounding of a tenth as the tolerance. */
  it.each([
    [10 ** 1.5, -39.4],
    [100, -19.1],
    [1000, 0],
    [10 ** 3.3, 1.2],
    [10 ** 3.6, 1.0],
    [10 ** 3.9, -1.1],
    [10 ** 4.2, -6.6],
  ])('A at %d Hz is %d dB', (f, db) => {
    expect(Math.abs(20 * Math.log10(weightingAt('A', f)) - db)).toBeLessThan(0.08);
  });
  /** ITU-R BS.468-4, table. */
  it.each([
    [1000, 0],
    [2000, 5.6],
    [6300, 12.2],
    [10_000, 8.1],
    [12_500, 0],
    [20_000, -22.2],
  ])('468 at %d Hz is %d dB', (f, db) => {
    expect(Math.abs(20 * Math.log10(weightingAt('468', f)) - db)).toBeLessThan(0.11);
  });
});

describe('noise', () => {
  it('is 4kTR of a resistor: 4.07 nV/sqrt(Hz) and 0.576 uV in 20 kHz for 1 kohm (Nyquist 1928)', () => {
    const { densityV, totalV, contributors } = noise('R1 1k out 0', {
      out: 'out',
      fromHz: 1e-3,
      toHz: 20_000,
    });
    expect(densityV[0]).toBeCloseTo(Math.sqrt(4 * BOLTZMANN * TEMPERATURE_K * 1000), 14);
    expect(densityV[0]! * 1e9).toBeCloseTo(4.07, 2);
    expect(totalV * 1e6).toBeCloseTo(0.576, 3);
    expect(noise('R1 1k out 0', { out: 'out', levelV: 1 }).signalToNoiseDb).toBeCloseTo(124.8, 1);
    expect(contributors).toEqual([{ ref: 'R1', share: expect.closeTo(1, 9) }]);
  });

  it('is kT/C in all of a resistor and a capacitor', () => {
    const { totalV } = noise('R1 10k out 0\nC1 1n out 0', { out: 'out', fromHz: 1e-2, toHz: 1e9 });
    expect(totalV / Math.sqrt((BOLTZMANN * TEMPERATURE_K) / 1e-9)).toBeCloseTo(1, 3);
  });

  it('equals 4kT Re Z for any passive two-terminal network', () => {
    const ends = fc.tuple(
      fc.nat(4),
      fc.nat(4),
      fc.constantFrom('R', 'C', 'L'),
      fc.double({ min: 1, max: 9, noNaN: true }),
    );
    fc.assert(
      fc.property(
        fc.array(ends, { minLength: 4, maxLength: 12 }),
        fc.double({ min: 20, max: 2e4, noNaN: true }),
        (list, f) => {
          const unit: Record<string, string> = { R: 'k', C: 'nF', L: 'mH' };
          const lines = [0, 1, 2, 3, 4].map((i) => `R9${i} 22k n${i} 0`);
          list.forEach(([a, b, kind, value], i) => {
            if (a !== b) lines.push(`${kind}${i} ${value}${unit[kind]} n${a} n${b}`);
          });
          const model = sessionOf(circuitOf(lines.join('\n')));
          const node = model.system.node('n0');
          const impedance = model.smallSignal.at(f).inject(0, node).voltage(node).re;
          const { densityV } = noiseAt(model, { out: 'n0', fromHz: f, toHz: f * 1.01 });
          expect(densityV[0]! ** 2 / (4 * BOLTZMANN * TEMPERATURE_K * impedance)).toBeCloseTo(1, 6);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('equals 4kT Re Z with junctions at rest in the network, whatever their emission coefficient', () => {
    const junctions = fc.array(
      fc.tuple(
        fc.nat(3),
        fc.nat(3),
        fc.constantFrom('D 1N4148', 'D 1N34A', 'D IS=1e-9 N=1.7', 'LED red'),
        fc.constantFrom('1k', '22k', '1M', '100n', '10n'),
      ),
      { minLength: 2, maxLength: 8 },
    );
    fc.assert(
      fc.property(junctions, fc.double({ min: 20, max: 2e4, noNaN: true }), (list, f) => {
        const lines = [0, 1, 2, 3].map((i) => `R9${i} 1M n${i} 0`);
        list.forEach(([a, b, junction, passive], i) => {
          const [letters, ...model] = junction.split(' ');
          if (a === b) return;
          lines.push(
            `${letters}${i} ${model[0]!.includes('=') ? '' : model[0]} n${a} n${b} ${model[0]!.includes('=') ? model.join(' ') : ''}`,
          );
          lines.push(`${passive.endsWith('n') ? 'C' : 'R'}1${i} ${passive} n${a} n${b}`);
        });
        const model = sessionOf(circuitOf(lines.join('\n')));
        const node = model.system.node('n0');
        const impedance = model.smallSignal.at(f).inject(0, node).voltage(node).re;
        const { densityV } = noiseAt(model, { out: 'n0', fromHz: f, toHz: f * 1.01 });
        expect(densityV[0]! ** 2 / (4 * BOLTZMANN * TEMPERATURE_K * impedance)).toBeCloseTo(1, 5);
      }),
      { numRuns: 60 },
    );
  });

  it('of a germanium diode at rest beside 1 Mohm is that of its rest resistance: 48.8 nV (4kT Vt/Is)', () => {
    const { densityV } = noise('D1 1N34A a 0\nR1 1M a 0', { out: 'a', fromHz: 1000, toHz: 1010 });
    expect(densityV[0]! * 1e9).toBeCloseTo(48.8, 0);
  });

  it('of a triode is that of 2.5/gm at its grid (Harris 1947, from memory)', () => {
    const lines =
      'V1 250V vb 0\nG1 1V g 0\nX1 triode 12AX7 a=a g=g k=k\nR1 100k vb a\nR2 1k5 k 0\nC1 1000u k 0';
    const model = sessionOf(circuitOf(lines));
    const f = 10_000;
    const gain = model.smallSignal.at(f).drive('G1').voltage(model.system.node('a'));
    const { contributors, densityV } = noiseAt(model, { out: 'a', fromHz: f, toHz: f * 1.01 });
    const share = contributors.find((c) => c.ref === 'X1')!.share;
    const input = (densityV[0]! * Math.sqrt(share)) / Math.hypot(gain.re, gain.im);
    const x = model.operatingPoint();
    const [va, vk] = ['a', 'k'].map((n) => x[model.system.node(n)]!);
    // gm by differences of the anode current with its voltages held.
    const current = (vg: number) => {
      const held = sessionOf(circuitOf(`V1 ${va! - vk!}V a 0\nV2 ${vg}V g 0\nX1 triode 12AX7 a=a g=g k=0`));
      return held.system.device('X1').report(held.operatingPoint()).current;
    };
    const gm = (current(-vk! + 1e-3) - current(-vk! - 1e-3)) / 2e-3;
    const equivalent = input ** 2 / (4 * BOLTZMANN * TEMPERATURE_K);
    expect(equivalent * gm).toBeCloseTo(2.5, 1);
  });

  it('refers an amplifier to its input: EN, IN into the source, and the resistors (common practice)', () => {
    const lines =
      'V1 15V vp 0\nV2 15V 0 vm\nG1 1mV in 0 resistance=1k\nU1 plus=in minus=m out=o vplus=vp vminus=vm EN=1e-8 IN=1e-12 AOL=1e7 GBW=1e9\nR1 100 m 0\nR2 9.9k o m';
    const { inputReferredV, totalV } = noise(lines, { out: 'o', source: 'G1' });
    const kt4 = 4 * BOLTZMANN * TEMPERATURE_K;
    const parallel = 1 / (1 / 100 + 1 / 9900);
    const density = Math.sqrt(
      1e-16 + kt4 * 1000 + (1e-12 * 1000) ** 2 + kt4 * parallel + (1e-12 * parallel) ** 2,
    );
    expect(inputReferredV! / (density * Math.sqrt(19_980))).toBeCloseTo(1, 3);
    expect(totalV / inputReferredV!).toBeCloseTo(100, 0);
  });

  it('counts the 1/f corner of an amplifier for EN only', () => {
    const lines =
      'V1 15V vp 0\nV2 15V 0 vm\nV3 0.1V in 0\nU1 plus=in minus=o out=o vplus=vp vminus=vm EN=1e-8 ENF=100 AOL=1e7 GBW=1e9';
    const { densityV, frequencyHz } = noise(lines, { out: 'o', fromHz: 100, toHz: 100_000 });
    expect(densityV[0]! / (1e-8 * Math.SQRT2)).toBeCloseTo(1, 3);
    expect(densityV.at(-1)! / 1e-8).toBeCloseTo(1, 2);
    expect(frequencyHz[0]).toBe(100);
  });
});
