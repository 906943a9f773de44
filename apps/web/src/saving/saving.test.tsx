// @vitest-environment happy-dom
import '../testing/component.ts';
import { render, screen } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import type { OutboxState } from '../api/outbox.ts';

const nothing: OutboxState = {
  pending: [],
  parked: [],
  ofOthers: [],
  unreadable: [],
  state: 'saved',
  conflict: null,
  notKept: null,
};
let state: OutboxState = nothing;
vi.mock('../api/outbox-context.tsx', () => ({ useOutboxState: () => state, useOutbox: () => ({}) }));
const { Saving } = await import('./saving.tsx');

const write = {
  key: 'k',
  unitId: '01890a5d-ac96-774b-bcce-b302099a8057',
  change: { type: 'undo' as const, sequence: 1 },
};

describe('whether it is saved', () => {
  it.each([
    [nothing, 'saved'],
    [{ ...nothing, state: 'saving' as const, pending: [write] }, 'saving'],
    [{ ...nothing, state: 'waiting' as const, pending: [write, write] }, 'kept here (2)'],
    [{ ...nothing, state: 'conflict' as const }, 'your choice'],
  ])('is one word in every state', (shown, words) => {
    state = shown;
    render(<Saving />);
    expect(screen.getByRole('status').textContent.trim()).toContain(words);
    expect(screen.getByRole('status').dataset.state).toBe(shown.state);
  });

  it('offers a look at what was refused, and warns where this browser keeps nothing', () => {
    state = { ...nothing, state: 'parked', parked: [write], notKept: 'The disk of this device is full.' };
    render(<Saving />);
    expect(screen.getByRole('button', { name: '1 refused' })).toBeTruthy();
    expect(screen.getByRole('alert').textContent).toContain('not kept here');
  });
});
