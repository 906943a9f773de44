import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { hazardOf, splitHazards } from '@zemble/contract';
import { circuitOf } from '../../testing/circuits.ts';
import { cautionsOf } from './hazards.ts';
import { dischargeOf, HARMLESS_J, likelyStored, SAFE_V, WORKING_V } from './stored.ts';
import { forbiddenBy, testsOf, type LiveLimits } from './next-test.ts';
import { preparePath } from './path.ts';

describe('discharge', () => {
  it('takes RC ln(V/V0), the textbook law of a discharging capacitor', () => {
    // 100 uF at 325 V through 10 kohm: tau 1 s, down to 12 V in ln(325/12) = 3.3 s, 10.6 W at first, 5.3 J.
    const d = dischargeOf({ farad: 100e-6, volt: 325, ohm: 10_000 });
    expect(d.seconds).toBeCloseTo(Math.log(325 / 12), 9);
    expect(d.peakWatt).toBeCloseTo(10.5625, 9);
    expect(d.joule).toBeCloseTo(5.28125, 9);
    expect(d.sentence).toBe(
      '5.3 J: through 10 kΩ it falls to 12 V in 4 s; take a resistor of 7 W with insulated clips, then measure before you touch.',
    );
  });

  it('chooses a resistor that does not spark, and never leaves a dangerous voltage', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1e-6, max: 10, noNaN: true }),
        fc.double({ min: 5, max: 600, noNaN: true }),
        (farad, volt) => {
          const d = dischargeOf({ farad, volt });
          const left = volt * Math.exp(-d.seconds / (d.ohm * farad));
          expect(left).toBeLessThanOrEqual(Math.max(WORKING_V, 1) * (1 + 1e-9));
          expect(left).toBeLessThan(SAFE_V);
          expect(d.peakWatt).toBeLessThanOrEqual(10.0001);
          expect(d.ratingWatt).toBeGreaterThanOrEqual(d.peakWatt / 2);
        },
      ),
    );
  });
});

describe('cautions', () => {
  it('come with the most dangerous first, and leave mains work to licensed people', () => {
    const cautions = cautionsOf(['hot parts', 'mains']);
    expect(cautions[0]).toMatch(/^Unplug/);
    expect(cautions.some((c) => c.includes('licensed'))).toBe(true);
    expect(cautionsOf([])).toEqual([]);
  });
});

describe('what is likely stored', () => {
  it('takes each capacitor at its own voltage, and the one with the most energy', () => {
    // 2200 uF at 12 V holds 0.16 J, 47 uF at 300 V holds 2.1 J.
    const circuit = circuitOf(
      'V1 300V hv 0\nV2 12V lv 0\nC1 2200u 16V polarised lv 0\nC2 47u 350V polarised hv 0\nR1 100k hv lv',
    );
    expect(likelyStored(circuit, [])).toMatchObject([{ ref: 'C2', volt: expect.closeTo(300, 6) }]);
  });

  it.each(['valve high tension', 'mains', 'switch-mode primary', 'large capacitors'] as const)(
    'is a cautious figure with %s where the sheet holds only something small, and never harmless',
    (hazard) => {
      const [stored] = likelyStored(circuitOf('V1 9V vcc 0\nC1 100n vcc 0\nR1 1k vcc 0'), [hazard]);
      expect(stored).toMatchObject({ isCautious: true });
      const { sentence, joule } = dischargeOf(stored!);
      expect(joule).toBeGreaterThan(HARMLESS_J);
      expect(sentence).not.toMatch(/harmless/);
      expect(sentence).toMatch(/not on the sheet|cannot know|does not (?:hold|contain)/);
    },
  );
});

