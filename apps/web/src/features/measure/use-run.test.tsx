// @vitest-environment happy-dom
import '../../testing/component.ts';
import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { describe, expect, it, vi } from 'vitest';
import { idOf, showInUnit, unitOf } from '../../testing/in-unit.tsx';
import { LayerProvider } from '../../unit/layer.tsx';
import { useSelection } from '../../unit/selection.tsx';
import { useRun } from './use-run.ts';

// The page has a worker for verdicts and weights; where a run begins does not hang on them.
vi.mock('../../compute/use-measuring.ts', () => ({
  useJudgements: () => new Map(),
  useHarm: () => ({ weighed: null }),
}));
vi.mock('../../api/use-mains.ts', () => ({ useMains: () => ({ mainsHz: 50, isUnsaid: false }) }));

function Run() {
  const { current } = useRun(new Map());
  return <p data-testid="current">{current?.part.ref ?? '-'}</p>;
}

/** A bench on which the screen comes only when it is asked for, as it does while its piece of the page is fetched. */
function Bench() {
  const { selectedRef, selectRef } = useSelection();
  const [isThere, setIsThere] = useState(false);
  return (
    <>
      <button onClick={() => selectRef('R1')}>choose R1</button>
      <button onClick={() => selectRef('C1')}>choose C1</button>
      <button onClick={() => setIsThere(true)}>begin</button>
      <p data-testid="chosen">{selectedRef ?? '-'}</p>
      {isThere && <Run />}
    </>
  );
}

const press = (name: string) => userEvent.click(screen.getByRole('button', { name }));
const text = (id: string) => screen.getByTestId(id).textContent;
const open = () => {
  const lines = ['V1 9V vcc 0', 'R1 10k vcc a', 'R2 10k a 0', 'C1 100n a 0'];
  showInUnit(
    unitOf({ lines, readings: [{ ref: 'R1', partId: idOf(101), value: 10_100 }] }),
    <LayerProvider>
      <Bench />
    </LayerProvider>,
  );
};

describe('where a measuring run begins', () => {
  it('is what was chosen to be measured while the screen was on its way', async () => {
    open();
    await press('choose C1');
    await press('begin');
    expect([text('chosen'), text('current')]).toEqual(['C1', 'C1']);
  });

  it('is the first part without a reading where a measured one, or none, was chosen', async () => {
    open();
    await press('choose R1');
    await press('begin');
    expect([text('chosen'), text('current')]).toEqual(['-', 'R2']);
    await press('choose R1');
    expect(text('current')).toBe('R1');
  });
});
