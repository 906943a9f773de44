// @vitest-environment happy-dom
import '../../testing/component.ts';
import type { UnitResource } from '@zemble/contract';
import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it, vi } from 'vitest';
import { idOf, showInUnit, unitOf } from '../../testing/in-unit.tsx';
import { LogStage } from './log-stage.tsx';

vi.mock('../circuit/index.ts', () => ({ CircuitPanel: () => null }));
vi.mock('../../unit/use-undo.ts', () => ({
  useUndoable: ({ log }: UnitResource) => log.find((entry) => !entry.undone),
}));

const entry = (n: number, values: Partial<UnitResource['log'][number]>): UnitResource['log'][number] => ({
  id: idOf(500 + n),
  sequence: n,
  kind: 'reading',
  summary: `R${n} measured.`,
  at: '2026-01-01T10:00:00.000Z',
  by: null,
  undone: false,
  undoable: true,
  ...values,
});
const open = (log: UnitResource['log']) =>
  showInUnit({ ...unitOf({ lines: ['R1 1k a 0'] }), log }, <LogStage />);

describe('the log', () => {
  it('tells what was done, by whom, and what was taken back', () => {
    open([entry(2, { by: 'Maren' }), entry(1, { undone: true })]);
    const [second, first] = screen.getAllByRole('listitem');
    expect(second!.textContent).toContain('R2 measured. Maren');
    expect(first!.textContent).toContain('R1 measured. (taken back)');
  });

  it('keeps a note with Enter, a line break with Shift, and nothing that is empty', async () => {
    const { change } = open([]);
    const field = screen.getByLabelText('Note');
    await userEvent.type(field, '   {Enter}');
    expect(change).not.toHaveBeenCalled();
    await userEvent.clear(field);
    await userEvent.type(field, ' Hums{Shift>}{Enter}{/Shift}when warm. {Enter}');
    expect(change).toHaveBeenCalledExactlyOnceWith({
      type: 'add-note',
      id: expect.any(String) as string,
      text: 'Hums\nwhen warm.',
    });
    expect(field).toHaveProperty('value', '');
  });

  it('takes the last step back', async () => {
    const { change } = open([entry(3, { undone: true }), entry(2, {})]);
    await userEvent.click(screen.getByRole('button', { name: /Take back the last step/ }));
    expect(change).toHaveBeenCalledExactlyOnceWith({ type: 'undo', sequence: 2 });
  });
});
