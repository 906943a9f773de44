// @vitest-environment happy-dom
import '../../testing/component.ts';
import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import { idOf, showInUnit, unitOf } from '../../testing/in-unit.tsx';
import { ControlsPanel } from './controls-panel.tsx';
import { SetsBar } from './sets-bar.tsx';

const blank = unitOf({ lines: ['V1 9V vcc 0', 'P1 10k vcc w 0', 'SW1 w out', 'R1 1k out 0'] });
const inSet = (id: string, set: string, state: 'planned' | 'done' = 'planned') => ({
  id,
  version: 1,
  position: 0,
  change: {
    id,
    name: id,
    purpose: 'repair' as const,
    state,
    set,
    steps: [{ do: 'remove' as const, ref: 'R1' }],
  },
});
const weighed = {
  ...blank,
  sets: [{ id: 'A', name: 'Gentle', active: true }, { id: 'B' }],
  changes: [inSet(idOf(1), 'A'), inSet(idOf(2), 'B')],
};
const types = (change: ReturnType<typeof showInUnit>['change']) =>
  change.mock.calls.map(([told]) => (told as { type: string }).type);

describe('sets of changes', () => {
  it('get letters, and a new one is active', async () => {
    const { change } = showInUnit(blank, <SetsBar />);
    await userEvent.click(screen.getByText('Weigh alternatives'));
    expect(change).toHaveBeenCalledWith({
      type: 'update-unit',
      seen: { sets: 0 },
      values: { sets: [{ id: 'A', name: '', active: true }] },
    });
  });

  it('are chosen by a press, none by another', async () => {
    const { change } = showInUnit(weighed, <SetsBar />);
    await userEvent.click(screen.getByText('B'));
    expect(change).toHaveBeenLastCalledWith(
      expect.objectContaining({
        values: {
          sets: [
            { id: 'A', name: 'Gentle', active: false },
            { id: 'B', active: true },
          ],
        },
      }),
    );
    await userEvent.click(screen.getByText('A Gentle'));
    expect(change).toHaveBeenLastCalledWith(
      expect.objectContaining({
        values: {
          sets: [
            { id: 'A', name: 'Gentle', active: false },
            { id: 'B', active: false },
          ],
        },
      }),
    );
  });

  it('are copied with what is planned in them', async () => {
    const { change } = showInUnit(weighed, <SetsBar />);
    await userEvent.click(screen.getByLabelText('Copy set A'));
    expect(types(change)).toEqual(['update-unit', 'add-change']);
    const [, copy] = change.mock.calls.map(
      ([told]) => told as { id: string; change: { set: string; id: string } },
    );
    expect(copy!.change).toMatchObject({ set: 'C', id: copy!.id });
    expect(copy!.id).not.toBe(idOf(1));
  });

  it('are dropped with their plans first, and not where something in them is done', async () => {
    const { change, unmount } = showInUnit(weighed, <SetsBar />);
    await userEvent.click(screen.getByLabelText('Drop set A'));
    expect(types(change)).toEqual(['update-change', 'update-unit']);
    expect(change.mock.calls[0]![0]).toMatchObject({ changeId: idOf(1), change: { state: 'dropped' } });
    expect(change.mock.calls[1]![0]).toMatchObject({ values: { sets: [{ id: 'B' }] } });
    unmount();
    showInUnit({ ...weighed, changes: [inSet(idOf(1), 'A', 'done')] }, <SetsBar />);
    expect(screen.queryByLabelText('Drop set A')).toBeNull();
  });
});

describe('controls', () => {
  it('turn without being written down, and are kept as a setting under a name', async () => {
    const { change } = showInUnit(blank, <ControlsPanel />);
    expect(screen.getByText('as drawn')).toBeTruthy();
    await userEvent.click(screen.getByRole('switch', { name: 'SW1 closed' }));
    expect(screen.getByText('open')).toBeTruthy();
    expect(change).not.toHaveBeenCalled();
    await userEvent.click(screen.getByText('Keep as a setting'));
    await userEvent.type(screen.getByLabelText('Name of the setting'), 'All off{Enter}');
    expect(change).toHaveBeenCalledWith({
      type: 'update-unit',
      seen: { settings: 0 },
      values: { settings: [{ id: 'all-off', name: 'All off', controls: { P1: 0.5, SW1: false } }] },
    });
    await userEvent.click(screen.getByText('As drawn'));
    expect(screen.getByText('closed')).toBeTruthy();
  });

  it('stand where a stored setting has them', async () => {
    const settings = [{ id: 'full', name: 'Full', controls: { P1: 1, SW1: true } }];
    showInUnit({ ...blank, settings }, <ControlsPanel />);
    await userEvent.click(screen.getByText('Full'));
    expect(screen.getByText('100 %')).toBeTruthy();
  });
});
