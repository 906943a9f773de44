// @vitest-environment happy-dom
import '../../testing/component.ts';
import { act, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useEffect } from 'react';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { draw, type DrawRequest } from '../../compute/drawing.ts';
import { idOf, showInUnit, unitOf } from '../../testing/in-unit.tsx';
import { useSelection, type Selection } from '../../unit/selection.tsx';

/** What the worker answers next, where it is not the drawing. */
let failure: string | null;
// The page draws in a worker; here the same function answers at once.
vi.mock('../../compute/runner.ts', () => ({
  LatestRunner: class {
    run(request: DrawRequest, tell: (outcome: object) => void): void {
      void Promise.resolve().then(() => {
        tell(failure === null ? { ok: true, answer: draw(request) } : { ok: false, why: failure });
      });
    }
  },
  pool: {},
}));
vi.mock('../changes/index.ts', () => ({ OffersStrip: () => null }));
const { CircuitPanel } = await import('./circuit-panel.tsx');

const LINES = ['V1 9V vcc 0', 'R1 10k vcc out', 'R2 10k out 0'];
let selection: Selection;
function Chosen() {
  const chosen = useSelection();
  useEffect(() => {
    selection = chosen;
  });
  return null;
}
let count = 0;
async function open(lines = LINES, readings: { ref: string; value: number }[] = []) {
  count += 1;
  const made = unitOf({ lines });
  const unit = {
    ...made,
    id: idOf(9000 + count),
    readings: readings.map(({ ref, value }, i) => ({
      ...unitOf({ lines, readings: [{ value }] }).readings[0]!,
      id: idOf(300 + i),
      partId: made.parts.find((p) => p.part.ref === ref)!.id,
    })),
  };
  const shown = showInUnit(
    unit,
    <>
      <CircuitPanel />
      <Chosen />
    </>,
  );
  await act(() => Promise.resolve());
  return shown;
}
beforeEach(() => {
  failure = null;
});

describe('the drawn circuit', () => {
  it('says what will stand there, while there is no part', async () => {
    await open([]);
    expect(screen.getByText('The circuit draws itself here as you type its parts.')).toBeTruthy();
  });

  it('has a symbol for each part, and what is chosen there is chosen everywhere', async () => {
    await open();
    const drawing = await screen.findByRole('group', { name: 'Circuit of 3 parts' });
    const symbols = [...drawing.querySelectorAll('[data-ref]')];
    expect(symbols.map((s) => s.getAttribute('data-ref')).sort()).toEqual(['R1', 'R2', 'V1']);
    await userEvent.click(drawing.querySelector('[data-ref=R2]')!);
    expect(selection.selectedRef).toBe('R2');
  });

  it('says why it could not be drawn, and never stands there as if it were of now', async () => {
    failure = 'The worker ended.';
    await open();
    expect((await screen.findByText(/not drawn/)).textContent).toContain('The worker ended.');
    expect(screen.queryByRole('group', { name: /Circuit of/ })).toBeNull();
  });
});