describe('what empties together', () => {
  const said = (lines: string, hazards: Parameters<typeof likelyStored>[1] = ['large capacitors']) =>
    likelyStored(circuitOf(lines), hazards);

  it('is named beside what the sheet may not hold, with the larger energy and the longer time', () => {
    // 10 mF at 50 V: 12.5 J, and through the 22k that 325 V ask for RC ln(50/12) = 314 s.
    const stored = said('V1 50V hv 0\nR1 100k hv 0\nC1 10m hv 0 polarised', ['mains', 'large capacitors']);
    expect(stored).toHaveLength(2);
    const known = dischargeOf(stored.find((s) => s.ref === 'C1')!);
    expect(known.joule).toBeCloseTo(12.5, 6);
    expect(known.ohm).toBe(22_000);
    expect(known.seconds).toBeCloseTo(22e3 * 10e-3 * Math.log(50 / 12), 3);
    expect(known.sentence).toContain('6 min');
  });

  it('is a group of its own behind a diode, and on each of two rails', () => {
    const behind = said('V1 300V hv 0\nR1 100k hv 0\nC1 47u hv 0\nD1 1N4007 hv h2\nC2 33u h2 0\nR2 1M h2 0', [
      'valve high tension',
    ]);
    expect(behind.map((s) => s.ref)).toEqual(['C1', 'C2']);
    const rails = said('V1 45V vp 0\nV2 45V 0 vm\nC1 4700u vp 0\nC2 4700u 0 vm\nR1 10k vp vm');
    expect(rails.map((s) => s.ref).sort()).toEqual(['C1', 'C2']);
  });

  it('takes no longer than it says: a run of the network, step by step', () => {
    // 47u - 1k - 100u, the clips at the one with the most energy: implicit Euler by hand, 1 ms.
    const [group] = said(
      'V1 300V hv 0 resistance=100\nC1 47u hv 0\nR1 1k hv b\nC2 100u b 0\nR2 470k b 0',
      [],
    );
    expect([group!.ref, ...(group!.others ?? [])]).toEqual(['C2', 'C1']);
    const { ohm, seconds, targetV } = dischargeOf(group!);
    let [v1, v2, t] = [300, 300, 0];
    const h = 1e-3;
    for (; Math.max(v1, v2) > targetV && t < 100; t += h) {
      const [a, b, d] = [47e-6 / h + 1 / 1000, -1 / 1000, 100e-6 / h + 1 / 1000 + 1 / ohm];
      const [p, q] = [(47e-6 / h) * v1, (100e-6 / h) * v2];
      const det = a * d - b * b;
      [v1, v2] = [(p * d - b * q) / det, (a * q - b * p) / det];
    }
    expect(t).toBeLessThanOrEqual(seconds);
    expect(t).toBeGreaterThan(0.9 * seconds);
  });
});

describe('the name of a hazard', () => {
  it.each([
    ['MAINS', 'mains'],
    ['230 V mains inlet', 'mains'],
    ['SMPS', 'switch-mode primary'],
    ['Switch mode primary', 'switch-mode primary'],
    ['valve HT', 'valve high tension'],
    ['High-Tension', 'valve high tension'],
    ['big capacitors', 'large capacitors'],
    ['Li-Ion pack', 'lithium'],
  ] as const)('is understood as people write it: %s', (text, hazard) => {
    expect(hazardOf(text)).toBe(hazard);
  });

  it('is a note where it names none, and nothing written is lost', () => {
    expect(splitHazards(['mains', 'sharp edges', 'SMPS'])).toEqual({
      hazards: ['mains', 'switch-mode primary'],
      notes: ['sharp edges', 'SMPS'],
    });
  });
});

describe('live tests', () => {
  const pathWith = (kind: string) =>
    preparePath({
      blocks: [
        { id: 'a', kind },
        { id: 'b', kind: 'stage' },
      ],
      links: [{ from: 'a', to: 'b', carries: 'supply' }],
      testPoints: [{ id: 'TP1', link: ['a', 'b'], net: 'ht' }],
    });
  const why = (kind: string, limits: LiveLimits) => {
    const path = pathWith(kind);
    return testsOf(path)
      .filter((t) => t.how !== 'check' && t.at === 'TP1')
      .map((t) => forbiddenBy(path, t, limits));
  };

  it('are forbidden by the voltage computed there, whatever the block is called', () => {
    expect(why('stage', { volts: new Map([['ht', 250]]) })).toContainEqual(expect.stringContaining('250 V'));
    expect(why('stage', { volts: new Map([['ht', 24]]) })).toContain(null);
  });

  it.each(['mains inlet', 'Mains Inlet', 'MAINS'])('are forbidden behind a block of kind %s', (kind) => {
    for (const reason of why(kind, { hazards: ['mains'] })) expect(reason).toMatch(/licensed|trained/);
  });
});
