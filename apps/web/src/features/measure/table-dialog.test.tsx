// @vitest-environment happy-dom
import '../../testing/component.ts';
import { fireEvent, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it, vi } from 'vitest';
import type { Entry } from '../../api/act.ts';
import { idOf, showInUnit, unitOf } from '../../testing/in-unit.tsx';
import { TableDialog } from './table-dialog.tsx';

const unit = unitOf({ lines: ['R1 10k a 0', 'C1 22u polarised a b'] });
const open = () => {
  const onClose = vi.fn();
  return { onClose, ...showInUnit(unit, <TableDialog onClose={onClose} />) };
};
const paste = (text: string) =>
  fireEvent.change(screen.getByLabelText('Table of readings'), { target: { value: text } });

describe('readings from a table', () => {
  it('says how many it takes and which lines it leaves out, and takes them in once', async () => {
    const { change, onClose } = open();
    paste('R1;10,2k;;in circuit\nX9;5k\nC1;3,9u');
    expect(screen.getByText(/2 readings can be taken in/)).toBeTruthy();
    expect(screen.getByText(/there is no part "X9"/)).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Take in 2 readings' }));
    expect(change).toHaveBeenCalledOnce();
    const { acts } = change.mock.calls[0]![0] as Extract<Entry, { type: 'batch' }>;
    expect(acts).toMatchObject([
      { type: 'add-reading', partId: idOf(100), seen: 2, value: 10_200, condition: 'in circuit' },
      { type: 'add-reading', partId: idOf(101), seen: 2, value: 3.9e-6, condition: 'leg lifted' },
    ]);
    const ids = acts.map((act) => (act as { id: string }).id);
    expect(new Set(ids).size).toBe(2);
    expect(onClose).toHaveBeenCalledOnce();
  });

  it('takes nothing from a table that says nothing', () => {
    const { change } = open();
    paste('nothing;here');
    expect(screen.getByRole('button', { name: 'Take in 0 readings' })).toHaveProperty('disabled', true);
    expect(change).not.toHaveBeenCalled();
  });

  it('reads a file as spreadsheets write it', async () => {
    open();
    const text = 'part;value\nR1;10,2k\n';
    const utf16 = Uint8Array.from([0xff, 0xfe, ...[...text].flatMap((c) => [c.charCodeAt(0), 0])]);
    await userEvent.upload(
      screen.getByLabelText(/From a file/),
      new File([utf16], 'table.csv', { type: 'text/csv' }),
    );
    expect(await screen.findByText(/1 readings can be taken in/)).toBeTruthy();
  });
});
