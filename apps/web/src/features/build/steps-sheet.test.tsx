// @vitest-environment happy-dom
import '../../testing/component.ts';
import type { ActOf, UnitResource } from '@zemble/contract';
import { applyAct, benchSteps, DocumentMaker, type UnitDocument, type WorkWish } from '@zemble/core';
import { fireEvent, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it, vi } from 'vitest';
import type { useWork } from '../../compute/use-work.ts';
import { showInUnit, unitOf } from '../../testing/in-unit.tsx';
import { StepsSheet } from './steps-sheet.tsx';

// The page has a worker for it; here the same function answers at once.
const stock = vi.hoisted(() => ({ items: [] }));
vi.mock('../drawer/index.ts', () => ({ useDrawer: () => stock }));
vi.mock('../../compute/use-work.ts', () => ({
  useWork: (document: UnitDocument, wish: WorkWish): ReturnType<typeof useWork> => ({
    made: { of: { document, wish }, answer: benchSteps(document, wish) },
    isCurrent: true,
    why: null,
  }),
}));

const UNIT = unitOf({
  lines: ['V1 9V vcc 0', 'R1 1k vcc a', 'R2 1k a 0', 'C1 1u a out', 'R3 1k out 0'],
  planned: { R1: 2200 },
});
const BLANK = unitOf({ lines: ['V1 9V vcc 0', 'R1 1k vcc 0'] });
const atHand = () => screen.getByRole('group', { name: 'The step at hand' });
const ticked = (ids: readonly string[]): UnitResource => {
  const at = new Date().toISOString();
  return { ...UNIT, ticks: Object.fromEntries(ids.map((id) => [id, { at, words: id }])) };
};
const order = () => screen.getAllByRole('listitem').map((li) => li.textContent);

describe('the steps', () => {
  it('begin with what makes it safe; Space ticks it', async () => {
    const { change } = showInUnit(UNIT, <StepsSheet tabs={null} />);
    expect(atHand().textContent).toMatch(/Step 1 of \d+/);
    expect(atHand().textContent).toContain('Switch off');
    await userEvent.keyboard(' ');
    expect(change).toHaveBeenCalledTimes(1);
    expect(change).toHaveBeenCalledWith(
      expect.objectContaining({ type: 'tick-step', id: expect.stringMatching(/^safe/), isDone: true }),
    );
  });

  it('are ticked once by a key that is held', () => {
    const { change } = showInUnit(UNIT, <StepsSheet tabs={null} />);
    fireEvent.keyDown(window, { key: ' ' });
    for (let i = 0; i < 5; i += 1) fireEvent.keyDown(window, { key: ' ', repeat: true });
    expect(change).toHaveBeenCalledTimes(1);
  });

  it('do not let a part be fitted before what must be done first', async () => {
    const { change } = showInUnit(UNIT, <StepsSheet tabs={null} />);
    await userEvent.click(screen.getByRole('button', { name: /Fit R1 2k2/ }));
    expect(atHand().textContent).toMatch(/Before it: .*Take R1 1k out/);
    expect(screen.getByRole('button', { name: /^Done/ })).toHaveProperty('disabled', true);
    // The key asks the same rule as the button, and the step stays at hand.
    await userEvent.keyboard(' ');
    expect(change).not.toHaveBeenCalled();
    expect(atHand().textContent).toMatch(/Fit R1 2k2/);
  });

  it('go back and forth by the arrows, and leave a field that is typed in alone', () => {
    const { change } = showInUnit(
      UNIT,
      <>
        <StepsSheet tabs={null} />
        <input aria-label="elsewhere" />
      </>,
    );
    fireEvent.keyDown(window, { key: 'ArrowDown' });
    expect(atHand().textContent).toMatch(/Step 2 of/);
    fireEvent.keyDown(window, { key: 'ArrowUp' });
    fireEvent.keyDown(window, { key: 'ArrowUp' });
    expect(atHand().textContent).toMatch(/Step 1 of/);
    fireEvent.keyDown(screen.getByLabelText('elsewhere'), { key: ' ' });
    expect(change).not.toHaveBeenCalled();
  });

  it('tick the step of the change with the step that fits its part', async () => {
    // All that comes before it was done a moment ago.
    const { unmount } = showInUnit(UNIT, <StepsSheet tabs={null} />);
    const before = order().findIndex((text) => text?.includes('Fit R1 2k2'));
    unmount();
    const ids = allIds().slice(0, before);
    const { change } = showInUnit(ticked(ids), <StepsSheet tabs={null} />);
    expect(atHand().textContent).toContain('Fit R1 2k2');
    await userEvent.keyboard(' ');
    const [told] = change.mock.calls[0] as [ActOf<'tick-step'>];
    expect(told.type).toBe('tick-step');
    expect(applyAct(UNIT, told).changes[0]!.change.steps[0]!.done).toBeDefined();
  });

  it('say that nothing is planned where nothing is, and offer the whole unit', () => {
    showInUnit(BLANK, <StepsSheet tabs={null} />);
    expect(screen.getByText(/^Nothing is planned/)).toBeTruthy();
    expect(screen.queryByRole('group', { name: 'The step at hand' })).toBeNull();
  });
});

/** The ids of all steps of the plan, in their order. */
const allIds = (): string[] =>
  benchSteps(new DocumentMaker().make(UNIT), { alsoDone: [] }).steps.map((step) => step.id);
