import type { Technology } from '@zemble/contract';
import { isPolarised, type Part } from '../../circuit/circuit/index.ts';

/** What a technology usually does with age, and which way its value goes (common practice). */
interface Ageing {
  readonly words: string;
  readonly drifts: 'up' | 'down' | null;
}

const AGEING = {
  'carbon composition': { words: 'carbon composition drifts high with age and damp', drifts: 'up' },
  'carbon film': { words: 'carbon film drifts a little high', drifts: 'up' },
  'metal film': { words: 'metal film hardly drifts; it goes open when overloaded', drifts: null },
  wirewound: { words: 'wirewound keeps its value until it goes open', drifts: null },
  electrolytic: { words: 'electrolytics dry out: capacity falls, ESR rises', drifts: 'down' },
  tantalum: { words: 'tantalum keeps its value and fails short', drifts: null },
  film: { words: 'plastic film hardly ages', drifts: null },
  paper: { words: 'paper takes up damp: it leaks, and reads high', drifts: 'up' },
  ceramic: { words: 'class 2 ceramic loses a few per cent a decade of hours', drifts: 'down' },
  mica: { words: 'silvered mica hardly ages; it can crackle under high tension', drifts: null },
} as const satisfies Record<Technology, Ageing>;

/** The technology of a part as its sheet says it; a polarised capacitor is electrolytic unless it says otherwise. */
export function technologyOf(part: Part): Technology | undefined {
  return part.technology ?? (isPolarised(part) ? 'electrolytic' : undefined);
}

/** What usually becomes of a part with age, as a clause; undefined when its technology is not known. */
export function ageingWords(part: Part): string | undefined {
  const technology = technologyOf(part);
  return technology && AGEING[technology].words;
}

/** Whether a deviation is the one that the part's technology makes with age. */
export function isUsualDrift(part: Part, deviation: number): boolean {
  const technology = technologyOf(part);
  const drifts = technology && AGEING[technology].drifts;
  return drifts === (deviation > 0 ? 'up' : 'down');
}
