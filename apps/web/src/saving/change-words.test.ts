import { describe, expect, it } from 'vitest';
import type { Entry } from '../api/act.ts';
import { changeWords, fieldsWords } from './change-words.ts';

const id = '01890a5d-ac96-774b-bcce-b302099a8057';

describe('what somebody entered, in words', () => {
  it('says a part as its line, a reading with its unit, and a wanted range with its unit', () => {
    const part = { ref: 'R1', kind: 'resistor' as const, pins: { a: 'in', b: '0' }, marked: 4700 };
    expect(changeWords({ type: 'add-part', id, part })).toBe('R1 4.7k in 0');
    const reading: Entry = {
      type: 'add-reading',
      id,
      partId: id,
      seen: 0,
      value: 5100,
      condition: 'leg lifted',
      takenAt: '2026-01-01T00:00:00Z',
    };
    const current = { id, version: 0, position: 0, part };
    expect(changeWords(reading, current)).toBe('A reading: 5.1 kΩ, leg lifted.');
    expect(
      changeWords({
        type: 'add-readout',
        id,
        readout: { id: 'v', name: 'Collector', kind: 'voltage', net: 'c', want: { min: 0.3 } },
      }),
    ).toBe('Collector, wanted > 300 mV');
  });

  it('says a change of the circuit by its name, its steps and where it stands', () => {
    const plan = {
      id: 'm',
      name: 'Slow switch',
      purpose: 'modification',
      state: 'planned',
      steps: [
        { do: 'fit', ref: 'R1', value: '4k7' },
        { do: 'lift', pin: 'C7.a' },
      ],
    } as const;
    expect(changeWords({ type: 'add-change', id, change: plan })).toBe(
      'Slow switch: R1: 4k7; C7.a lifted. (planned)',
    );
  });

  it('cuts long fields short, and leaves out what is not set', () => {
    const words = fieldsWords({ name: 'Amp', notes: 'x'.repeat(500), kind: undefined });
    expect(words.startsWith('name: Amp, notes: xxx')).toBe(true);
    expect(words.length).toBeLessThan(250);
  });
});
