import { unkeepableIn } from '@zemble/contract';
import type { z } from 'zod';

/**
 * Why something that was typed cannot be kept, a sentence: what its schema says of it, or a character that no record holds.
 * Undefined where it can be.
 *
 * @param rest fields that are given later
 */
export function whyNotKept(typed: object, schema: z.ZodType, rest: object): string | undefined {
  const whole = { ...rest, ...typed };
  const odd = unkeepableIn(whole);
  if (odd) return `${odd.sentence.charAt(0).toUpperCase()}${odd.sentence.slice(1)}.`;
  const [issue] = schema.safeParse(whole).error?.issues ?? [];
  return issue && `${issue.path.join(' ')}: ${issue.message}`.replace(/\.?$/, '.');
}
