// @vitest-environment happy-dom
import '../testing/component.ts';
import { act, fireEvent, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { MemoryRouter, useLocation } from 'react-router';
import { describe, expect, it, vi } from 'vitest';
import { showInUnit, unitOf } from '../testing/in-unit.tsx';
import { LayerProvider, useLayer } from '../unit/layer.tsx';
import { useSelection } from '../unit/selection.tsx';
import { onHelpOpen } from '../ui/help-state.ts';
import { openPalette } from './palette-state.ts';

const other = {
  ...unitOf({ lines: [] }),
  id: '01890a5d-ac96-774b-bcce-b302099a8057',
  name: 'Spring reverb',
  number: 9,
};
vi.mock('../api/use-units.ts', () => ({
  useUnits: () => ({ units: [{ ...other, partCount: 0, measuredCount: 0 }] }),
}));
vi.mock('../api/outbox-context.tsx', () => ({
  useOutboxState: () => ({
    pending: [],
    parked: [],
    ofOthers: [],
    unreadable: [],
    state: 'saved',
    conflict: null,
    notKept: null,
  }),
}));
const { Palette, UnitPalette } = await import('./palette.tsx');
const { TopBar } = await import('./top-bar.tsx');

function Where() {
  const { selectedRef } = useSelection();
  const { layer } = useLayer();
  return <p data-testid="where">{`${useLocation().pathname} ${selectedRef ?? '-'} ${layer}`}</p>;
}
const open = () => {
  showInUnit(
    unitOf({ lines: ['R1 10k a 0', 'C12 100n a 0'] }),
    <LayerProvider>
      <TopBar />
      <UnitPalette />
      <Where />
    </LayerProvider>,
  );
  return userEvent.setup();
};
const where = () => screen.getByTestId('where').textContent;
const field = () => screen.findByRole('combobox', { name: 'Go to anything' });

describe('go to anything', () => {
  it('opens by Ctrl K, finds by any words, and goes with Enter', async () => {
    const user = open();
    fireEvent.keyDown(window, { key: 'k', ctrlKey: true });
    await user.type(await field(), 'part c12');
    expect(screen.getAllByRole('option').map((o) => o.textContent)).toEqual(['Part: C12 (capacitor)']);
    await user.keyboard('{Enter}');
    expect(where()).toContain('C12');
  });

  it('is walked by arrows, round and round, and says where it stands', async () => {
    const user = open();
    act(() => openPalette());
    const box = await field();
    await user.type(box, 'stage');
    const chosen = () =>
      screen.getAllByRole('option').find((o) => o.getAttribute('aria-selected') === 'true')!;
    expect(chosen().textContent).toBe('Stage: Intake');
    await user.keyboard('{ArrowUp}');
    expect(chosen().textContent).toBe('Stage: Log');
    await user.keyboard('{ArrowDown}{ArrowDown}');
    expect(chosen().textContent).toBe('Stage: Trace');
    expect(box.getAttribute('aria-activedescendant')).toBe(chosen().id);
    await user.keyboard('{Enter}');
    expect(where()).toMatch(/\/trace /);
  });

  it('goes to another unit, in the stage that it is in, and does nothing for what is not there', async () => {
    const user = open();
    act(() => openPalette());
    await user.type(await field(), 'nothing like it');
    expect(screen.getByText('Nothing is called so here.')).toBeTruthy();
    await user.keyboard('{Enter}');
    await user.clear(await field());
    await user.type(await field(), 'spring');
    await user.click(screen.getByRole('option', { name: 'Unit: Spring reverb #9' }));
    expect(where()).toContain(`/units/${other.id}/trace`);
  });

  it('goes to a stage by Alt and its digit, whatever sign the layout gives', () => {
    open();
    fireEvent.keyDown(window, { key: '¡', code: 'Digit3', altKey: true });
    expect(where()).toMatch(/\/find /);
  });
});

describe('the layer shown', () => {
  it('is one stop of the keyboard, and chosen by arrows', async () => {
    const user = open();
    const radio = (name: string) => screen.getByRole('radio', { name });
    expect(radio('found').tabIndex).toBe(0);
    expect(radio('marked').tabIndex).toBe(-1);
    radio('found').focus();
    await user.keyboard('{ArrowRight}');
    expect(where()).toContain('planned');
    expect(document.activeElement).toBe(radio('planned'));
    await user.keyboard('{ArrowLeft}{ArrowLeft}{ArrowLeft}');
    expect(where()).toContain('proven');
    expect(radio('proven').getAttribute('aria-checked')).toBe('true');
  });

  it('is there without a unit, and finds help and the words of the trade', async () => {
    const told = vi.fn();
    const stop = onHelpOpen(told);
    const user = userEvent.setup();
    render(
      <MemoryRouter>
        <Palette />
      </MemoryRouter>,
    );
    fireEvent.keyDown(window, { key: 'k', ctrlKey: true });
    await user.type(await field(), 'spring');
    expect(screen.getAllByRole('option').map((o) => o.textContent)).toEqual(['Unit: Spring reverb #9']);
    await user.clear(await field());
    await user.type(await field(), 'what leg lifted{Enter}');
    expect(told).toHaveBeenCalledWith('leg lifted');
    stop();
  });
});
