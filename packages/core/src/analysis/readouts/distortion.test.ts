import { describe, expect, it } from 'vitest';
import { transient } from '../analysis/index.ts';
import { harmonics, totalHarmonicDistortion } from '../audio/index.ts';
import { circuitOf, sessionOf, type Unnamed } from '../../testing/circuits.ts';
import { evaluateReadout } from './index.ts';

const answer = (lines: string, readout: Unnamed) =>
  evaluateReadout(sessionOf(circuitOf(lines)), { ...readout, id: 'x', name: 'X' });
const thd = (lines: string, levelV: number, frequencyHz = 1000) => {
  const a = answer(lines, { kind: 'thd', source: 'G1', out: 'out', frequencyHz, levelV });
  if (!a.ok) throw new Error(a.problem.message);
  return a.value;
};

describe('distortion of linear circuits', () => {
  /** A linear circuit answers a sine with a sine, whatever its time constants. */
  it.each([
    ['RC of 20 Hz', 'G1 1V in 0\nR1 7k96 in out\nC1 1u out 0', 1000],
    ['resonance of Q 100 beside its peak', 'G1 1V in 0\nR1 3.16 in m\nL1 10m m out\nC1 100n out 0', 4900],
    [
      'two sources of unlike frequencies',
      'G1 1V 1kHz in 0\nG2 3V 370Hz x 0\nR1 1k in out\nR2 1k x out\nC1 1u out 0',
      1000,
    ],
    [
      'coupling capacitors around an opamp',
      'V1 9V vcc 0\nR1 100k vcc p\nR2 100k p 0\nG1 1V in 0\nC1 10u in p\nU1 TL072 plus=p minus=m out=o vplus=vcc vminus=0\nR3 47k o m\nR4 10k m g\nC2 47u g 0\nC3 100u o out\nR5 100k out 0',
      50,
    ],
    ['a time constant of minutes', 'G1 1V in 0\nC1 1000u in out\nR1 100k out 0', 1000],
  ])('of a %s is below 1e-6', (_, lines, frequencyHz) => {
    expect(thd(lines, 0.1, frequencyHz)).toBeLessThan(1e-6);
  });
});

describe('distortion of circuits that bend', () => {
  it('is that of a clipped sine, by Fourier’s integral over the clipped wave', () => {
    // An ideal amplifier of gain 10 between rails of 5 V, driven to twice its rails.
    const lines =
      'V1 5V vp 0\nV2 5V 0 vm\nG1 1V in 0\nU1 opamp AOL=1e6 GBW=1e12 plus=in minus=m out=out vplus=vp vminus=vm\nR1 9k out m\nR2 1k m 0';
    const wave = Float64Array.from({ length: 20_000 }, (_, i) => {
      const v = 10 * Math.sin((2 * Math.PI * (i + 0.5)) / 20_000);
      return Math.max(-5, Math.min(5, v));
    });
    expect(thd(lines, 1) / totalHarmonicDistortion(harmonics(wave, 1, 10))).toBeCloseTo(1, 2);
  });

  it('is where a run in time ends up after many time constants', () => {
    const lines = 'G1 1V 1kHz in 0\nR1 100 in a\nD1 1N4148 a out\nR2 10k out 0\nC1 220n out 0';
    const session = sessionOf(circuitOf(lines));
    const wave: number[] = [];
    const [periods, points] = [40, 240];
    transient(session, {
      stopS: periods / 1000,
      stepS: 1 / 1000 / points,
      relativeError: 1e-7,
      onPoint: (t, x) => {
        if (t > (periods - 1) / 1000 + 1e-9) wave.push(x[session.system.node('out')]!);
      },
    });
    expect(wave).toHaveLength(points);
    const wanted = totalHarmonicDistortion(harmonics(Float64Array.from(wave), 1, 10));
    expect(thd(lines, 1) / wanted).toBeCloseTo(1, 3);
  });

  it('is not defined where a circuit swings by itself', () => {
    const lines =
      'V1 9V vcc 0\nG1 1V in 0\nR9 10k in 0\nTM1 kind=timer555 gnd=0 trig=c out=out reset=vcc ctrl=v thr=c dis=d vcc=vcc\nR1 10k vcc d\nR2 47k d c\nC1 10n c 0\nC2 10n v 0\nR3 1k out 0';
    const a = answer(lines, { kind: 'thd', source: 'G1', out: 'out', frequencyHz: 1000, levelV: 1 });
    expect(a).toMatchObject({ ok: false, problem: { code: 'readout/not-defined' } });
  });
});

describe('headroom', () => {
  const headroom = (lines: string, limit = 0.01) =>
    answer(lines, { kind: 'headroom', source: 'G1', out: 'out', frequencyHz: 1000, thd: limit });
  const AMPLIFIER =
    'V1 5V vp 0\nV2 5V 0 vm\nG1 1V in 0\nU1 opamp AOL=1e6 GBW=1e12 plus=in minus=m out=out vplus=vp vminus=vm\nR1 9k out m\nR2 1k m 0';

  it('is the level at which distortion, computed there alone, is the limit', () => {
    const a = headroom(AMPLIFIER);
    if (!a.ok) throw new Error(a.problem.message);
    expect(a.value).toBeGreaterThan(5);
    expect(a.value).toBeLessThan(5.3);
    // The fundamental at the output is 10 times the source until it clips: the level lies just above a tenth.
    let [low, high] = [0.4, 0.7];
    for (let i = 0; i < 14; i += 1) {
      const level = (low + high) / 2;
      if (thd(AMPLIFIER, level) > 0.01) high = level;
      else low = level;
    }
    expect(a.value / 10).toBeGreaterThan(low * 0.95);
    expect(a.value / 10).toBeLessThan(high);
  });

  it('is refused where the lowest level distorts already, and where none does', () => {
    const comparator = headroom(
      'V1 5V vp 0\nV2 5V 0 vm\nG1 1V in 0\nU1 opamp AOL=1e6 GBW=1e12 plus=in minus=0 out=out vplus=vp vminus=vm\nR1 1k out 0',
    );
    expect(comparator).toMatchObject({
      ok: false,
      problem: { message: expect.stringContaining('already at 100 µV') },
    });
    const linear = headroom('G1 1V in 0\nR1 1k in out\nR2 1k out 0');
    expect(linear).toMatchObject({
      ok: false,
      problem: { message: expect.stringContaining('does not distort') },
    });
  });

  it('gives the power into its load: V²/2R of the fundamental and little more (textbook)', () => {
    const lines = `${AMPLIFIER}\nR3 100 out 0`;
    const [level, power] = [
      headroom(lines),
      answer(lines, {
        kind: 'outputPower',
        source: 'G1',
        out: 'out',
        load: 'R3',
        frequencyHz: 1000,
        thd: 0.01,
      }),
    ];
    if (!level.ok || !power.ok) throw new Error('no headroom');
    expect(power.value / (level.value ** 2 / 200)).toBeCloseTo(1, 2);
  });
});
