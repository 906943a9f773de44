import type { SawWord } from '@zemble/contract';

/** What a fault does to what passes a point; from the mildest to the one that hides all others. */
export const SYMPTOMS = ['good', 'hum', 'distorted', 'weak', 'none'] as const;
export type Symptom = (typeof SYMPTOMS)[number];

/**
 * How a block fails: it adds hum, distorts, weakens or passes nothing; it drags down the supply it hangs on, and with it
 * all else that hangs there; or, a supply, it cannot bear its load and is right as soon as that is taken off; or one of its
 * several outputs is dead, and the others are well.
 */
export const FAULT_MODES = ['hum', 'distorted', 'weak', 'none', 'drags', 'sags', 'output'] as const;
export type FaultMode = (typeof FAULT_MODES)[number];

/** What a way of failing shows where it shows. */
export const symptomOfMode = (mode: FaultMode): Symptom =>
  mode === 'drags' || mode === 'sags' || mode === 'output' ? 'none' : mode;

/** What was seen, as far as it bears on a fault: a symptom, or only that it was not as it should be. */
export type Seen = Symptom | 'bad';

/** How far what is seen can be trusted; all from common practice. */
export interface Trust {
  /** Chance that a single look is wrong: a slipped probe, a misread meter. */
  readonly wrong: number;
  /** Chance that what is bad is taken for another kind of bad. */
  readonly confused: number;
  /** Chance that an intermittent fault is away while one looks. */
  readonly hidden: number;
}

export const USUAL_TRUST: Trust = { wrong: 0.03, confused: 0.2, hidden: 0 };
/** An intermittent fault is away in four looks of ten, and in two of ten while it is provoked. */
export const INTERMITTENT_HIDDEN = 0.4;
export const PROVOKED_HIDDEN = 0.2;
/** A probe that has not been proved is dead, or not connected, in three looks of ten that find nothing. */
export const UNPROVED_WRONG = 0.3;

const BAD_SYMPTOMS = SYMPTOMS.length - 1;

/**
 * Likelihood of what was seen under each true symptom, in the order of SYMPTOMS. For a true symptom they add up to 1
 * over the five symptoms that can be seen.
 *
 * @param falseAlarm chance that a look at what is good finds it bad
 */
export function likelihoods(seen: Seen, trust: Trust, falseAlarm = trust.wrong): Float64Array {
  const missed = trust.wrong + (1 - trust.wrong) * trust.hidden;
  return Float64Array.from(SYMPTOMS, (truth) => {
    if (truth === 'good') {
      if (seen === 'good') return 1 - falseAlarm;
      return seen === 'bad' ? falseAlarm : falseAlarm / BAD_SYMPTOMS;
    }
    if (seen === 'good') return missed;
    if (seen === 'bad') return 1 - missed;
    if (seen === truth) return (1 - missed) * (1 - trust.confused);
    return ((1 - missed) * trust.confused) / (BAD_SYMPTOMS - 1);
  });
}

/** The states of a pin that are right for what a link carries; a floating pin never is. */
const RIGHT_STATES: Readonly<Record<string, readonly SawWord[]>> = {
  audio: ['good'],
  supply: ['good', 'high'],
  clock: ['good', 'pulsing'],
  data: ['good', 'pulsing'],
  control: ['good', 'high', 'low', 'pulsing'],
};

/** What a word says about a link that carries something; null when it says nothing, as a control line that is low. */
export function seenFor(word: SawWord, carries: string): Seen | null {
  // A supply that is weak is low: what hangs on it may pull it down, or it cannot bear its load.
  if (word === 'weak' && carries === 'supply') return 'none';
  if (word === 'good' || word === 'weak' || word === 'distorted' || word === 'hum' || word === 'none')
    return word;
  if (word === 'floating') return 'none';
  if (carries === 'control') return null;
  if (RIGHT_STATES[carries]?.includes(word)) return 'good';
  return carries === 'supply' && word === 'low' ? 'none' : 'bad';
}
