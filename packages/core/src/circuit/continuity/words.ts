import type { BeepData } from '@zemble/contract';
import type { BeepQuestion } from './next-beep.ts';

/** A beep as a sentence of the log: "C3.a beeps with Q2.b and R7.a." */
export function beepSentence({ says, ends, through }: BeepData): string {
  const [held, ...over] = ends;
  const last = over.at(-1) ?? '';
  const others = over.length > 1 ? `${over.slice(0, -1).join(', ')} and ${last}` : last;
  switch (says) {
    case 'apart':
      return over.length > 1
        ? `${held} beeps with none of ${others}.`
        : `${held} does not beep with ${others}.`;
    case 'one of':
      return `${held} beeps with one of ${others}.`;
    case 'together': {
      const by =
        typeof through === 'string'
          ? `, through ${through}`
          : through === null
            ? ', and through nothing'
            : '';
      return `${held} beeps with ${others}${by}.`;
    }
  }
}

/** Why a beep is the next one, in one sentence. */
export function whyBeep({ kind, chance, over }: BeepQuestion): string {
  switch (kind) {
    case 'together':
      return 'They were found to be one net, and were not yet all heard in one sweep: this proves it.';
    case 'analogy':
      return 'So it is in the other channel: one sweep confirms it, or shows where they differ.';
    case 'alone':
      return 'It was found to be a net by itself: a beep here would tell of a contact that was missed.';
    case 'sweep': {
      const percent = Math.round(chance * 100);
      const these = over.length > 1 ? 'one of these' : 'this';
      return `It is on ${these} with a chance of about ${percent} %, by what circuits of its kind look like: either answer tells most.`;
    }
  }
}
