// @vitest-environment happy-dom
import '../../testing/component.ts';
import type { PartResource } from '@zemble/contract';
import type { Circuit } from '@zemble/core';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it, vi } from 'vitest';
import { PartEntry } from './part-entry.tsx';

const circuit: Circuit = {
  ground: '0',
  parts: [
    { ref: 'R1', kind: 'resistor', pins: { a: 'input', b: 'base' }, marked: 10_000 },
    { ref: 'R2', kind: 'resistor', pins: { a: 'base', b: '0' }, marked: 47_000 },
  ],
};
const known: PartResource = {
  id: '01890a5d-ac96-774b-bcce-b302099a8057',
  version: 3,
  position: 0,
  part: { ref: 'R1', kind: 'resistor', pins: { a: 'input', b: 'base' }, marked: 10_000 },
};

function open(editing: PartResource | null = null) {
  const told = {
    onEnter: vi.fn(),
    onList: vi.fn(),
    onEdit: vi.fn(),
    onRemove: vi.fn(),
    onStep: vi.fn(),
    onLeave: vi.fn(),
  };
  render(<PartEntry circuit={circuit} editing={editing} {...told} />);
  return { ...told, field: screen.getByRole('textbox'), user: userEvent.setup() };
}

describe('the field of the sheet', () => {
  it('says what a line is understood as, and hands it on with Enter', async () => {
    const { user, field, onEnter } = open();
    await user.type(field, 'C7 100n base out');
    expect(screen.getByText(/100 nF/)).toBeTruthy();
    await user.keyboard('{Enter}');
    expect(onEnter.mock.calls[0]).toMatchObject([{ ref: 'C7', kind: 'capacitor', marked: 1e-7 }]);
    expect(field).toHaveProperty('value', '');
  });

  it('keeps a line that cannot be read, with its reason, until it is mended', async () => {
    const { user, field, onEnter } = open();
    await user.type(field, 'R9 47q in out{Enter}');
    expect(onEnter).not.toHaveBeenCalled();
    expect(field).toHaveProperty('value', 'R9 47q in out');
    expect(screen.getByRole('alert').textContent).toContain('47q');
    await user.type(field, '{Backspace}');
    expect(screen.queryByRole('alert')).toBeNull();
  });

  it('hands on a list that is pasted, whole; one line is typed text', async () => {
    const { user, field, onList } = open();
    await user.click(field);
    await user.paste('R1 10k a b\nR2 22k b 0\n');
    expect(onList.mock.calls).toEqual([['R1 10k a b\nR2 22k b 0\n']]);
    expect(field).toHaveProperty('value', '');
    await user.paste('R3 1k a 0\n');
    expect(onList).toHaveBeenCalledOnce();
    expect(field).toHaveProperty('value', 'R3 1k a 0');
  });

  it('warns of a designator that is there, completes nets with Tab and leaves Tab alone otherwise', async () => {
    const { user, field } = open();
    await user.type(field, 'R1 22k inp');
    await user.tab();
    expect(field).toHaveProperty('value', 'R1 22k input ');
    await user.type(field, 'base');
    expect(screen.getByText(/replaces the R1/)).toBeTruthy();
    await user.clear(field);
    await user.tab();
    expect(document.activeElement).not.toBe(field);
  });

  it('steps through the rows, edits and removes the chosen one while it is empty', async () => {
    const { user, field, onStep, onEdit, onRemove } = open();
    await user.click(field);
    await user.keyboard('{ArrowDown}{ArrowUp}{Enter}{Delete}');
    expect(onStep.mock.calls).toEqual([[1], [-1]]);
    expect(onEdit).toHaveBeenCalledOnce();
    expect(onRemove).toHaveBeenCalledOnce();
    await user.type(field, 'R');
    await user.keyboard('{ArrowDown}{Delete}');
    expect(onStep).toHaveBeenCalledTimes(2);
    expect(onRemove).toHaveBeenCalledOnce();
  });

  it('begins with the line of the part that is changed, and leaves it with Escape', async () => {
    const { user, field, onLeave } = open(known);
    expect(field).toHaveProperty('value', 'R1 10k input base');
    expect(screen.queryByText(/replaces/)).toBeNull();
    await user.click(field);
    await user.keyboard('{Escape}');
    expect(onLeave).toHaveBeenCalledOnce();
  });
});
