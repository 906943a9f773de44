// @vitest-environment happy-dom
import '../../testing/component.ts';
import type { StockRow } from '@zemble/contract';
import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it, vi } from 'vitest';
import { showInUnit, unitOf } from '../../testing/in-unit.tsx';
import { KitView } from './kit-view.tsx';

const row = (value: number, count: number, place: string): StockRow => ({
  id: `00000000-0000-4000-8000-${String(value).padStart(12, '0')}`,
  version: 0,
  kind: 'resistor',
  value,
  count,
  place,
});
vi.mock('../drawer/index.ts', () => ({ useDrawer: () => ({ items: [row(1000, 5, 'A3')] }) }));
vi.mock('../circuit/index.ts', () => ({ CircuitPanel: () => null }));

const UNIT = unitOf({
  lines: ['V1 9V vcc 0', 'R1 1k vcc a', 'R2 47k a 0', 'R3 1k a b', 'C1 1000u b 0 voltage=25', 'R4 1k b 0'],
});
const lines = () =>
  screen
    .getAllByRole('row')
    .slice(1)
    .map((r) =>
      within(r)
        .getAllByRole('cell')
        .slice(1)
        .map((c) => c.textContent),
    );
const line = (refs: string) => lines().find((cells) => cells[2] === refs)!;

describe('the parts list', () => {
  it('counts equal parts together, says where they lie, and what must be bought', () => {
    showInUnit(UNIT, <KitView tabs={null} />);
    const [count, , , from, buy] = line('R1 R3 R4');
    expect([count, from, buy]).toEqual(['3', '3 at A3', '']);
    expect(line('R2').slice(3)).toEqual(['', '1']);
    expect(screen.getByText(/parts as planned, \d+ to buy/)).toBeTruthy();
  });

  it('is picked in the order of height, which is the order of soldering', async () => {
    showInUnit(UNIT, <KitView tabs={null} />);
    await userEvent.click(screen.getByText('By height'));
    const refs = lines().map((cells) => cells[2]);
    // A resistor lies flatter than a can of a thousand microfarads.
    expect(refs.indexOf('R1 R3 R4')).toBeLessThan(refs.indexOf('C1'));
  });

  it('is ticked as it is picked', async () => {
    const { change } = showInUnit(UNIT, <KitView tabs={null} />);
    await userEvent.click(within(screen.getByRole('row', { name: /R1 R3 R4/ })).getByRole('checkbox'));
    expect(change).toHaveBeenCalledWith(
      expect.objectContaining({ type: 'tick-step', id: 'pick:R1+R3+R4', isDone: true }),
    );
  });

  it('is what the planned work needs, and the whole unit on request', async () => {
    showInUnit(
      unitOf({ lines: ['V1 9V vcc 0', 'R1 1k vcc a', 'R2 47k a 0'], planned: { R2: 1000 } }),
      <KitView tabs={null} />,
    );
    expect(lines().map((cells) => cells[2])).toEqual(['R2']);
    expect(screen.getByText(/1 parts for what is planned, all of them in the drawer/)).toBeTruthy();
    await userEvent.click(screen.getByText('The whole unit'));
    expect(lines().map((cells) => cells[2])).toEqual(['R1 R2']);
  });
});
