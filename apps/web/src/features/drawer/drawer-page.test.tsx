// @vitest-environment happy-dom
import '../../testing/component.ts';
import type { StockRow } from '@zemble/contract';
import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { NoticesProvider } from '../../ui/notices.tsx';
import { MemoryRouter } from 'react-router';
import { SWRConfig } from 'swr';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { isStockEntry, type StockEntry } from '../../api/drawer.ts';
import { applyStock } from '../../api/stock.ts';
import type { Entry, Write } from '../../api/act.ts';
import { DrawerPage } from './drawer-page.tsx';

// The top bar tells of the whole application, which is not here.
vi.mock('../../ui/workshop-top.tsx', () => ({ WorkshopTop: () => null }));

const row = (value: number, place: string): StockRow => ({
  id: `00000000-0000-4000-8000-${String(value).padStart(12, '0')}`,
  version: 0,
  kind: 'resistor',
  value,
  count: 3,
  place,
});
/** What is on its way: nothing here is ever acknowledged. */
let pending: Write[] = [];
vi.mock('../../api/outbox-context.tsx', async () => {
  const { useReducer } = await import('react');
  return {
    useOutboxState: () => ({ pending }),
    useWorkshopChange() {
      const [, show] = useReducer((n: number) => n + 1, 0);
      return (change: StockEntry) => {
        pending = [...pending, { key: `${pending.length}`, unitId: 'drawer', change }];
        show();
      };
    },
  };
});
const entered = (): Entry[] => pending.map(({ change }) => change);
const out = {
  unitId: row(1, '').id,
  unitName: 'Drover',
  changeId: 'two',
  changeName: 'Two',
  ref: 'R4',
  kind: 'resistor' as const,
  value: 1000,
};

beforeEach(() => {
  pending = [];
  vi.stubGlobal('fetch', (url: string) =>
    Promise.resolve(
      new Response(
        JSON.stringify(
          url.endsWith('/needs')
            ? { needs: [], out: [out] }
            : { items: [row(4700, 'A3'), row(10_000, 'A4')] },
        ),
      ),
    ),
  );
});

async function open() {
  render(
    <SWRConfig value={{ provider: () => new Map() }}>
      <MemoryRouter>
        <NoticesProvider>
          <DrawerPage />
        </NoticesProvider>
      </MemoryRouter>
    </SWRConfig>,
  );
  await screen.findByText('2 sorts');
  return { user: userEvent.setup(), entry: screen.getByLabelText('Put in') };
}

describe('the drawer', () => {
  it('puts a line in at once, each line an item of its own, and clears the field', async () => {
    const { user, entry } = await open();
    await user.type(entry, '1k x5 in B2{Enter}');
    expect(screen.getByText('5 of 1 kΩ, resistor, in B2 put in.')).toBeTruthy();
    expect((entry as HTMLInputElement).value).toBe('');
    await user.type(entry, '1k x5 in B2{Enter}');
    const ids = entered().map((e) => e.type === 'add-stock' && e.items[0]!.id);
    expect(new Set(ids).size).toBe(2);
  });

  it('sends nothing that cannot be read', async () => {
    const { user, entry } = await open();
    await user.type(entry, 'banana{Enter}');
    expect(screen.getByText(/neither a value nor a type/)).toBeTruthy();
    expect(entered()).toEqual([]);
  });

  it('is found by value and place', async () => {
    const { user } = await open();
    await user.type(screen.getByLabelText('Find in the drawer'), '4k7 a3');
    expect(screen.getByText('1 of 2 sorts')).toBeTruthy();
    expect(within(screen.getByRole('table')).getByText('4.7 kΩ')).toBeTruthy();
  });

  it('changes count and place where they stand, on top of what was seen', async () => {
    const { user } = await open();
    const count = screen.getByLabelText('Count of 4.7 kΩ in A3');
    await user.clear(count);
    await user.type(count, '9{Enter}');
    expect(entered()).toEqual([
      {
        type: 'change-stock',
        id: row(4700, 'A3').id,
        seen: 0,
        item: { kind: 'resistor', value: 4700, count: 9, place: 'A3' },
      },
    ]);
  });

  it('keeps what came out, or says that it went', async () => {
    const { user } = await open();
    await user.type(await screen.findByLabelText('Place for R4 of Drover'), 'C1{Enter}');
    const [kept] = entered();
    expect(kept).toMatchObject({ type: 'put-out', ref: 'R4', item: { value: 1000, count: 1, place: 'C1' } });
  });
});

describe('the drawer with what is on its way', () => {
  const rows = [row(4700, 'A3'), row(10_000, 'A4')];
  const item = { kind: 'resistor', value: 4700, count: 2, place: 'A3' } as const;
  const id = row(99, '').id;

  it('counts up what is there in the same place, and lists what is not', () => {
    const entry: StockEntry = {
      type: 'add-stock',
      items: [
        { ...item, id },
        { ...item, id, place: 'Z9' },
      ],
    };
    const after = applyStock(rows, entry);
    expect(after.map((r) => `${r.count} in ${r.place}`)).toEqual(['5 in A3', '3 in A4', '2 in Z9']);
  });

  it('sets the next change on top of the one before', () => {
    const once: StockEntry = { type: 'change-stock', id: rows[0]!.id, seen: 0, item: { ...item, count: 7 } };
    const after = applyStock(rows, once);
    expect(after[0]).toMatchObject({ count: 7, version: 1 });
    // What the server has meanwhile is newer, and stays.
    expect(applyStock([{ ...rows[0]!, version: 4 }], once)[0]).toMatchObject({ count: 3, version: 4 });
    const gone = applyStock(after, { type: 'remove-stock', id: rows[0]!.id, seen: 1, item });
    expect(gone.map((r) => r.place)).toEqual(['A4']);
  });

  it('tells its entries from those of a unit', () => {
    expect(isStockEntry({ type: 'add-stock' })).toBe(true);
    expect(isStockEntry({ type: 'add-part' })).toBe(false);
  });
});
