// @vitest-environment happy-dom
import '../../testing/component.ts';
import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import type { Entry } from '../../api/act.ts';
import { applyEntry } from '../../api/pending.ts';
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
/** The unit as it is after what was entered last. */
const after = (unit: typeof blank, change: ReturnType<typeof showInUnit>['change']) =>
  applyEntry(unit, change.mock.calls.at(-1)![0] as Entry);

describe('sets of changes', () => {
  it('get letters, and a new one is active', async () => {
    const { change } = showInUnit(blank, <SetsBar />);
    await userEvent.click(screen.getByText('Weigh alternatives'));
    expect(after(blank, change).sets).toEqual([{ id: 'A', name: '', active: true }]);
  });

  it('are chosen by a press, none by another', async () => {
    const { change } = showInUnit(weighed, <SetsBar />);
    await userEvent.click(screen.getByText('B'));
    expect(after(weighed, change).sets).toEqual([
      { id: 'A', name: 'Gentle', active: false },
      { id: 'B', active: true },
    ]);
    await userEvent.click(screen.getByText('A Gentle'));
    expect(after(weighed, change).sets).toEqual([
      { id: 'A', name: 'Gentle', active: false },
      { id: 'B', active: false },
    ]);
  });

  it('are copied with what is planned in them', async () => {
    const { change } = showInUnit(weighed, <SetsBar />);
    await userEvent.click(screen.getByLabelText('Copy set A'));
    expect(change).toHaveBeenCalledOnce();
    const { sets, changes } = after(weighed, change);
    const copy = changes.at(-1)!;
    expect(copy.change).toMatchObject({ set: 'C', id: copy.id });
    expect(copy.id).not.toBe(idOf(1));
    expect(sets.map((s) => [s.id, s.active])).toEqual([
      ['A', false],
      ['B', false],
      ['C', true],
    ]);
  });

  it('are dropped with their plans first, and not where something in them is done', async () => {
    const { change, unmount } = showInUnit(weighed, <SetsBar />);
    await userEvent.click(screen.getByLabelText('Drop set A'));
    expect(change).toHaveBeenCalledOnce();
    const dropped = after(weighed, change);
    expect(dropped.changes.map((c) => c.change.state)).toEqual(['dropped', 'planned']);
    expect(dropped.sets).toEqual([{ id: 'B' }]);
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
    expect(after(blank, change).settings).toEqual([
      { id: 'all-off', name: 'All off', controls: { P1: 0.5, SW1: false } },
    ]);
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
