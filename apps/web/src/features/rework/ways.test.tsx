// @vitest-environment happy-dom
import '../../testing/component.ts';
import { act, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useMemo } from 'react';
import { describe, expect, it, vi } from 'vitest';
import type { useWay, useWays, wayOf } from '../../compute/use-ways.ts';
import { wayAt, waysAt, type WayRequest } from '../../compute/ways.ts';
import { showInUnit, unitOf } from '../../testing/in-unit.tsx';
import { useSelection, type Selection } from '../../unit/selection.tsx';
import { Ways } from './ways.tsx';

// The page has a worker for it; here the same functions answer at once.
vi.mock('../../compute/use-ways.ts', () => ({
  useWays: (...[circuit, ref, net]: Parameters<typeof useWays>): ReturnType<typeof useWays> => {
    const of = useMemo(() => ({ circuit, chosen: { ref, net } }), [circuit, ref, net]);
    return {
      made: { of, answer: ref === null && net === null ? [] : waysAt(of) },
      isCurrent: true,
      why: null,
    };
  },
  useWay: (request: WayRequest): ReturnType<typeof useWay> => ({
    made: { of: request, answer: wayAt(request) },
    isCurrent: true,
    why: null,
  }),
  wayOf: (request: WayRequest): ReturnType<typeof wayOf> => Promise.resolve(wayAt(request)),
}));
vi.mock('../../api/use-mains.ts', () => ({ useMains: () => ({ mainsHz: 50, isUnsaid: false }) }));
vi.mock('../drawer/index.ts', () => ({ useDrawer: () => ({ items: [] }) }));

const TIMER = [
  'V1 9V vcc 0',
  'TM1 kind=timer555 gnd=0 trig=c out=out reset=vcc ctrl=v thr=c dis=d vcc=vcc',
  'R1 10k vcc d',
  'R2 10k d c',
  'C1 100n c 0',
  'C2 10n v 0',
  'R3 10k out 0',
];

interface Told {
  readonly type: string;
  readonly change: {
    readonly name: string;
    readonly purpose: string;
    readonly state: string;
    readonly steps: { do: string }[];
  };
}

function open(
  lines = ['V1 9V vcc 0', 'G1 10mV in 0', 'C1 100n in b', 'R1 100k b 0', 'R2 1k vcc out', 'R3 1k out 0'],
) {
  let selection: Selection;
  function Chosen() {
    selection = useSelection();
    return <Ways />;
  }
  const unit = unitOf({ lines });
  const { change } = showInUnit(unit, <Chosen />);
  return {
    user: userEvent.setup(),
    choose: (ref: string | null, net: string | null = null) =>
      act(() => {
        selection.selectRef(ref);
        selection.selectNet(net);
      }),
    told: () => change.mock.calls.map(([edit]) => edit as Told),
  };
}
const status = () => screen.getByRole('status').textContent;

describe('ways of doing', () => {
  it('are offered at what is chosen, and nothing where nothing is', () => {
    const { choose } = open();
    expect(screen.getByText(/^Choose a part or a net/)).toBeTruthy();
    choose('C1');
    expect(screen.getByRole('button', { name: 'Bass corner by a coupling capacitor' })).toBeTruthy();
    choose('V1');
    expect(screen.queryByRole('button', { name: /Bass corner/ })).toBeNull();
    choose(null, 'b');
    expect(screen.getByRole('button', { name: 'Treble corner by a capacitor to ground' })).toBeTruthy();
  });

  it('follow what is typed, keep the last answer over nonsense, and are planned with Enter', async () => {
    const { user, choose, told } = open();
    choose('C1');
    await user.click(screen.getByRole('button', { name: /Bass corner/ }));
    const corner = screen.getByLabelText('Corner');
    // 1/(2 pi 100k 10 Hz) is 159 nF: 180n of E12 is not above 10 Hz.
    await user.clear(corner);
    await user.type(corner, '10 Hz');
    expect(status()).toMatch(/1[58]0 nF/);
    await user.clear(corner);
    await user.type(corner, 'banana');
    expect(status()).toMatch(/1[58]0 nF/);
    await user.clear(corner);
    await user.type(corner, '10 Hz{Enter}');
    expect(told()).toMatchObject([
      {
        type: 'add-change',
        change: { name: 'Bass 10 Hz', purpose: 'modification', state: 'planned', steps: [{ do: 'fit' }] },
      },
    ]);
  });

  it('say why one does not come out', async () => {
    const { user, choose, told } = open(TIMER);
    choose('R2');
    await user.click(screen.getByRole('button', { name: 'Slower by a pot in series' }));
    const times = screen.getByLabelText('Up to times slower');
    await user.clear(times);
    await user.type(times, '0.5{Enter}');
    expect(status()).toBe('Slower is more than 1 times.');
    expect(told()).toEqual([]);
  });

  it('are clipped on first, and what it was like makes the next', async () => {
    const { user, choose, told } = open(TIMER);
    choose('C1');
    await user.click(screen.getByRole('button', { name: 'Slower by a switch' }));
    await user.click(screen.getByRole('button', { name: 'Clip it on first' }));
    expect(told()[0]!.change).toMatchObject({ purpose: 'trial', state: 'done' });
    await user.type(screen.getByLabelText('What it was like'), 'x 1.5{Enter}');
    // Twice as slow, and half as much again: three times, so 200n across 100n; of E12 220n.
    await vi.waitFor(() => expect(told().filter((t) => t.change.purpose === 'trial')).toHaveLength(2));
    const next = told().at(-1)!.change;
    expect(next).toMatchObject({ purpose: 'trial', state: 'done' });
    expect(JSON.stringify(next.steps)).toMatch(/2\.2e-7|1\.8e-7/);
    await user.click(screen.getByRole('button', { name: 'Just right, plan it' }));
    expect(told().at(-1)!.change).toMatchObject({ purpose: 'modification', state: 'planned' });
  });
});
