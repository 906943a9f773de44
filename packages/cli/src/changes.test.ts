import { describe, expect, it } from 'vitest';
import { command, divider, resistor, unitFile } from './testing/command.ts';

describe('changes', () => {
  const changed = {
    ...divider,
    sets: [{ id: 'A', name: 'Gentle', active: true }, { id: 'B' }],
    settings: [{ id: 'off', controls: { S1: false } }],
    changes: [
      {
        id: 'm1',
        name: 'Heavier load',
        purpose: 'modification',
        state: 'planned',
        set: 'A',
        steps: [
          { do: 'add', part: resistor('R9', '1k', 'x', '0') },
          { do: 'add', part: { ref: 'S1', kind: 'switch', pins: { a: 'a', b: 'x' }, closed: true } },
        ],
      },
      {
        id: 'm2',
        name: 'Lighter',
        purpose: 'modification',
        state: 'planned',
        set: 'B',
        steps: [{ do: 'fit', ref: 'R2', value: '4k7' }],
      },
      {
        id: 'd1',
        name: 'R3 by itself',
        purpose: 'diagnosis',
        state: 'done',
        steps: [{ do: 'lift', pin: 'R3.a' }],
      },
      { id: 'x', name: 'Gone', purpose: 'repair', state: 'planned', steps: [{ do: 'remove', ref: 'R77' }] },
    ],
  };
  const write = () => unitFile('changed.json', changed);
  const voltsAt = async (net: string, ...args: string[]) => {
    const { answer, sentence } = await command('op', await write(), ...args);
    expect(sentence).toBe('');
    return (answer.nets as Record<string, number>)[net];
  };

  it('are shown by the layer, with the set and the setting that are asked for', async () => {
    expect(await voltsAt('a', '--layer', 'found')).toBeCloseTo(7.5, 9);
    // 3 kohm and 1 kohm in parallel, below 1 kohm; the contact has its milliohm.
    expect(await voltsAt('a', '--layer', 'planned')).toBeCloseTo(30 / 7, 3);
    expect(await voltsAt('a', '--layer', 'planned', '--set', 'B')).toBeCloseTo(47 / 5.7, 9);
    expect(await voltsAt('a', '--layer', 'planned', '--setting', 'off')).toBeCloseTo(7.5, 6);
    for (const wrong of [
      ['--set', 'C'],
      ['--setting', 'on'],
    ])
      expect((await command('op', await write(), ...wrong)).code).toBe(2);
    expect((await command('op', await write(), '--set', 'C')).sentence).toBe(
      'There is no set "C"; there are A, B.',
    );
  });

  it('of a layer come out as a plain file that computes the same', async () => {
    for (const layer of ['marked', 'found', 'planned', 'proven']) {
      const { answer } = await command('circuit', await write(), '--layer', layer);
      expect(answer).not.toHaveProperty('changes');
      const plain = await command('op', await unitFile('plain.json', answer));
      expect(plain.answer).toEqual((await command('op', await write(), '--layer', layer)).answer);
    }
  });

  it('are listed with what is wrong with them, their way back and the ledger', async () => {
    const { answer } = await command('changes', await write());
    expect(answer).toMatchObject({
      changes: [
        { id: 'm1', set: 'A', problems: [], undo: ['Take S1 out.', 'Take R9 out.'] },
        { id: 'm2', set: 'B', problems: [], undo: [expect.stringMatching(/^Fit the old 1k for R2 again/)] },
        { id: 'd1', state: 'done', undo: ['Solder R3.a back to in.'] },
        { id: 'x', undo: [], problems: [{ code: 'change/no-part', ref: 'R77' }] },
      ],
      ledger: [{ id: 'd1', sentence: 'R3 by itself: R3.a lifted.', undo: 'Solder R3.a back to in.' }],
      closable: false,
    });
    const none = await command('changes', await unitFile('none-changed.json', divider));
    expect(none.answer).toEqual({ changes: [], ledger: [], closable: true });
  });

  it('come out of a search, and with them the file computes what was predicted', async () => {
    const { answer } = await command(
      'solve',
      await write(),
      '--readout',
      'va',
      '--may',
      'R1',
      '--to-set',
      'B',
    );
    const { change } = answer as { change: { set: string; predicted: Record<string, number> } };
    expect(change).toMatchObject({ set: 'B', purpose: 'modification', state: 'planned' });
    const sets = [{ id: 'A' }, { id: 'B', active: true }];
    const file = await unitFile('solved.json', {
      ...changed,
      sets,
      changes: [...changed.changes, change],
    });
    const { answer: after } = await command('readouts', file);
    expect((after.readouts as { planned: number }[])[0]!.planned).toBeCloseTo(change.predicted.va!, 9);
    expect(change.predicted.va).toBeGreaterThan(5.8);
    expect(change.predicted.va).toBeLessThan(6.2);
  });

  it('that are in force are what the meter meets, unless a layer is asked for', async () => {
    const meter = async (...more: string[]) =>
      (await command('meter', await write(), '--between', 'in,out', '--mode', 'ohm', ...more)).answer.reading;
    expect(await meter('--layer', 'marked')).toBeCloseTo(10_000, -1);
    expect(await meter()).not.toBeCloseTo(10_000, -1);
  });
});
