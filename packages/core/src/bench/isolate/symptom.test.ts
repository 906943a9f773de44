import fc from 'fast-check';
import { HEARD } from '@zemble/contract';
import { describe, expect, it } from 'vitest';
import { heardModes } from './heard.ts';
import { FAULT_MODES, likelihoods, seenFor, SYMPTOMS } from './symptom.ts';

const chance = fc.double({ min: 0, max: 1, noNaN: true });

describe('what is seen under each truth', () => {
  it('has a chance of one in sum over all that can be seen, however far it is trusted', () => {
    fc.assert(
      fc.property(chance, chance, chance, chance, (wrong, confused, hidden, falseAlarm) => {
        const trust = { wrong, confused, hidden };
        const seen = SYMPTOMS.map((s) => likelihoods(s, trust, falseAlarm));
        const bad = likelihoods('bad', trust, falseAlarm);
        SYMPTOMS.forEach((_, truth) => {
          const chances = seen.map((row) => row[truth]!);
          expect(chances.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 12);
          for (const c of chances) expect(c).toBeGreaterThanOrEqual(0);
          // "Bad" is every symptom but good.
          expect(bad[truth]).toBeCloseTo(1 - seen[0]![truth]!, 12);
        });
      }),
    );
  });

  it('is as trustworthy as looks are: what never errs decides', () => {
    const sure = { wrong: 0, confused: 0, hidden: 0 };
    expect([...likelihoods('hum', sure)]).toEqual(SYMPTOMS.map((s) => (s === 'hum' ? 1 : 0)));
    // A fault that is away in four looks of ten passes for good as often.
    expect(likelihoods('good', { ...sure, hidden: 0.4 })[SYMPTOMS.indexOf('none')]).toBeCloseTo(0.4, 12);
  });
});

describe('a word at a pin', () => {
  it('means what the link carries (common practice)', () => {
    expect(seenFor('high', 'supply')).toBe('good');
    expect(seenFor('low', 'supply')).toBe('none');
    expect(seenFor('pulsing', 'clock')).toBe('good');
    expect(seenFor('high', 'clock')).toBe('bad');
    expect(seenFor('hum', 'audio')).toBe('hum');
  });

  it('says nothing of a control line that may rest either way, and never that a floating pin is right', () => {
    for (const word of ['high', 'low', 'pulsing'] as const) expect(seenFor(word, 'control')).toBeNull();
    for (const carries of ['audio', 'supply', 'clock', 'data', 'control'])
      expect(seenFor('floating', carries)).toBe('none');
  });
});

describe('what is heard', () => {
  it('leaves every way of failing a chance, since people mishear, and nothing said says nothing', () => {
    expect(heardModes([])).toBeNull();
    for (const heard of HEARD) {
      const modes = heardModes([heard])!;
      const chances = FAULT_MODES.map((mode) => modes[mode]);
      for (const c of chances) expect(c).toBeGreaterThan(0);
      expect(Math.max(...chances)).toBeGreaterThanOrEqual(0.5);
    }
  });

  it('points at hum for hum, and at a load that drags for pulsing power', () => {
    const loudest = (heard: (typeof HEARD)[number]) => {
      const modes = heardModes([heard])!;
      return FAULT_MODES.filter((mode) => modes[mode] === 1);
    };
    expect(loudest('hum')).toEqual(['hum']);
    expect(loudest('distortion')).toEqual(['distorted']);
    expect(loudest('pulsing power')).toEqual(['drags', 'sags']);
    expect(heardModes(['hum', 'distortion'])).toMatchObject({ hum: 1, distorted: 1 });
  });
});
