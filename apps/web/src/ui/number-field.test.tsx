// @vitest-environment happy-dom
import '../testing/component.ts';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it, vi } from 'vitest';
import { NumberField } from './number-field.tsx';

function open(value: number | null) {
  const onDone = vi.fn();
  const { rerender } = render(<NumberField value={value} min={0.1} max={600} onDone={onDone} />);
  const change = (next: number | null) =>
    rerender(<NumberField value={next} min={0.1} max={600} onDone={onDone} />);
  return { onDone, change, field: screen.getByRole('spinbutton') };
}

describe('a number field', () => {
  it('takes a number once, with Enter or when it is left, and not with every digit', async () => {
    const user = userEvent.setup();
    const { onDone, field } = open(1);
    await user.clear(field);
    await user.type(field, '125');
    expect(onDone).not.toHaveBeenCalled();
    await user.keyboard('{Enter}');
    expect(onDone.mock.calls).toEqual([[125]]);
  });

  it('takes it when the field is left, and nothing where nothing was changed', async () => {
    const user = userEvent.setup();
    const { onDone, field } = open(5);
    await user.click(field);
    await user.tab();
    expect(onDone).not.toHaveBeenCalled();
    await user.clear(field);
    await user.type(field, '7');
    await user.tab();
    expect(onDone.mock.calls).toEqual([[7]]);
  });

  it('shows what somebody else has set meanwhile instead of what was begun on top of the old one', async () => {
    const user = userEvent.setup();
    const { onDone, change, field } = open(1);
    await user.clear(field);
    await user.type(field, '9');
    change(3);
    expect(field).toHaveProperty('value', '3');
    await user.tab();
    expect(onDone).not.toHaveBeenCalled();
  });
});
