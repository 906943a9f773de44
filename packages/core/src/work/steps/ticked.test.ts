import { describe, expect, it } from 'vitest';
import type { BenchStep, StepKind } from './bench-step.ts';
import { missingBefore, nextStep, tickedSteps } from './ticked.ts';

const step = (id: string, kind: StepKind, needs: readonly string[] = [], at?: string): BenchStep => ({
  id,
  kind,
  say: id,
  why: '',
  refs: [],
  nets: [],
  needs,
  ...(at === undefined ? {} : { done: { at } }),
});
const AT = (hour: number) => `2026-03-01T${String(hour).padStart(2, '0')}:00:00.000Z`;
const now = (hour: number) => Date.parse(AT(hour));
const list = [
  step('safe', 'safe'),
  step('do', 'fit', ['safe']),
  step('do2', 'fit', ['safe']),
  step('check', 'check', ['do', 'do2']),
  step('power', 'power', ['check']),
];

describe('ticks of the bench work', () => {
  it('hold, and the next step is the first whose needs are met', () => {
    const seen = tickedSteps(list, { safe: { at: AT(9) }, do: { at: AT(10) } }, now(11));
    expect(seen.map((s) => s.done !== undefined)).toEqual([true, true, false, false, false]);
    expect(nextStep(seen)!.step.id).toBe('do2');
    expect(missingBefore(seen, 'check').map((s) => s.id)).toEqual(['do2']);
  });

  it('of safety lapse after a pause', () => {
    const seen = tickedSteps(list, { safe: { at: AT(9) }, do: { at: AT(10) } }, now(20));
    expect(seen[0]).toMatchObject({ done: undefined, lapsed: expect.stringContaining('before a pause') });
    expect(nextStep(seen)!.step.id).toBe('safe');
  });

  it('of checks lapse with the next thing that is done', () => {
    const ticks = { safe: { at: AT(9) }, do: { at: AT(9) }, do2: { at: AT(11) }, check: { at: AT(10) } };
    const seen = tickedSteps(list, ticks, now(11));
    expect(seen[3]!.lapsed).toContain('since');
    expect(nextStep(tickedSteps(list, { ...ticks, check: { at: AT(12) } }, now(12)))!.step.id).toBe('power');
  });

  it('of work that is finished do not hold for the next', () => {
    const ticks = Object.fromEntries(
      ['safe', 'photograph', 'check', 'power'].map((id, i) => [id, { at: AT(9 + i) }]),
    );
    const work = [step('safe', 'safe'), step('photograph', 'photograph', ['safe']), ...list.slice(1)];
    const seen = tickedSteps(work, ticks, now(12));
    expect(seen.every((s) => s.done === undefined)).toBe(true);
    expect(nextStep(seen)!.step.id).toBe('safe');
    const whole = { ...ticks, do: { at: AT(10) }, do2: { at: AT(10) } };
    expect(tickedSteps(work, whole, now(12)).every((s) => s.done !== undefined)).toBe(true);
  });

  it('of changes are their own, and a name of every object is no tick', () => {
    expect(tickedSteps([step('do', 'fit', [], AT(9))], {}, now(10))[0]!.done).toEqual({ at: AT(9) });
    expect(tickedSteps([step('constructor', 'fit')], {}, now(10))[0]!.done).toBeUndefined();
    expect(nextStep([])).toBeUndefined();
  });
});
