// @vitest-environment happy-dom
import '../testing/component.ts';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it, vi } from 'vitest';
import { AreaBoundary } from './area-boundary.tsx';

it('keeps an error in its area, and begins afresh when asked, or for something else', async () => {
  vi.spyOn(console, 'error').mockImplementation(() => undefined);
  let isBroken = true;
  const Area = () => {
    if (isBroken) throw new Error('no such part');
    return <p>drawn</p>;
  };
  const page = (resetKey: string) => (
    <>
      <AreaBoundary name="The drawing" resetKey={resetKey}>
        <Area />
      </AreaBoundary>
      <p>the dock</p>
    </>
  );
  const { rerender } = render(page('a'));
  expect(screen.getByRole('alert').textContent).toMatch(/The drawing stopped.*no such part/);
  expect(screen.getByText('the dock')).toBeTruthy();
  isBroken = false;
  await userEvent.click(screen.getByText('Try again'));
  expect(screen.getByText('drawn')).toBeTruthy();
  isBroken = true;
  rerender(page('b'));
  expect(screen.getByRole('alert')).toBeTruthy();
  isBroken = false;
  rerender(page('c'));
  expect(screen.getByText('drawn')).toBeTruthy();
});
