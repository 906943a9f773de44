import type { BeepQuestion } from '@zemble/core';
import { describe, expect, it } from 'vitest';
import { allBeep, answerKeys } from './answer-keys.ts';

const question = (kind: BeepQuestion['kind'], ...over: readonly string[]): BeepQuestion => ({
  kind,
  hold: 'C1.a',
  over,
  chance: 0.5,
});

describe('the keys of a beep', () => {
  it('say which of several beeped, none, or one that was not seen', () => {
    expect(answerKeys(question('sweep', 'R1.a', '0'))).toEqual({
      ArrowRight: 'pass',
      '1': [{ says: 'together', ends: ['C1.a', 'R1.a'] }],
      '2': [{ says: 'together', ends: ['C1.a', '0'] }],
      '0': [{ says: 'apart', ends: ['C1.a', 'R1.a', '0'] }],
      '?': [{ says: 'one of', ends: ['C1.a', 'R1.a', '0'] }],
    });
    expect(answerKeys(question('sweep', '0'))).not.toHaveProperty('?');
    expect(answerKeys(null)).toEqual({});
  });

  it('number no more than nine', () => {
    const ends = Array.from({ length: 12 }, (_, i) => `R${i}.a`);
    expect(Object.keys(answerKeys(question('alone', ...ends)))).not.toContain('10');
  });

  it('say that all beep, or all but some, each as a beep of its own', () => {
    const asked = question('together', 'R1.a', 'R2.a');
    expect(answerKeys(asked).Enter).toEqual([{ says: 'together', ends: ['C1.a', 'R1.a', 'R2.a'] }]);
    expect(allBeep(asked, ['R2.a'])).toEqual([
      { says: 'together', ends: ['C1.a', 'R1.a'] },
      { says: 'apart', ends: ['C1.a', 'R2.a'] },
    ]);
    expect(allBeep(asked, ['R1.a', 'R2.a'])).toEqual([{ says: 'apart', ends: ['C1.a', 'R1.a', 'R2.a'] }]);
  });
});
