// @vitest-environment happy-dom
import '../testing/component.ts';
import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { Write } from '../api/act.ts';

const parked: Write = {
  key: 'key-1',
  unitId: '01890a5d-ac96-774b-bcce-b302099a8057',
  change: { type: 'add-note', id: '01890a5d-ac96-774b-bcce-b302099a8058', text: 'It hums at 100 Hz.' },
  refusal: {
    type: 'about:blank',
    title: 'Cannot be used',
    status: 422,
    code: 'invalid',
    detail: 'text: it holds the character NUL.',
    hint: 'Take that out and try again.',
  },
};
const outbox = { again: vi.fn(), discard: vi.fn() };
let state: { parked: readonly Write[]; ofOthers?: readonly Write[]; unreadable?: readonly string[] };
vi.mock('../api/outbox-context.tsx', () => ({
  useOutbox: () => outbox,
  useOutboxState: () => ({ ofOthers: [], unreadable: [], ...state }),
}));
const { ParkedDrawer } = await import('./parked-drawer.tsx');

beforeEach(() => {
  state = { parked: [parked] };
  vi.clearAllMocks();
});

describe('what the server would not take', () => {
  it('stands with what was typed, why, and what can be done', async () => {
    const user = userEvent.setup();
    const copied: string[] = [];
    Object.defineProperty(navigator, 'clipboard', {
      value: { writeText: (text: string) => Promise.resolve(void copied.push(text)) },
      configurable: true,
    });
    render(<ParkedDrawer isOpen onClose={() => undefined} />);
    const item = within(screen.getByRole('listitem'));
    expect(item.getByText('It hums at 100 Hz.')).toBeTruthy();
    expect(item.getByText('text: it holds the character NUL.')).toBeTruthy();
    expect(item.getByText('Take that out and try again.')).toBeTruthy();
    await user.click(item.getByRole('button', { name: 'Copy it' }));
    expect(copied).toEqual(['It hums at 100 Hz.']);
    await user.click(item.getByRole('button', { name: 'Send it again' }));
    expect(outbox.again.mock.calls).toEqual([['key-1']]);
    await user.click(item.getByRole('button', { name: 'Let it go' }));
    expect(outbox.discard.mock.calls).toEqual([['key-1']]);
  });

  it('is corrected in a field, and sent under what was there', async () => {
    const user = userEvent.setup();
    const part = {
      ref: 'R1',
      kind: 'resistor' as const,
      pins: { a: 'in', b: 'out' },
      marked: 4700,
      tolerance: 0.05,
    };
    state = {
      parked: [{ ...parked, change: { type: 'update-part', partId: parked.unitId, seen: 3, part } }],
    };
    render(<ParkedDrawer isOpen onClose={() => undefined} />);
    await user.click(screen.getByRole('button', { name: 'Correct it' }));
    const field = screen.getByLabelText('Corrected');
    await user.clear(field);
    await user.type(field, 'R2 4x7 in out{Enter}');
    expect(screen.getByRole('alert').textContent).toContain('4x7');
    expect(outbox.again).not.toHaveBeenCalled();
    await user.clear(field);
    await user.type(field, 'R2 5k6 in out{Enter}');
    expect(outbox.again.mock.calls).toMatchObject([
      ['key-1', { type: 'update-part', seen: 3, part: { ref: 'R2', marked: 5600, tolerance: 0.05 } }],
    ]);
  });

  it('has nothing to correct where nothing was typed', () => {
    const moved = { type: 'update-unit' as const, seen: {}, values: { nudges: { R1: { x: 1, y: 1 } } } };
    state = { parked: [{ ...parked, change: moved }] };
    render(<ParkedDrawer isOpen onClose={() => undefined} />);
    expect(screen.queryByRole('button', { name: 'Correct it' })).toBeNull();
    expect(screen.getByRole('button', { name: 'Let it go' })).toBeTruthy();
  });

  it('says so when there is none', () => {
    state = { parked: [] };
    render(<ParkedDrawer isOpen onClose={() => undefined} />);
    expect(screen.getByText('Everything that you entered was taken.')).toBeTruthy();
  });
});
