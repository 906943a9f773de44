import { describe, expect, it } from 'vitest';
import type { Entry } from '../api/act.ts';
import { correctable } from './correct.ts';

const id = '01890a5d-ac96-774b-bcce-b302099a8057';
const takenAt = '2026-01-01T00:00:00.000Z';
const changes: readonly Entry[] = [
  { type: 'add-note', id, text: 'It hums.' },
  { type: 'add-part', id, part: { ref: 'C1', kind: 'capacitor', pins: { a: 'x', b: '0' }, marked: 4.7e-6 } },
  { type: 'add-reading', id, partId: id, seen: 1, value: 4.7e-6, condition: 'in circuit', takenAt },
  { type: 'update-unit', seen: { name: 2 }, values: { name: 'Amp' } },
];

describe('what can be corrected by typing', () => {
  it.each(changes)('$type reads back as it was', (change) => {
    const typed = correctable(change)!;
    expect(typed.read(typed.text)).toEqual({ change });
  });

  it('is no change of several fields, nor one of what is not typed', () => {
    expect(correctable({ type: 'update-unit', seen: {}, values: { name: 'a', notes: 'b' } })).toBeNull();
    expect(correctable({ type: 'update-unit', seen: {}, values: { hazards: ['mains'] } })).toBeNull();
    expect(correctable({ type: 'undo', sequence: 3 })).toBeNull();
    expect(
      correctable({
        type: 'add-reading',
        id,
        partId: id,
        seen: 1,
        value: 'open',
        condition: 'in circuit',
        takenAt,
      }),
    ).toBeNull();
  });

  it('of a unit put away with something temporary in it is the reason, which has to be given', () => {
    const away: Entry = { type: 'update-unit', seen: {}, values: { place: 'away' } };
    const typed = correctable(away)!;
    expect(typed.read('')).toHaveProperty('why');
    expect(typed.read('The part is ordered.')).toEqual({
      change: { ...away, values: { place: 'away', reason: 'The part is ordered.' } },
    });
  });

  it('says why a text cannot be read', () => {
    expect(correctable(changes[1]!)!.read('C1 4x7 x 0')).toMatchObject({
      why: expect.stringContaining('4x7') as string,
    });
    expect(correctable(changes[2]!)!.read('much')).toMatchObject({
      why: expect.stringContaining('much') as string,
    });
  });
});
