// @vitest-environment happy-dom
import '../../testing/component.ts';
import type { Act, PathData } from '@zemble/contract';
import { applyAct } from '@zemble/core';
import { act, screen } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { showInUnit, unitOf } from '../../testing/in-unit.tsx';
import type { PathDrawing } from '../../ui/path-drawing.tsx';
import { PathBoard } from './path-board.tsx';
import { usePointNames } from './use-path.ts';

let shown: Parameters<typeof PathDrawing>[0];
vi.mock('../../ui/path-drawing.tsx', () => ({
  PathDrawing: (props: Parameters<typeof PathDrawing>[0]) => {
    shown = props;
    return <p>drawn</p>;
  },
}));

const PATH: PathData = {
  blocks: [{ id: 'in', name: 'Input' }, { id: 'amp', parts: ['R1'] }, { id: 'out' }],
  links: [{ from: 'in', to: 'amp', carries: 'audio' }],
  testPoints: [{ id: 't1', name: 'Collector', after: 'amp' }],
};
const unit = (path: PathData | null) => ({ ...unitOf({ lines: ['R1 1k a 0'] }), path });

describe('the path', () => {
  it('says what will stand there, while nothing is in it', () => {
    showInUnit(unit(null), <PathBoard />);
    expect(screen.getByText('The path draws itself here.')).toBeTruthy();
  });

  it('links one block with another where one is drawn onto the other, once', async () => {
    const one = unit(PATH);
    const { change } = showInUnit(one, <PathBoard />);
    await screen.findByText('drawn');
    act(() => shown.onLink!('amp', 'out'));
    const { path } = applyAct(one, change.mock.lastCall![0] as Act);
    expect(path!.links.map((l) => [l.from, l.to])).toEqual([
      ['in', 'amp'],
      ['amp', 'out'],
    ]);
  });

  it('cannot be drawn in where it stands under somebody else’s head', async () => {
    showInUnit(unit(PATH), <PathBoard isBare />);
    await screen.findByText('drawn');
    expect(shown.onLink).toBeUndefined();
    expect(screen.queryByRole('heading')).toBeNull();
  });

  it('names what a point stands for: its number, its block, its part, or the net', () => {
    let names: ReturnType<typeof usePointNames>;
    function Names() {
      names = usePointNames();
      return null;
    }
    showInUnit(unit(PATH), <Names />);
    expect(['t1', 'in', 'out', 'R1', 'vcc'].map((t) => names.nameOf(t))).toEqual([
      'Collector',
      'Input',
      'out',
      'R1',
      'net vcc',
    ]);
    expect(['t1', 'vcc', 'a-long-name'].map((t) => names.numberOf(t))).toEqual([1, 'vcc', 'a-long']);
  });
});
