// @vitest-environment happy-dom
import '../../testing/component.ts';
import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it, vi } from 'vitest';
import { showInUnit, unitOf } from '../../testing/in-unit.tsx';
import { useTrial } from '../../unit/trial.tsx';
import { HandTuning } from './hand-tuning.tsx';

function open(planned: Record<string, number> = {}) {
  const told = { onPlan: vi.fn(), onDrop: vi.fn(), onClear: vi.fn() };
  function Turning() {
    const { trial, setTrial } = useTrial();
    return <HandTuning {...told} onTurn={(ref, value) => setTrial(new Map([...trial, [ref, value]]))} />;
  }
  const unit = unitOf({ lines: ['V1 9V vcc 0', 'R1 10k vcc a', 'R2 4k7 a 0', 'C1 100n a b'], planned });
  return { ...told, ...showInUnit(unit, <Turning />), user: userEvent.setup() };
}
const dial = (ref: string) => screen.getByRole('spinbutton', { name: `Value of ${ref}` });

describe('turning values by hand', () => {
  it('goes along the series, click by click, and says the value to readers of the page', async () => {
    const { user } = open();
    dial('R1').focus();
    await user.keyboard('{ArrowUp}');
    // E12 of IEC 60063: 10, 12, 15, 18, 22, …
    expect(dial('R1').getAttribute('aria-valuetext')).toBe('12 kΩ');
    await user.keyboard('{ArrowUp}{ArrowUp}{ArrowDown}');
    expect(dial('R1').getAttribute('aria-valuetext')).toBe('15 kΩ');
    await user.keyboard('{PageDown}');
    expect(dial('R1').getAttribute('aria-valuetext')).toBe('6.8 kΩ');
    expect(dial('R2').getAttribute('aria-valuetext')).toBe('4.7 kΩ');
  });

  it('offers to plan what was turned, or to drop it, and counts it', async () => {
    const { user, onPlan, onDrop } = open();
    expect(screen.queryByRole('button', { name: /^Plan/ })).toBeNull();
    dial('R1').focus();
    await user.keyboard('{ArrowUp}');
    dial('C1').focus();
    await user.keyboard('{ArrowDown}');
    await user.click(screen.getByRole('button', { name: 'Plan these 2 values' }));
    await user.click(screen.getByRole('button', { name: 'Drop' }));
    expect([onPlan.mock.calls.length, onDrop.mock.calls.length]).toEqual([1, 1]);
  });

  it('drops the plan of a part that has one', async () => {
    const { user, onClear } = open({ R2: 5600 });
    expect(dial('R2').getAttribute('aria-valuetext')).toBe('5.6 kΩ');
    await user.click(screen.getByRole('button', { name: 'Drop the plan for R2' }));
    expect(onClear.mock.calls).toEqual([['R2']]);
  });

  it('has no dial for what cannot be changed', () => {
    open();
    expect(screen.queryByRole('spinbutton', { name: 'Value of V1' })).toBeNull();
  });
});
