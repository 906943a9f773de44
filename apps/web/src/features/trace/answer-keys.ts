import type { BeepQuestion } from '@zemble/core';
import type { NewBeep } from './use-beeps.ts';

/** Keys that say which of the first nine beeped. */
export const MOST_KEYED = 9;
export const KEYS = { none: '0', somewhere: '?', all: 'Enter', pass: 'ArrowRight' } as const;

/** None of what the lead was drawn over beeped. */
export const noneBeeps = ({ hold, over }: BeepQuestion): NewBeep => ({
  says: 'apart',
  ends: [hold, ...over],
});
/** One of it beeped, and which was not seen. */
export const oneBeeps = ({ hold, over }: BeepQuestion): NewBeep => ({
  says: over.length === 1 ? 'together' : 'one of',
  ends: [hold, ...over],
});
/** That one beeped. */
export const thisBeeps = ({ hold }: BeepQuestion, end: string): NewBeep => ({
  says: 'together',
  ends: [hold, end],
});

/** All beeped but these: two beeps, so that each stands by itself. */
export function allBeep({ hold, over }: BeepQuestion, silent: readonly string[] = []): NewBeep[] {
  const beeping = over.filter((end) => !silent.includes(end));
  return [
    ...(beeping.length > 0 ? [{ says: 'together' as const, ends: [hold, ...beeping] }] : []),
    ...(silent.length > 0 ? [{ says: 'apart' as const, ends: [hold, ...silent] }] : []),
  ];
}

/** Whether each is touched by itself and all are expected to beep. */
export const isEach = ({ kind }: BeepQuestion): boolean => kind === 'together' || kind === 'analogy';

/** What one key answers to a question. */
export function answerKeys(
  question: BeepQuestion | null,
): Readonly<Record<string, readonly NewBeep[] | 'pass'>> {
  if (!question) return {};
  const pass = { [KEYS.pass]: 'pass' as const };
  if (isEach(question)) return { ...pass, [KEYS.all]: allBeep(question) };
  const each = question.over
    .slice(0, MOST_KEYED)
    .map((end, i) => [String(i + 1), [thisBeeps(question, end)]] as const);
  return {
    ...pass,
    ...Object.fromEntries(each),
    [KEYS.none]: [noneBeeps(question)],
    ...(question.over.length > 1 ? { [KEYS.somewhere]: [oneBeeps(question)] } : {}),
  };
}
