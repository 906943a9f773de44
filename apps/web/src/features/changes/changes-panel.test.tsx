// @vitest-environment happy-dom
import '../../testing/component.ts';
import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { typedWarnings, type Circuit } from '@zemble/core';
import type { Step } from '@zemble/contract';
import { describe, expect, it, vi } from 'vitest';
import { idOf, showInUnit, unitOf } from '../../testing/in-unit.tsx';
import { ChangesPanel } from './changes-panel.tsx';
import { LedgerButton } from './ledger.tsx';
import { LegOut } from './leg-out.tsx';

// The page has a worker for it; here the same function answers at once.
vi.mock('../../compute/use-typed-warnings.ts', () => ({
  useTypedWarnings: (circuit: Circuit, steps: readonly Step[] | null) =>
    steps === null ? [] : typedWarnings(circuit, steps),
}));

const unit = unitOf({ lines: ['V1 9V vcc 0', 'R1 1k vcc a', 'R2 1k a 0', 'C1 1u a out', 'R3 1k out 0'] });
const lifted = (state: 'done' | 'planned') => ({
  ...unit,
  changes: [
    {
      id: idOf(400),
      version: 3,
      position: 0,
      change: {
        id: idOf(400),
        name: 'C1 by itself',
        purpose: 'diagnosis' as const,
        state,
        steps: [{ do: 'lift' as const, pin: 'C1.a' }],
      },
    },
  ],
});

describe('the field for changes', () => {
  it('says what a line does while it is typed, and keeps it with Enter, under its name', async () => {
    const { change } = showInUnit(unit, <ChangesPanel />);
    const field = screen.getByLabelText('Type a change');
    await userEvent.type(field, 'Softer: R1 -> 2k2');
    expect(screen.getByText('R1: 2k2 instead of 1k')).toBeTruthy();
    await userEvent.type(field, '{Enter}');
    expect(change).toHaveBeenCalledWith(
      expect.objectContaining({
        type: 'add-change',
        change: expect.objectContaining({
          name: 'Softer',
          purpose: 'modification',
          state: 'planned',
          steps: [{ do: 'fit', ref: 'R1', value: 2200 }],
        }),
      }),
    );
  });

  it('does the same in the other channel where that is asked for, and asks where there is one only', async () => {
    const stereo = unitOf({
      lines: [
        'V1 9V vcc 0',
        'R1 1k vcc a',
        'C1 1u a outl',
        'R2 10k outl 0',
        'R101 1k vcc b',
        'C101 1u b outr',
        'R102 10k outr 0',
      ],
    });
    localStorage.clear();
    const { change } = showInUnit(stereo, <ChangesPanel />);
    const field = screen.getByLabelText('Type a change');
    await userEvent.type(field, 'V1 -> 12V');
    expect(screen.queryByRole('checkbox', { name: /the other channel too/ })).toBeNull();
    await userEvent.clear(field);
    await userEvent.type(field, 'R2 -> 22k');
    const box = screen.getByRole('checkbox', { name: 'the other channel too: R102: 22k instead of 10k' });
    await userEvent.click(box);
    // What is done to measure is done at one part.
    await userEvent.click(screen.getByText('to measure'));
    expect(screen.queryByRole('checkbox', { name: /the other channel too/ })).toBeNull();
    await userEvent.click(screen.getByText('to stay'));
    await userEvent.type(field, '{Enter}');
    expect(change).toHaveBeenCalledWith(
      expect.objectContaining({
        change: expect.objectContaining({
          steps: [
            { do: 'fit', ref: 'R2', value: 22e3 },
            { do: 'fit', ref: 'R102', value: 22e3 },
          ],
        }),
      }),
    );
    localStorage.clear();
  });

  it('says what a typed change would do wrong, and turns a reversed capacitor round by one key', async () => {
    showInUnit(unit, <ChangesPanel />);
    const field = screen.getByLabelText('Type a change');
    await userEvent.type(field, 'Hum: +C9 10u 25V polarised gnd a');
    expect(screen.getByRole('alert').textContent).toMatch(
      /C9: it is polarised, and its plus stands 4.5 V below/,
    );
    await userEvent.keyboard('{Alt>}t{/Alt}');
    expect((field as HTMLInputElement).value).toBe('Hum: +C9 10u 25V polarised a gnd');
    expect(screen.queryByRole('alert')).toBeNull();
    await userEvent.clear(field);
    await userEvent.type(field, 'R1 -> 1M');
    expect(screen.getByRole('alert').textContent).toContain('1000 times as much');
  });

  it('keeps nothing that cannot be read, and what was typed stays', async () => {
    const { change } = showInUnit(unit, <ChangesPanel />);
    const field = screen.getByLabelText('Type a change');
    await userEvent.type(field, 'R77 -> 2k2{Enter}');
    expect(screen.getByText('There is no R77 in the circuit.')).toBeTruthy();
    expect(change).not.toHaveBeenCalled();
    expect((field as HTMLInputElement).value).toBe('R77 -> 2k2');
  });

  it('puts what is temporary in force at once', async () => {
    const { change } = showInUnit(unit, <ChangesPanel />);
    await userEvent.click(screen.getByText('to measure'));
    await userEvent.type(screen.getByLabelText('Type a change'), 'lift C1.a{Enter}');
    const [told] = change.mock.calls[0] as [{ change: { state: string; purpose: string; steps: object[] } }];
    expect(told.change).toMatchObject({ state: 'done', purpose: 'diagnosis' });
    expect(told.change.steps[0]).toHaveProperty('done.at');
  });
});

describe('the list of changes', () => {
  it('shows the way back and takes a change back', async () => {
    const { change } = showInUnit(lifted('done'), <ChangesPanel />);
    await userEvent.click(screen.getByText('The way back'));
    expect(screen.getByText('Solder C1.a back to a.')).toBeTruthy();
    await userEvent.click(screen.getByLabelText('It is back: C1 by itself'));
    expect(change).toHaveBeenCalledWith(
      expect.objectContaining({
        type: 'update-change',
        seen: 3,
        change: expect.objectContaining({ state: 'undone' }),
      }),
    );
  });
});

describe('the ledger', () => {
  it('counts what must come back, and says how', async () => {
    const { change } = showInUnit(lifted('done'), <LedgerButton />);
    await userEvent.click(screen.getByLabelText('Ledger: 1 to come back'));
    const ledger = await screen.findByRole('dialog');
    expect(within(ledger).getByText('Solder C1.a back to a.')).toBeTruthy();
    await userEvent.click(within(ledger).getByText('It is back'));
    expect(change).toHaveBeenCalledTimes(1);
  });

  it('takes a leg that was lifted to measure with one key, once', async () => {
    const part = { ref: 'C1', kind: 'capacitor', pins: { a: 'a', b: 'out' } } as const;
    const { change, unmount } = showInUnit(unit, <LegOut part={part} />);
    await userEvent.keyboard('{Alt>}l{/Alt}');
    expect(change).toHaveBeenCalledWith(
      expect.objectContaining({
        change: expect.objectContaining({
          purpose: 'diagnosis',
          state: 'done',
          steps: [expect.objectContaining({ do: 'lift', pin: 'C1.a' })],
        }),
      }),
    );
    unmount();
    showInUnit(lifted('done'), <LegOut part={part} />);
    expect(screen.queryByText(/leg is still out/)).toBeNull();
  });

  it('is empty while nothing is in force', () => {
    showInUnit(lifted('planned'), <LedgerButton />);
    expect(screen.getByLabelText('Ledger: nothing to come back')).toBeTruthy();
  });
});
