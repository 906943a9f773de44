import { expect, it } from 'vitest';
import { whenWords } from './when.ts';

it('says the year of what was in another one', () => {
  const now = new Date(2026, 0, 2);
  expect(whenWords(new Date(2026, 0, 1, 9, 5).toISOString(), now)).toBe('1 Jan 09:05');
  expect(whenWords(new Date(2025, 11, 31, 23, 59).toISOString(), now)).toBe('31 Dec 2025 23:59');
});
