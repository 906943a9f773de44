// @vitest-environment happy-dom
import '../../testing/component.ts';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { MemoryRouter, useLocation } from 'react-router';
import { beforeEach, describe, expect, it, vi } from 'vitest';

const add = vi.fn();
vi.mock('../../api/outbox-context.tsx', () => ({ useOutbox: () => ({ add }) }));
const { NewUnitDialog } = await import('./new-unit-dialog.tsx');

function Where() {
  return <p data-testid="where">{useLocation().pathname}</p>;
}
const open = () => {
  const onClose = vi.fn();
  render(
    <MemoryRouter>
      <NewUnitDialog why="new" onClose={onClose} />
      <Where />
    </MemoryRouter>,
  );
  return { onClose, user: userEvent.setup() };
};
beforeEach(() => add.mockClear());

describe('a new unit', () => {
  it('needs a name only, is put on the bench with Enter, and is opened under the id that it was given here', async () => {
    const { user, onClose } = open();
    await user.type(screen.getByLabelText('Name'), '  Hum box {Enter}');
    await vi.waitFor(() => expect(add).toHaveBeenCalledOnce());
    const [id, change] = add.mock.calls[0]! as [string, unknown];
    expect(change).toMatchObject({
      type: 'create-unit',
      values: { name: 'Hum box', kind: '', hazards: [], notes: '', hazardNotes: '' },
    });
    await vi.waitFor(() => expect(screen.getByTestId('where').textContent).toBe(`/units/${id}/trace`));
    expect(onClose).toHaveBeenCalledOnce();
  });

  it('takes the complaint to where Intake shows it', async () => {
    const { user } = open();
    await user.type(screen.getByLabelText('Complaint, in the owner’s words'), 'hums, no speech');
    await user.type(screen.getByLabelText('Name'), 'Hum box{Enter}');
    await vi.waitFor(() => expect(add).toHaveBeenCalledOnce());
    expect((add.mock.calls[0] as unknown[])[1]).toMatchObject({
      values: { notes: '', intake: { words: 'hums, no speech' } },
    });
  });

  it('says that a name is missing, and makes nothing', async () => {
    const { user, onClose } = open();
    await user.type(screen.getByLabelText('Name'), '   {Enter}');
    expect(await screen.findByText('A unit needs a name.')).toBeTruthy();
    expect(add).not.toHaveBeenCalled();
    expect(onClose).not.toHaveBeenCalled();
  });
});
