// @vitest-environment happy-dom
import '../../testing/component.ts';
import type { Panel } from '@zemble/contract';
import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import type { Entry } from '../../api/act.ts';
import { applyEntry } from '../../api/pending.ts';
import { showInUnit, unitOf } from '../../testing/in-unit.tsx';
import { FitView } from './fit-view.tsx';

const UNIT = unitOf({ lines: ['V1 9V vcc 0', 'P1 100k vcc w 0', 'R1 1k w 0'] });
const PANEL: Panel = {
  id: 'p1',
  widthMm: 100,
  heightMm: 60,
  gapMm: 20,
  controls: [
    { id: 'c1', ref: 'P1', at: { x: 30, y: 30 }, holeMm: 7, lengthMm: 16, widthMm: 16, depthMm: 12 },
  ],
  obstacles: [{ id: 'o1', name: 'T1', at: { x: 80, y: 30 }, lengthMm: 10, widthMm: 10, heightMm: 15 }],
};
let shown = UNIT;
function show(panels: readonly Panel[]) {
  shown = { ...UNIT, panels: [...panels] };
  return showInUnit(shown, <FitView tabs={null} />);
}
const told = (change: ReturnType<typeof show>['change']) =>
  applyEntry(shown, change.mock.calls.at(-1)![0] as Entry).panels;

describe('will it fit', () => {
  it('begins with a panel, and says what it is for where there is none', async () => {
    const { change } = show([]);
    expect(screen.getByText(/what meets, and by how much, before a hole is\s+drilled/)).toBeTruthy();
    await userEvent.click(screen.getByText('A panel or lid'));
    expect(told(change)).toMatchObject([{ id: 'p1', controls: [] }]);
  });

  it('says that nothing meets, or what does and by how much', () => {
    // 12 mm of body and 15 mm of part in a gap of 20, 40 mm apart: nothing is over anything.
    const { unmount } = show([PANEL]);
    expect(screen.getByText(/It fits: nothing meets/)).toBeTruthy();
    unmount();
    // Over each other: 12 + 15 mm in 20 mm are 7 too many.
    show([{ ...PANEL, obstacles: [{ ...PANEL.obstacles![0]!, at: { x: 32, y: 30 } }] }]);
    expect(screen.getByText(/T1/, { selector: 'li.zb-out' }).textContent).toMatch(/P1.*7 mm/);
  });

  it('takes a control that is typed, and keeps the line of one that cannot be read', async () => {
    const { change } = show([PANEL]);
    const line = screen.getByLabelText('A control, or something tall under the panel');
    await userEvent.type(line, 'SW1{Enter}');
    expect(change).not.toHaveBeenCalled();
    expect((line as HTMLInputElement).value).toBe('SW1');
    expect(screen.getByRole('alert').textContent).toMatch(/SW1/);
    await userEvent.clear(line);
    await userEvent.type(line, 'SW1 60 20{Enter}');
    expect(told(change)[0]!.controls).toMatchObject([{ id: 'c1' }, { id: 'c2', at: { x: 60, y: 20 } }]);
    // What is there already moves.
    await userEvent.clear(line);
    await userEvent.type(line, 'P1 70 30{Enter}');
    expect(told(change)[0]!.controls).toMatchObject([{ id: 'c1', at: { x: 70, y: 30 } }]);
  });

  it('takes a size when it is done, and not with every digit', async () => {
    const { change } = show([PANEL]);
    const width = screen.getByLabelText('width, mm');
    await userEvent.clear(width);
    await userEvent.type(width, '125');
    expect(change).not.toHaveBeenCalled();
    await userEvent.type(width, '{Enter}');
    expect(change).toHaveBeenCalledTimes(1);
    expect(told(change)[0]).toMatchObject({ widthMm: 125, heightMm: 60 });
  });

  it('takes a control off the panel', async () => {
    const { change } = show([PANEL]);
    await userEvent.click(screen.getByLabelText('Take P1 off the panel'));
    expect(told(change)[0]!.controls).toEqual([]);
  });
});
