// @vitest-environment happy-dom
import '../testing/component.ts';
import type { Session } from '@zemble/contract';
import { act, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { SWRConfig } from 'swr';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { SIGNED_OUT } from '../api/client.ts';
import { SessionGate } from './session-gate.tsx';

const PERSON = { id: '01890a5d-ac96-774b-bcce-b302099a8057', name: 'Maren', isOwner: true };
const IN: Session = { state: 'signed-in', person: PERSON, addresses: [] };

/** What the server answers, by path; null where it cannot be reached. */
let answers: Record<string, { status: number; body: unknown } | null>;
let asked: { path: string; body: unknown }[];
beforeEach(() => {
  asked = [];
  vi.stubGlobal('fetch', async (url: string, init: RequestInit = {}) => {
    const path = `${init.method ?? 'GET'} ${url}`;
    asked.push({ path, body: typeof init.body === 'string' ? JSON.parse(init.body) : undefined });
    const answer = answers[path];
    if (!answer) throw new TypeError('Failed to fetch');
    return new Response(JSON.stringify(answer.body), { status: answer.status });
  });
});
afterEach(() => vi.unstubAllGlobals());

const SESSION = 'GET /api/v1/session';
const ok = (body: unknown) => ({ status: 200, body });
const open = () =>
  render(
    <SWRConfig value={{ provider: () => new Map(), shouldRetryOnError: false }}>
      <SessionGate>
        <input aria-label="Reading" />
      </SessionGate>
    </SWRConfig>,
  );

describe('who is at the bench', () => {
  it('is asked of nobody on a bench of one machine, nor while the server is away', async () => {
    answers = { [SESSION]: ok({ state: 'open' }) };
    const { unmount } = open();
    expect(await screen.findByLabelText('Reading')).toBeTruthy();
    unmount();
    answers = {};
    open();
    expect(await screen.findByLabelText('Reading')).toBeTruthy();
  });

  it('is asked before anything is shown, and a wrong passphrase is told', async () => {
    answers = {
      [SESSION]: ok({ state: 'signed-out' }),
      'POST /api/v1/session': {
        status: 401,
        body: {
          type: 'about:blank',
          title: 'Not let in',
          status: 401,
          code: 'not-let-in',
          detail: 'This name with this passphrase is not known here.',
        },
      },
    };
    const user = userEvent.setup();
    open();
    await user.type(await screen.findByLabelText('Name'), 'Maren');
    expect(screen.queryByLabelText('Reading')).toBeNull();
    await user.type(screen.getByLabelText('Passphrase'), 'a guess{Enter}');
    expect((await screen.findByRole('alert')).textContent).toContain('is not known here');
    answers['POST /api/v1/session'] = ok(IN);
    await user.click(screen.getByRole('button', { name: 'Sign in' }));
    expect(await screen.findByLabelText('Reading')).toBeTruthy();
    expect(asked.at(-1)!.body ?? asked.at(-2)!.body).toMatchObject({ name: 'Maren' });
  });

  it('begins with the first person on the bench’s own machine only', async () => {
    answers = { [SESSION]: ok({ state: 'first', mayBegin: false }) };
    const { unmount } = open();
    expect(await screen.findByText(/begins on the machine of the bench itself/)).toBeTruthy();
    expect(screen.queryByLabelText('Name')).toBeNull();
    unmount();
    answers = { [SESSION]: ok({ state: 'first', mayBegin: true }), 'POST /api/v1/people/first': ok(IN) };
    const user = userEvent.setup();
    open();
    await user.type(await screen.findByLabelText('Name'), 'Maren');
    await user.type(screen.getByLabelText('Passphrase'), 'short{Enter}');
    expect(await screen.findByText(/at least 10/)).toBeTruthy();
    await user.type(screen.getByLabelText('Passphrase'), ' and longer{Enter}');
    expect(await screen.findByLabelText('Reading')).toBeTruthy();
  });

  it('is asked on top of the page when somebody is signed out at work, so that what was typed stays', async () => {
    answers = { [SESSION]: ok(IN), 'POST /api/v1/session': ok(IN) };
    const user = userEvent.setup();
    open();
    await user.type(await screen.findByLabelText('Reading'), '4k7');
    answers[SESSION] = ok({ state: 'signed-out' });
    act(() => void dispatchEvent(new Event(SIGNED_OUT)));
    await user.type(await screen.findByLabelText('Name'), 'Maren');
    expect(screen.getByLabelText('Reading')).toHaveProperty('value', '4k7');
    await user.type(screen.getByLabelText('Passphrase'), 'a long way{Enter}');
    await vi.waitFor(() => expect(screen.queryByLabelText('Name')).toBeNull());
    expect(screen.getByLabelText('Reading')).toHaveProperty('value', '4k7');
  });
});
