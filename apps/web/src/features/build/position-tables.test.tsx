// @vitest-environment happy-dom
import '../../testing/component.ts';
import { positionTable, type UnitDocument } from '@zemble/core';
import { screen, within } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import type { Positions } from '../../compute/use-positions.ts';
import { showInUnit, unitOf } from '../../testing/in-unit.tsx';
import { PositionTables } from './position-tables.tsx';

// The page has a worker for it; here the same function answers at once, and the slow readouts are still to come.
vi.mock('../../compute/use-positions.ts', () => ({
  usePositions: (document: UnitDocument): Positions => ({
    rows: positionTable(document),
    isWhole: false,
    why: null,
  }),
}));

const UNIT = unitOf({
  lines: ['V1 9V vcc 0', 'R1 10k vcc a', 'R2 5k a b', 'R3 5k b 0', 'SW1 b 0', 'P1 10k 0 w vcc'],
  readouts: [
    { id: 'a', name: 'At a', kind: 'voltage', net: 'a' },
    { id: 'w', name: 'Wiper', kind: 'voltage', net: 'w' },
    { id: 'p', name: 'Distortion', kind: 'thd', source: 'V1', out: 'a', levelV: 1, frequencyHz: 1000 },
  ],
});

describe('the tables of positions', () => {
  it('say what each position joins and what the unit does in it, and dim what does not move', () => {
    showInUnit(UNIT, <PositionTables />);
    const [sw, pot] = screen.getAllByRole('table');
    const row = (table: HTMLElement, name: string) =>
      within(table).getByRole('row', { name: new RegExp(`^${name}`) });
    expect(
      within(sw!)
        .getAllByRole('columnheader')
        .map((h) => h.textContent),
    ).toEqual(['SW1', 'open', 'closed']);
    expect(row(sw!, 'joins').textContent).toContain('a (b) with b (0)');
    // 9 V over 10k and 10k, and over 10k and 5k (voltage divider).
    expect(row(sw!, 'At a').textContent).toBe('At a4.5 V3 V');
    expect(row(sw!, 'At a').className).toBe('');
    expect(row(sw!, 'Wiper').className).toBe('zb-dim');
    expect(row(pot!, 'joins').textContent).toBe('joins2 (w) with 1 (0)nothing2 (w) with 3 (vcc)');
    expect(row(pot!, 'Wiper').textContent).toMatch(/4\.5 V/);
    expect(row(pot!, 'At a').className).toBe('zb-dim');
  });

  it('wait for what takes runs in time', () => {
    showInUnit(UNIT, <PositionTables />);
    const [first] = screen.getAllByRole('row', { name: /^Distortion/ });
    expect(first!.textContent).toBe('Distortion……');
  });
});
