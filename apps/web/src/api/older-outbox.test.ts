import { describe, expect, it } from 'vitest';
import { newId } from './new-id.ts';
import { olderWrites } from './older-outbox.ts';

const [key, unitId, partId] = [newId(), newId(), newId()];

describe('what a page of before had still to send', () => {
  it('is taken over with the ids that it had', () => {
    const takenAt = '2026-01-01T00:00:00.000Z';
    const part = { ref: 'R1', kind: 'resistor', pins: { a: 'x', b: '0' } };
    const older = [
      { key, unitId, change: { type: 'add-part', tempId: partId, part } },
      {
        key: newId(),
        unitId,
        change: {
          type: 'add-reading',
          tempId: newId(),
          partId,
          seen: 0,
          value: 9,
          condition: 'leg lifted',
          takenAt,
        },
      },
      { key: newId(), unitId, change: { type: 'update-unit', seen: 4, values: { name: 'After' } } },
      { key: newId(), unitId, change: { type: 'add-note', text: 'warm' } },
    ];
    const { writes, unreadable } = olderWrites(JSON.stringify(older));
    expect(unreadable).toBe(0);
    expect(writes.map((w) => w.change)).toMatchObject([
      { type: 'add-part', id: partId },
      { type: 'add-reading', partId },
      { type: 'update-unit', seen: {} },
      { type: 'add-note', text: 'warm' },
    ]);
  });

  it('is counted where it cannot be read', () => {
    expect(olderWrites('not json')).toEqual({ writes: [], unreadable: 1 });
    expect(olderWrites(JSON.stringify([{ key, unitId, change: { type: 'fly' } }])).unreadable).toBe(1);
    expect(olderWrites('[]')).toEqual({ writes: [], unreadable: 0 });
  });
});
