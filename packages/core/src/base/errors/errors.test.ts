import { describe, expect, it } from 'vitest';
import { CATALOGUE, ZembleError, problem, type ErrorCode } from './errors.ts';

describe('error catalogue', () => {
  const codes = Object.keys(CATALOGUE) as ErrorCode[];

  it.each(codes)('%s makes a whole sentence and says what to do', (code) => {
    const data = { ref: 'R1', net: 'n1', text: 'x', where: 'here', detail: 'it is so', parts: ['C1', 'C2'] };
    const { message, hint } = problem(code, data);
    expect(message).toMatch(/^[A-Za-z"].*\.$|^it is so$/);
    expect(message).not.toMatch(/undefined|null|\[object/);
    expect(hint).toMatch(/[.?]$|in n2$/);
  });

  it('carries its problem when thrown', () => {
    const error = new ZembleError('circuit/no-dc-path', { net: 'b', parts: ['C1'] });
    expect(error.code).toBe('circuit/no-dc-path');
    expect(error.message).toBe('Net b has no DC path to ground: only C1 touches it.');
    expect(error.problem).toMatchObject({ net: 'b' });
  });
});
