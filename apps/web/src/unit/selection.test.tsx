// @vitest-environment happy-dom
import '../testing/component.ts';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { describe, expect, it } from 'vitest';
import { SelectionProvider, useSelection } from './selection.tsx';

function Chosen() {
  const { selectedRef, selectRef } = useSelection();
  return <button onClick={() => selectRef('C1')}>{selectedRef ?? 'none'}</button>;
}

function Bench({ startsMeasuring }: { startsMeasuring: boolean }) {
  const [isMeasuring, setIsMeasuring] = useState(startsMeasuring);
  return (
    <SelectionProvider testPoints={[]} isMeasuring={isMeasuring}>
      <Chosen />
      <button onClick={() => setIsMeasuring(!isMeasuring)}>other stage</button>
    </SelectionProvider>
  );
}

const press = (name: string) => userEvent.click(screen.getByRole('button', { name }));

describe('what is chosen', () => {
  it('is let go when one turns to measuring, and kept when one turns away', async () => {
    render(<Bench startsMeasuring={false} />);
    await press('none');
    await press('other stage');
    expect(screen.getByRole('button', { name: 'none' })).toBeTruthy();
    await press('none');
    await press('other stage');
    expect(screen.getByRole('button', { name: 'C1' })).toBeTruthy();
  });

  it('stays where it was chosen before the screen for measuring was there', async () => {
    const { rerender } = render(<Bench startsMeasuring />);
    await press('none');
    rerender(<Bench startsMeasuring />);
    expect(screen.getByRole('button', { name: 'C1' })).toBeTruthy();
  });
});
