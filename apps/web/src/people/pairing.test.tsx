// @vitest-environment happy-dom
import '../testing/component.ts';
import { act, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { PairDevice } from './pairing.tsx';

let drawn: string[] = [];
vi.mock('qrcode', () => ({
  toDataURL: (text: string) => {
    drawn.push(text);
    return Promise.resolve('data:image/png;base64,AAAA');
  },
}));

let answer: () => Response;
beforeEach(() => {
  drawn = [];
  vi.useFakeTimers({ shouldAdvanceTime: true });
  answer = () =>
    new Response(
      JSON.stringify({ code: 'a-code', expiresAt: new Date(Date.now() + 120_000).toISOString() }),
      { status: 201 },
    );
  vi.stubGlobal('fetch', () => Promise.resolve(answer()));
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe('pairing a phone', () => {
  it('shows a code for an address that the phone reaches, counts down, and offers a new one afterwards', async () => {
    render(<PairDevice addresses={['http://192.168.7.2:4780', 'http://bench.local:4780']} />);
    fireEvent.click(screen.getByRole('button', { name: 'Show the code' }));
    expect(await screen.findByAltText(/QR code/)).toBeTruthy();
    expect(drawn.at(-1)).toMatch(/\/pair#a-code$/);
    expect(drawn.at(-1)).not.toContain('localhost');
    expect(screen.getByText(/It works once, for \d+ s more/)).toBeTruthy();
    await act(() => vi.advanceTimersByTimeAsync(121_000));
    expect(screen.queryByAltText(/QR code/)).toBeNull();
    expect(screen.getByRole('button', { name: 'Show a new code' })).toBeTruthy();
  });

  it('says why there is none', async () => {
    render(<PairDevice addresses={['http://192.168.7.2:4780']} />);
    answer = () =>
      new Response(
        JSON.stringify({
          type: 'about:blank',
          title: 'Signed out',
          status: 401,
          code: 'signed-out',
          detail: 'Nobody is signed in.',
        }),
        { status: 401 },
      );
    fireEvent.click(screen.getByRole('button', { name: 'Show the code' }));
    expect((await screen.findByRole('alert')).textContent).toContain('Nobody is signed in.');
  });
});
