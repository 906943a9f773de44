// @vitest-environment happy-dom
import '../../testing/component.ts';
import type { SolveRequest } from '@zemble/core';
import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { idOf, showInUnit, unitOf } from '../../testing/in-unit.tsx';
import { GoalForm } from './goal-form.tsx';

const stock = vi.hoisted(() => ({ items: [] as object[] }));
vi.mock('../drawer/index.ts', () => ({ useDrawer: () => ({ items: stock.items }) }));

const unit = unitOf({
  lines: ['V1 9V vcc 0', 'R1 10k vcc a', 'R2 10k a 0'],
  // R1 reads far from what is printed on it: it has to be touched anyway, and may change.
  readings: [{ partId: idOf(101), value: 20_000 }],
  readouts: [
    { id: 'a', name: 'At a', kind: 'voltage', net: 'a', want: { min: 4, max: 5 } },
    { id: 'i', name: 'Drawn', kind: 'current', part: 'R1', want: { max: 1e-3, wish: 2 } },
    { id: 'p', name: 'Heat', kind: 'dissipation', part: 'R1' },
  ],
});

function open() {
  const start = vi.fn();
  showInUnit(unit, <GoalForm search={{ state: { is: 'idle' }, start, cancel: vi.fn(), clear: vi.fn() }} />);
  return {
    user: userEvent.setup(),
    wanted: (nth: string) => screen.getByLabelText<HTMLInputElement>(`Wanted value${nth}`),
    asked: () => start.mock.calls.at(-1)?.[0] as SolveRequest | undefined,
  };
}
const findValues = () => screen.getByRole('button', { name: 'Find values' });
beforeEach(() => {
  stock.items = [];
});

describe('what should come out', () => {
  it('begins with the readout that is shown, as it is wanted', () => {
    const { wanted } = open();
    expect(wanted('').value).toBe('4 … 5 V');
    expect(screen.queryByLabelText('Wanted value 2')).toBeNull();
  });

  it('takes everything that is wanted at once, wishes as such, and asks for it', async () => {
    const { user, wanted, asked } = open();
    await user.click(screen.getByRole('button', { name: 'All 2 wanted' }));
    expect(wanted(' 2').value).toBe('< 1 mA, wished 2');
    await user.click(findValues());
    expect(asked()).toMatchObject({
      goals: [
        { readoutId: 'a', want: { min: 4, max: 5 } },
        { readoutId: 'i', want: { max: 1e-3, wish: 2 } },
      ],
      may: ['R1'],
      keep: [],
    });
  });

  it('is not looked for as long as one of several cannot be read, which is said', async () => {
    const { user, wanted } = open();
    await user.click(screen.getByRole('button', { name: 'All 2 wanted' }));
    await user.clear(wanted(' 2'));
    await user.type(wanted(' 2'), 'a lot');
    expect(screen.getByText(/"a lot" cannot be read/)).toBeTruthy();
    expect(findValues()).toHaveProperty('disabled', true);
    await user.click(screen.getByRole('button', { name: 'Leave out Drawn' }));
    expect(findValues()).toHaveProperty('disabled', false);
  });

  it('comes from the drawer where there is one and it is wanted', async () => {
    stock.items = [{ kind: 'resistor', value: 8200, count: 1, place: 'A1' }];
    const { user, asked } = open();
    await user.click(findValues());
    expect(asked()!.drawer).toEqual(stock.items);
    await user.click(screen.getByRole('checkbox', { name: 'from the drawer first' }));
    await user.click(findValues());
    expect(asked()!.drawer).toBeUndefined();
  });
});
