import type { FileChange, SheetPart } from '@zemble/contract';
import { describe, expect, it } from 'vitest';
import { applyEntry } from './pending.ts';
import { rebased } from './rebased.ts';
import { requestFor, type Entry } from './act.ts';
import { partialUnit } from '../testing/partial-unit.ts';

const part: SheetPart = { ref: 'R1', kind: 'resistor', pins: { a: 'x', b: '0' }, marked: 1000 };
const readout = { id: 'g', name: 'Gain', kind: 'gain' as const, from: 'a', to: 'b', frequencyHz: 1000 };
const unit = partialUnit({
  id: 'u',
  versions: { name: 4 },
  name: 'Before',
  changes: [],
  nudges: {},
  parts: [{ id: 'p', version: 2, position: 0, part }],
  readouts: [{ id: 'r', version: 1, position: 0, readout }],
  readings: [],
  evidence: [{ id: 'e', at: 'TP1', saw: 'hum', takenAt: '2026-01-01T00:00:00.000Z', withdrawn: false }],
  photos: [{ id: 'f', version: 0, name: 'Top', width: 10, height: 10, points: [], overlay: {} }],
  beeps: [
    {
      id: 'b',
      says: 'together',
      ends: ['R1.a', 'R2.a'],
      takenAt: '2026-01-01T00:00:00.000Z',
      withdrawn: false,
    },
  ],
});
const takenAt = '2026-01-02T00:00:00.000Z';

/** Every kind of change, where it goes, and with which version it says it was made. */
const plan: FileChange = {
  id: 'louder',
  name: 'Louder',
  purpose: 'modification',
  state: 'planned',
  steps: [{ do: 'fit', ref: 'R1', value: 470 }],
};
const CHANGES: readonly (readonly [change: Entry, method: string, path: string, body: object])[] = [
  [{ type: 'add-part', id: 't', part }, 'POST', '/parts', { id: 't', part }],
  [{ type: 'update-part', partId: 'p', seen: 2, part }, 'PUT', '/parts/p', { baseVersion: 2, part }],
  [{ type: 'remove-part', partId: 'p', seen: 2 }, 'POST', '/parts/p/remove', { baseVersion: 2 }],
  [
    {
      type: 'add-reading',
      id: 't',
      partId: 'p',
      seen: 2,
      value: 0.6,
      condition: 'in circuit',
      instrument: 'meter 2',
      aspect: 'b-e',
      takenAt,
    },
    'POST',
    '/readings',
    {
      id: 't',
      partId: 'p',
      baseVersion: 2,
      value: 0.6,
      condition: 'in circuit',
      instrument: 'meter 2',
      aspect: 'b-e',
      takenAt,
    },
  ],
  [
    {
      type: 'add-reading',
      id: 't2',
      readoutId: 'r',
      seen: 0,
      value: 20,
      condition: 'leg lifted',
      takenAt,
    },
    'POST',
    '/readings',
    { id: 't2', readoutId: 'r', baseVersion: 0, value: 20, condition: 'leg lifted', takenAt },
  ],
  [{ type: 'amend-reading', readingId: 'm', told: { red: 'b' } }, 'PATCH', '/readings/m', { red: 'b' }],
  [{ type: 'add-readout', id: 't', readout }, 'POST', '/readouts', { id: 't', readout }],
  [
    { type: 'update-readout', readoutId: 'r', seen: 1, readout },
    'PUT',
    '/readouts/r',
    { baseVersion: 1, readout },
  ],
  [{ type: 'remove-readout', readoutId: 'r', seen: 1 }, 'POST', '/readouts/r/remove', { baseVersion: 1 }],
  [{ type: 'add-change', id: 't', change: plan }, 'POST', '/changes', { id: 't', change: plan }],
  [
    { type: 'update-change', changeId: 'c', seen: 2, change: plan },
    'PUT',
    '/changes/c',
    { baseVersion: 2, change: plan },
  ],
  [
    { type: 'add-evidence', id: 't', evidence: { at: 'TP1', saw: 'good' }, takenAt },
    'POST',
    '/evidence',
    { at: 'TP1', saw: 'good', id: 't', takenAt },
  ],
  [{ type: 'withdraw-evidence', evidenceId: 'e' }, 'POST', '/evidence/e/withdraw', {}],
  [
    { type: 'add-beep', id: 't', beep: { says: 'together', ends: ['R1.a', 'tip'] }, takenAt },
    'POST',
    '/beeps',
    { says: 'together', ends: ['R1.a', 'tip'], id: 't', takenAt },
  ],
  [{ type: 'withdraw-beep', beepId: 'b' }, 'POST', '/beeps/b/withdraw', {}],
  [{ type: 'beep-through', beepId: 'b', through: 'L1' }, 'POST', '/beeps/b/through', { through: 'L1' }],
  [
    { type: 'tick-step', id: 'safe', words: 'Switched off.', isDone: true, at: takenAt },
    'PUT',
    '/ticks',
    { id: 'safe', words: 'Switched off.', isDone: true, at: takenAt },
  ],
  [
    { type: 'update-photo', photoId: 'f', seen: 0, values: { name: 'Bottom' } },
    'PATCH',
    '/photos/f',
    { baseVersion: 0, name: 'Bottom' },
  ],
  [{ type: 'remove-photo', photoId: 'f', seen: 0 }, 'POST', '/photos/f/remove', { baseVersion: 0 }],
  [{ type: 'add-note', id: 't', text: 'smells' }, 'POST', '/notes', { id: 't', text: 'smells' }],
  [
    { type: 'update-unit', seen: { name: 4 }, values: { name: 'After' } },
    'PATCH',
    '',
    { seen: { name: 4 }, name: 'After' },
  ],
  [{ type: 'undo', sequence: 9 }, 'POST', '/undo', { sequence: 9 }],
];

