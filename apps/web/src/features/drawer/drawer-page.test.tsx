// @vitest-environment happy-dom
import '../../testing/component.ts';
import type { StockRow } from '@zemble/contract';
import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { NoticesProvider } from '../../ui/notices.tsx';
import { MemoryRouter } from 'react-router';
import { SWRConfig } from 'swr';
import { beforeEach, describe, expect, it, vi } from 'vitest';
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
interface Sent {
  readonly path: string;
  readonly body: {
    readonly items?: { readonly id: string; readonly value: number }[];
    readonly item?: { count: number };
  };
}
let sent: Sent[] = [];
/** What the server answers to a write; null where it cannot be reached. */
let answer: (() => { status: number; body: unknown }) | null = null;
const respond = (status: number, body: unknown) =>
  new Response(JSON.stringify(body), { status, headers: { 'content-type': 'application/json' } });

beforeEach(() => {
  sent = [];
  answer = () => ({ status: 200, body: { ok: true } });
  vi.stubGlobal('fetch', (url: string, init?: RequestInit) => {
    if (init?.method !== 'POST')
      return Promise.resolve(
        respond(
          200,
          url.endsWith('/needs') ? { needs: [], out: [] } : { items: [row(4700, 'A3'), row(10_000, 'A4')] },
        ),
      );
    sent.push({ path: url, body: JSON.parse(init.body as string) as Sent['body'] });
    if (!answer) return Promise.reject(new Error('offline'));
    const { status, body } = answer();
    return Promise.resolve(respond(status, body));
  });
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
  it('says that a line was not put in, keeps it, and sends it again as the same item', async () => {
    const { user, entry } = await open();
    answer = null;
    await user.type(entry, '1k x5 in B2{Enter}');
    expect(await screen.findByText(/^Not put in: .* Enter tries again\.$/)).toBeTruthy();
    expect((entry as HTMLInputElement).value).toBe('1k x5 in B2');
    answer = () => ({ status: 200, body: { ok: true } });
    await user.type(entry, '{Enter}');
    expect(await screen.findByText('5 of 1 kΩ, resistor, in B2 put in.')).toBeTruthy();
    const ids = sent.map((s) => s.body.items![0]!.id);
    expect(ids).toHaveLength(2);
    expect(ids[0]).toBe(ids[1]);
    // The next line is another item.
    await user.type(entry, '1k x5 in B2{Enter}');
    await screen.findByText('5 of 1 kΩ, resistor, in B2 put in.');
    expect(sent[2]!.body.items![0]!.id).not.toBe(ids[0]);
  });

  it('sends nothing that cannot be read', async () => {
    const { user, entry } = await open();
    await user.type(entry, 'banana{Enter}');
    expect(screen.getByText(/neither a value nor a type/)).toBeTruthy();
    expect(sent).toEqual([]);
  });

  it('is found by value and place', async () => {
    const { user } = await open();
    await user.type(screen.getByLabelText('Find in the drawer'), '4k7 a3');
    expect(screen.getByText('1 of 2 sorts')).toBeTruthy();
    expect(within(screen.getByRole('table')).getByText('4.7 kΩ')).toBeTruthy();
  });

  it('names what was typed where somebody else was there first', async () => {
    const { user } = await open();
    answer = () => ({
      status: 409,
      body: {
        type: 'about:blank',
        title: 'Changed meanwhile',
        status: 409,
        code: 'stale',
        detail: 'It was changed.',
      },
    });
    const count = screen.getByLabelText('Count of 4.7 kΩ in A3');
    await user.clear(count);
    await user.type(count, '9{Enter}');
    expect(await screen.findByText(/You typed 9 for 4\.7 kΩ in A3\./)).toBeTruthy();
    expect(sent[0]!.body.item!.count).toBe(9);
  });
});
