// @vitest-environment happy-dom
import '../testing/component.ts';
import type { Edit, UnitList, UnitResource } from '@zemble/contract';
import { act, render, screen } from '@testing-library/react';
import { useEffect } from 'react';
import { SWRConfig, useSWRConfig } from 'swr';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { idOf, unitOf } from '../testing/in-unit.tsx';
import type { Write } from './act.ts';

let pending: readonly Write[] = [];
vi.mock('./outbox-context.tsx', () => ({ useOutboxState: () => ({ pending }) }));
const { useUnit } = await import('./use-unit.ts');
const { useUnits } = await import('./use-units.ts');
const { applyNews } = await import('./unit-news.ts');

const ID = idOf(0);
const lines = ['R1 10k a 0'];
/** What the server has; null where there is no such unit yet. */
let onServer: UnitResource | null;
let fetches: number;
/** The units that the server lists. */
let list: UnitList;
const places = { bench: 0, away: 0, deleted: 0 };
beforeEach(() => {
  pending = [];
  fetches = 0;
  onServer = null;
  list = { units: [], total: 0, places };
  vi.stubGlobal('fetch', (url: string) => {
    if (url.startsWith('/api/v1/units?')) return Promise.resolve(new Response(JSON.stringify(list)));
    fetches += 1;
    const missing = {
      type: 'about:blank',
      title: 'Not found',
      status: 404,
      code: 'not-found',
      detail: 'None.',
    };
    return Promise.resolve(
      new Response(JSON.stringify(onServer ?? missing), { status: onServer ? 200 : 404 }),
    );
  });
});
afterEach(() => vi.unstubAllGlobals());

const create: Write = {
  key: 'k1',
  unitId: ID,
  change: {
    type: 'create-unit',
    at: '2026-01-01T00:00:00.000Z',
    values: { name: 'From the attic', kind: '', hazards: [], notes: '', hazardNotes: '', intake: {} },
  },
};
const add: Write = {
  key: 'k2',
  unitId: ID,
  change: {
    type: 'add-part',
    id: idOf(100),
    part: { ref: 'R1', kind: 'resistor', pins: { a: 'x', b: '0' } },
  },
};

let swr: ReturnType<typeof useSWRConfig>;
function Shown() {
  const config = useSWRConfig();
  useEffect(() => {
    swr = config;
  });
  const { unit } = useUnit(ID);
  const { units } = useUnits();
  return (
    <>
      <p data-testid="unit">
        {unit
          ? `${unit.name} #${unit.number} at ${unit.sequence}: ${unit.parts.map((p) => p.part.ref).join(' ')}`
          : ''}
      </p>
      <p data-testid="list">{(units ?? []).map((u) => `${u.name} #${u.number}`).join(', ')}</p>
    </>
  );
}
const tree = () => (
  <SWRConfig value={{ provider: () => cache, shouldRetryOnError: false, dedupingInterval: 0 }}>
    <Shown />
  </SWRConfig>
);
let cache = new Map();
const open = () => {
  cache = new Map();
  return render(tree());
};
const text = (id: string) => screen.getByTestId(id).textContent;

describe('a unit that the server has not seen', () => {
  it('is there with its parts, and in the list, and is the server’s once it has come', async () => {
    pending = [create, add];
    const { rerender } = open();
    expect(text('unit')).toBe('From the attic #0 at 0: R1');
    await vi.waitFor(() => expect(text('list')).toBe('From the attic #0'));
    // The server takes both; the page is told, and fetches what it did not know.
    onServer = { ...unitOf({ lines }), name: 'From the attic', sequence: 2 };
    pending = [];
    const edit: Edit = { unitId: ID, sequence: 2, key: 'k2', effects: [] };
    const told = [swr.mutate(['unit', ID]), applyNews(swr, { unitId: ID, edits: [edit] })];
    rerender(tree());
    // In between, what was made here stays on the screen.
    expect(text('unit')).toContain('From the attic');
    await act(() => Promise.all(told));
    await vi.waitFor(() => expect(text('unit')).toBe('From the attic #7 at 2: R1'));
  });
});