describe('a change as a request', () => {
  it.each(CHANGES)('$type goes where it belongs', (change, method, path, body) => {
    const request = requestFor({ unitId: 'u', change });
    expect(request).toEqual({ method, path: `/units/u${path}`, body });
  });

  it('of several acts puts those on the version that was met that touch the thing', () => {
    const remove = (partId: string) => ({ type: 'remove-part' as const, partId, seen: 1 });
    const mine = rebased({ type: 'batch', acts: [remove('p'), remove('q')] }, { id: 'q', version: 7 });
    expect(mine).toMatchObject({ acts: [{ seen: 1 }, { seen: 7 }] });
  });

  it('is put on the version that was met, for "mine"', () => {
    for (const [change] of CHANGES) {
      if (change.type === 'update-unit') {
        const mine = rebased(change, { versions: { name: 11 } });
        expect(mine).toMatchObject({ seen: { name: 11 } });
        continue;
      }
      const mine = rebased(change, { version: 11 });
      if ('seen' in change) expect(mine).toMatchObject({ seen: 11 });
      else expect(mine).toBe(change);
    }
  });
});

describe('a change before the server has it', () => {
  it('never touches the unit it is shown on', () => {
    const before = JSON.stringify(unit);
    for (const [change] of CHANGES) applyEntry(unit, change);
    expect(JSON.stringify(unit)).toBe(before);
  });

  it('is seen at once where it is entered', () => {
    const after = CHANGES.reduce((u, [change]) => applyEntry(u, change), unit);
    expect(after.name).toBe('After');
    expect(after.parts.map((p) => p.id)).toEqual(['t']);
    expect(after.readings.map((r) => [r.value, r.aspect])).toEqual([
      [0.6, 'b-e'],
      [20, null],
    ]);
    expect(after.readouts.map((r) => r.id)).toEqual(['t']);
    expect(after.evidence.map((e) => [e.id, e.withdrawn])).toEqual([
      ['e', true],
      ['t', false],
    ]);
    expect(after.photos).toEqual([]);
    expect(after.beeps.map((b) => [b.id, b.withdrawn, b.through])).toEqual([
      ['b', true, 'L1'],
      ['t', false, undefined],
    ]);
  });

  it('puts parts on the nets that follow from a beep, and back when it is withdrawn', () => {
    const second: SheetPart = { ref: 'R2', kind: 'resistor', pins: { a: 'y', b: 'z' }, marked: 2000 };
    const two = applyEntry(unit, { type: 'add-part', id: 't', part: second });
    const pins = (u: typeof unit) => u.parts.map((p) => p.part.pins.a);
    expect(pins(two)).toEqual(['x', 'x']);
    expect(pins(applyEntry(two, { type: 'withdraw-beep', beepId: 'b' }))).toEqual(['x', 'y']);
    // Entered again as it is shown, it is still what was said of it.
    const shown = two.parts[1]!;
    const entered = applyEntry(two, {
      type: 'update-part',
      partId: 't',
      seen: 0,
      part: { ...shown.part, marked: 3000 },
    });
    expect(pins(applyEntry(entered, { type: 'withdraw-beep', beepId: 'b' }))).toEqual(['x', 'y']);
  });

  it('has the versions that the server will give, so that the next change builds on them', () => {
    const twice: readonly Entry[] = [
      { type: 'update-part', partId: 'p', seen: 2, part },
      { type: 'update-unit', seen: { name: 4 }, values: { name: 'After' } },
    ];
    const after = twice.reduce(applyEntry, unit);
    expect([after.parts[0]!.version, after.versions]).toEqual([3, { name: 5 }]);
  });

  it('puts a part where it was put, and once, though it comes twice', () => {
    const change: Entry = { type: 'add-part', id: 'n', part: { ...part, ref: 'R0' }, position: 0 };
    const once = applyEntry(unit, change);
    expect(once.parts.map((p) => [p.id, p.position])).toEqual([
      ['n', 0],
      ['p', 1],
    ]);
    expect(applyEntry(once, change)).toBe(once);
  });
});
