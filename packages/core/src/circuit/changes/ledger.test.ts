import type { Change, Step } from '@zemble/contract';
import { describe, expect, it } from 'vitest';
import type { Circuit } from '../circuit/index.ts';
import { circuitOf, randomCircuit } from '../../testing/circuits.ts';
import { ledgerOf, reportChanges } from './ledger.ts';

const circuit = circuitOf(
  'V1 9V vcc 0\nR4 1k vcc n3\nR5 1k n3 n4\nC2 1u n3 0\nC7 1u n4 0\nQ2 2N3904 c=vcc b=n3 e=n4',
);
const change = (steps: readonly Step[], about: Partial<Change> = {}): Change => ({
  id: 'c',
  name: 'A change',
  purpose: 'modification',
  state: 'done',
  steps,
  ...about,
});
const report = (steps: readonly Step[], about: Partial<Change> = {}, rest: Partial<Circuit> = {}) =>
  reportChanges({ ...circuit, ...rest, changes: [change(steps, about)] })[0]!;

describe('the way back from a change', () => {
  it('has a sentence for every step, the last step first', () => {
    expect(
      report([
        { do: 'fit', ref: 'R4', value: 820 },
        { do: 'add', part: { ref: 'J1', kind: 'jumper', pins: { a: 'n3', b: 'n4' } } },
        { do: 'cut', net: 'n3', pins: ['C2.a'], as: 'n3b' },
        { do: 'join', net: 'n3b', to: 'vcc' },
        { do: 'lift', pin: 'C7.a' },
        { do: 'move', pin: 'R5.b', to: 'vcc' },
        { do: 'remove', ref: 'R5' },
      ]).undo,
    ).toEqual([
      'Put R5 1k back between n3 and vcc: it is in the bag marked R5.',
      'Put R5.b back on n4.',
      'Solder C7.a back to n4.',
      'Take the wire between n3b and vcc out.',
      'Bridge the cut at n3, so that C2.a is on it again.',
      'Take J1 out.',
      'Fit the old 1k for R4 again: it is in the bag marked R4.',
    ]);
  });

  it('says what each step does by what was there before it', () => {
    expect(
      report([
        { do: 'fit', ref: 'R4', value: 820 },
        { do: 'fit', ref: 'R4', value: 560 },
        { do: 'fit', ref: 'Q2', part: { model: '2N5088' } },
        { do: 'move', pin: 'R5.b', to: 'vcc' },
        { do: 'move', pin: 'R5.b', to: 'n3' },
      ]).does,
    ).toEqual([
      'R4: 820 instead of 1k',
      'R4: 560 instead of 820',
      'Q2: 2N5088 instead of 2N3904',
      'R5.b moved from n4 to vcc',
      'R5.b moved from vcc to n3',
    ]);
  });

  it('is none where there is nothing to go back from, and where the change cannot be made', () => {
    const fit = [{ do: 'fit', ref: 'R4', value: 820 }] as const;
    expect(report(fit, { state: 'undone' })).toMatchObject({ undo: [], problems: [] });
    expect(report(fit, { state: 'dropped' })).toMatchObject({ undo: [], problems: [] });
    expect(report(fit, { state: 'planned' }).undo).toHaveLength(1);
    expect(report([{ do: 'remove', ref: 'R9' }])).toMatchObject({
      undo: [],
      problems: [{ code: 'change/no-part', ref: 'R9' }],
    });
  });

  it('is looked at in its own set, and a set that is gone is said', () => {
    const sets = [{ id: 'A', active: true }, { id: 'B' }];
    const fit = [{ do: 'fit', ref: 'R4', value: 820 }] as const;
    const inB = report(fit, { state: 'planned', set: 'B' }, { sets });
    expect([inB.undo.length, inB.problems.length]).toEqual([1, 0]);
    expect(report(fit, { state: 'planned', set: 'X' }, { sets }).problems[0]!.message).toBe(
      'There is no set "X".',
    );
  });

  it('is there for every step of whatever a random change does', () => {
    const random = randomCircuit(7, 2);
    const steps = random.parts.map((p): Step => ({ do: 'remove', ref: p.ref }));
    const [all] = reportChanges({ ...random, changes: [change(steps)] });
    expect(all!.undo).toHaveLength(steps.length);
  });
});

describe('the ledger', () => {
  const lifted = [{ do: 'lift', pin: 'C7.a' }] as const;
  const of = (about: Partial<Change>) => ledgerOf([report(lifted, about)]);

  it('has what is temporary and in force, with where it is and how it is taken back', () => {
    expect(of({ purpose: 'diagnosis', name: 'C7 read by itself', since: '2026-11-26T10:00:00Z' })).toEqual([
      {
        id: 'c',
        sentence: 'C7 read by itself: C7.a lifted.',
        undo: 'Solder C7.a back to n4.',
        since: '2026-11-26T10:00:00Z',
        refs: ['C7'],
        nets: [],
      },
    ]);
    expect(of({ purpose: 'trial' })).toHaveLength(1);
  });

  it('has nothing that is meant to stay, that is only planned, or that has come back', () => {
    expect(of({ purpose: 'repair' })).toEqual([]);
    expect(of({ purpose: 'trial', state: 'planned' })).toEqual([]);
    expect(of({ purpose: 'trial', state: 'undone' })).toEqual([]);
  });
});
