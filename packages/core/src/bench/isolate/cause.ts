import type { Damage, IntakeData } from '@zemble/contract';
import { FIRST_CHECKS } from './first-checks.ts';

/** What was convicted, as the record keeps it. */
export type Conviction = NonNullable<IntakeData['convicted']>[number];
export type ProofOutcome = NonNullable<Conviction['proof']>['outcome'];

/**
 * The cause that ends a search: the last part, damage or first check that was convicted and has not been found innocent. A
 * block alone does not end it: one of its parts is the cause.
 */
export function causeOf(intake: IntakeData): Conviction | null {
  const causes = (intake.convicted ?? []).filter(
    (c) =>
      (c.check !== undefined || c.defect !== undefined || c.ref !== undefined) &&
      c.proof?.outcome !== 'not it',
  );
  return causes.at(-1) ?? null;
}

/**
 * The intake with a first check made, or taken back (null). One that found the fault convicts what it checked, and so ends
 * the search.
 *
 * @param at time, ISO 8601
 */
export function withCheck(
  intake: IntakeData,
  id: string,
  outcome: 'fine' | 'was it' | null,
  at: string,
): IntakeData {
  const check = FIRST_CHECKS.find((c) => c.id === id);
  const { [id]: _old, ...others } = intake.checks ?? {};
  const convicted = (intake.convicted ?? []).filter((c) => c.check !== id || c.proof !== undefined);
  const found: Conviction[] =
    outcome === 'was it' && check
      ? [{ check: id, ...(check.kinds[0] ? { kind: check.kinds[0] } : {}), words: foundBy(check), at }]
      : [];
  return {
    ...intake,
    checks: outcome === null ? others : { ...others, [id]: outcome },
    convicted: [...convicted, ...found],
  };
}

const foundBy = ({ rulesOut, what }: (typeof FIRST_CHECKS)[number]): string =>
  `It was ${rulesOut}. Found by a first check: ${what.charAt(0).toLowerCase()}${what.slice(1)}.`;

/** The intake with damage that was seen. */
export const withDamage = (intake: IntakeData, damage: Damage): IntakeData => ({
  ...intake,
  damage: [...(intake.damage ?? []), damage],
});

/** The intake without some damage, and without what was convicted for it and not tried yet. */
export const withoutDamage = (intake: IntakeData, damage: Damage): IntakeData => ({
  ...intake,
  damage: (intake.damage ?? []).filter((d) => d.at !== damage.at),
  convicted: (intake.convicted ?? []).filter((c) => !isFor(c, damage) || c.proof !== undefined),
});

const isFor = (conviction: Conviction, { defect, target }: Damage) =>
  conviction.defect === defect && conviction.words === damageWords({ defect, target });

/** "burnt at R7", "arcing". */
export const damageWords = ({ defect, target }: Pick<Damage, 'defect' | 'target'>): string =>
  target === undefined ? defect : `${defect} at ${target}`;

/** The intake with damage convicted: it was this. */
export const convictDamage = (
  intake: IntakeData,
  damage: Damage,
  of: Pick<Conviction, 'blockId' | 'kind' | 'ref'>,
  at: string,
): IntakeData => ({
  ...intake,
  convicted: [...(intake.convicted ?? []), { ...of, defect: damage.defect, words: damageWords(damage), at }],
});

/** The intake with the proof of what was convicted: mended and tried, it is right, or it was not that. */
export function withProof(
  intake: IntakeData,
  conviction: Conviction,
  outcome: ProofOutcome,
  at: string,
): IntakeData {
  const convicted = (intake.convicted ?? []).map((c) =>
    c.at === conviction.at && c.words === conviction.words ? { ...c, proof: { outcome, at } } : c,
  );
  const { check } = conviction;
  // What was checked and is not it counts as fine from now on.
  const checks =
    outcome === 'not it' && check !== undefined
      ? { ...intake.checks, [check]: 'fine' as const }
      : intake.checks;
  return { ...intake, convicted, ...(checks ? { checks } : {}) };
}

/** What a change of the intake says, as sentences of the log; none for what is only described otherwise. */
export function intakeSentences(before: IntakeData, after: IntakeData): string[] {
  const known = new Map((before.convicted ?? []).map((c) => [key(c), c]));
  const convicted = (after.convicted ?? []).flatMap((c) => {
    const was = known.get(key(c));
    if (!was) return [c.check === undefined ? `Convicted: ${ended(c.words)}` : ended(c.words)];
    if (c.proof && c.proof.outcome !== was.proof?.outcome)
      return [
        c.proof.outcome === 'right'
          ? `Proved, it is right now. ${ended(c.words)}`
          : `It was not that: ${ended(c.words)}`,
      ];
    return [];
  });
  const there = new Set((after.convicted ?? []).map(key));
  const released = (before.convicted ?? [])
    .filter((c) => !there.has(key(c)))
    .map((c) => `No longer convicted: ${ended(c.words)}`);
  const seen = new Set((before.damage ?? []).map((d) => d.at));
  const damage = (after.damage ?? [])
    .filter((d) => !seen.has(d.at))
    .map((d) => `Seen on the board: ${damageWords(d)}.`);
  const checks = FIRST_CHECKS.filter(
    ({ id }) => after.checks?.[id] === 'fine' && before.checks?.[id] === undefined,
  ).map(({ rulesOut }) => `First check, fine: it rules out ${rulesOut}.`);
  return [...convicted, ...released, ...damage, ...checks];
}

const key = (c: Conviction) => `${c.at} ${c.words}`;
const ended = (words: string) => (/[.!?]$/.test(words) ? words : `${words}.`);
