import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { PROBLEMS, type ProblemCode } from '@zemble/contract';
import { describe, expect, it } from 'vitest';
import { ApiError } from './errors.ts';

const ROOT = join(import.meta.dirname, '../../..');

/** Source of the server that is no test. */
const sources = readdirSync(join(import.meta.dirname), { recursive: true, encoding: 'utf8' })
  .filter((name) => name.endsWith('.ts') && !name.endsWith('.test.ts'))
  .map((name) => readFileSync(join(import.meta.dirname, name), 'utf8'));

describe('the catalogue of problems', () => {
  it('stands in the documentation, each with its status and what it means', () => {
    const rows = readFileSync(join(ROOT, 'docs/api.md'), 'utf8')
      .split('\n')
      .filter((line) => line.startsWith('| `'))
      .map((line) =>
        line
          .split('|')
          .slice(1, 4)
          .map((cell) => cell.trim()),
      );
    expect(rows).toEqual(
      Object.entries(PROBLEMS).map(([code, { status, means }]) => [`\`${code}\``, String(status), means]),
    );
  });

  it('has no code that nothing answers', () => {
    const text = sources.join('\n');
    const unused = Object.keys(PROBLEMS).filter(
      (code) => !new RegExp(`new ApiError\\(\\s*'${code}'`).test(text),
    );
    expect(unused).toEqual([]);
  });

  it('gives each error the status of its code', () => {
    for (const [code, { status }] of Object.entries(PROBLEMS))
      expect(new ApiError(code as ProblemCode, 'It is so.').status).toBe(status);
  });
});
