import { describe, expect, it } from 'vitest';
import { idOf } from '../../testing/in-unit.tsx';
import { partialUnit } from '../../testing/partial-unit.ts';
import { workChoices } from './choose-work.ts';

const NOON = Date.parse('2026-03-01T12:00:00Z');
const MIN = 60_000;
const at = (minutes: number) => new Date(NOON + minutes * MIN).toISOString();
const change = (n: number, name: string, rest: object) => ({
  id: idOf(n),
  version: 0,
  position: n,
  change: { id: idOf(n), name, purpose: 'modification', steps: [], ...rest },
});

describe('the work that can be chosen', () => {
  it('is all that is planned, each plan where there are several, the way back of what is done, and the whole', () => {
    const unit = partialUnit({
      changes: [
        change(1, 'Softer', { state: 'planned' }),
        change(2, 'Louder', { state: 'planned' }),
        change(3, 'Slower', { state: 'done', since: at(-30 * 24 * 60) }),
        change(4, 'Given up', { state: 'undone' }),
      ],
    });
    expect(workChoices(unit, NOON).map((c) => c.words)).toEqual([
      'All that is planned',
      'Softer',
      'Louder',
      'Take back: Slower',
      'Take back: Given up',
      'The whole unit from nothing',
    ]);
    // Done a month ago: its checks are no work of today.
    expect(workChoices(unit, NOON)[0]!.wish).toEqual({ alsoDone: [] });
  });

  it('keeps what is done until its last check, and what was finished in sight until it is opened again', () => {
    const made = (tickedAt: string | undefined) =>
      partialUnit({
        changes: [change(1, 'Softer', { state: 'done', since: at(-10) })],
        ticks: tickedAt === undefined ? {} : { 'power:signal': { at: tickedAt, words: 'A small signal.' } },
      });
    const alsoDone = (tickedAt?: string) => workChoices(made(tickedAt), NOON)[0]!.wish;
    expect(alsoDone()).toEqual({ alsoDone: [idOf(1)] });
    expect(alsoDone(at(5))).toEqual({ alsoDone: [idOf(1)] });
    expect(alsoDone(at(-5))).toEqual({ alsoDone: [] });
    // Work after an older last check is new work.
    expect(alsoDone(at(-20))).toEqual({ alsoDone: [idOf(1)] });
  });

  it('leaves what is temporary to its way back', () => {
    const unit = partialUnit({
      changes: [change(1, 'C1 by itself', { purpose: 'diagnosis', state: 'done', since: at(-1) })],
    });
    expect(workChoices(unit, NOON)[0]!.wish).toEqual({ alsoDone: [] });
    expect(workChoices(unit, NOON).map((c) => c.words)).toContain('Take back: C1 by itself');
  });
});