describe('news of a unit', () => {
  const edit = (sequence: number, name: string): Edit => ({
    unitId: ID,
    sequence,
    key: null,
    effects: [{ of: 'unit', value: { name } }],
  });

  it('brings it on without a fetch, and has it fetched where some of it is missing', async () => {
    onServer = unitOf({ lines });
    open();
    await vi.waitFor(() => expect(text('unit')).toBe('Bench amplifier #7 at 1: R1'));
    expect(fetches).toBe(1);
    await act(() => applyNews(swr, { unitId: ID, edits: [edit(2, 'Second'), edit(3, 'Third')] }));
    expect(text('unit')).toBe('Third #7 at 3: R1');
    expect(fetches).toBe(1);
    // What is known already changes nothing, nor is it fetched.
    await act(() => applyNews(swr, { unitId: ID, edits: [edit(2, 'Second')] }));
    expect(text('unit')).toBe('Third #7 at 3: R1');
    expect(fetches).toBe(1);
    onServer = { ...onServer, name: 'Ninth', sequence: 9 };
    await act(() => applyNews(swr, { unitId: ID, edits: [edit(9, 'Ninth')] }));
    await vi.waitFor(() => expect(text('unit')).toBe('Ninth #7 at 9: R1'));
    expect(fetches).toBe(2);
  });
});

describe('a unit that is put elsewhere here', () => {
  function Lists() {
    const [bench, away] = [useUnits({ place: 'bench' }), useUnits({ place: 'away' })];
    return (
      <>
        {Object.entries({ bench, away }).map(([place, { units, total, places: counts }]) => (
          <p key={place} data-testid={place}>
            {(units ?? []).map((u) => u.name).join(' ')} of {total}, {counts.bench} and {counts.away}
          </p>
        ))}
      </>
    );
  }

  it('is in the list of where it is put, before the server has it', async () => {
    const { parts: _parts, ...unit } = unitOf({ lines });
    const heron = { ...unit, id: ID, number: 3, name: 'Heron', partCount: 1, measuredCount: 0 };
    const there = (units: object[]) => ({ units, total: units.length, places: { ...places, bench: 1 } });
    vi.stubGlobal('fetch', (url: string) =>
      Promise.resolve(new Response(JSON.stringify(there(url.includes('bench') ? [heron] : [])))),
    );
    cache = new Map();
    const page = () => (
      <SWRConfig value={{ provider: () => cache, dedupingInterval: 0 }}>
        <Lists />
      </SWRConfig>
    );
    const { rerender } = render(page());
    await vi.waitFor(() => expect(text('bench')).toBe('Heron of 1, 1 and 0'));
    await vi.waitFor(() => expect(text('away')).toBe(' of 0, 1 and 0'));
    const put = { type: 'update-unit', seen: {}, values: { place: 'away' } } as const;
    pending = [{ key: 'k3', unitId: ID, change: put }];
    rerender(page());
    expect(text('bench')).toBe(' of 0, 0 and 1');
    expect(text('away')).toBe('Heron of 1, 0 and 1');
  });

  it('is looked for in what is known, as long as the server has not answered', async () => {
    const { parts: _parts, ...unit } = unitOf({ lines });
    const named = (name: string, number: number) => ({
      ...{ ...unit, id: idOf(number), number, name },
      ...{ partCount: 1, measuredCount: 0 },
    });
    const answer = { units: [named('Heron', 3), named('Lark', 14)], total: 2, places };
    vi.stubGlobal('fetch', (url: string) =>
      url.includes('find=')
        ? Promise.reject(new TypeError('away'))
        : Promise.resolve(new Response(JSON.stringify(answer))),
    );
    function Found({ find }: { readonly find: string }) {
      return <p data-testid="found">{(useUnits({ find }).units ?? []).map((u) => u.name).join(' ')}</p>;
    }
    cache = new Map();
    const page = (find: string) => (
      <SWRConfig value={{ provider: () => cache, dedupingInterval: 0, shouldRetryOnError: false }}>
        <Found find={find} />
      </SWRConfig>
    );
    const { rerender } = render(page(''));
    await vi.waitFor(() => expect(text('found')).toBe('Heron Lark'));
    rerender(page('LAR'));
    expect(text('found')).toBe('Lark');
    rerender(page('#3'));
    expect(text('found')).toBe('Heron');
    rerender(page('__proto__'));
    expect(text('found')).toBe('');
  });
});
