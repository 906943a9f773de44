/** How a known part was added, and what was seen before and after. */
export const CHANGE_KINDS = [
  'parallel capacitor, rate',
  'series resistor, level',
  'load resistor, level',
  'parallel resistor, rate',
] as const;
export type ChangeKind = (typeof CHANGE_KINDS)[number];

export interface KnownChange {
  readonly kind: ChangeKind;
  /** The part that was added, F or ohm. */
  readonly added: number;
  readonly before: number;
  readonly after: number;
  /** Error of each of the two observations, as a share; 1 % when absent. */
  readonly readingError?: number;
  /** Tolerance of the added part, as a share; 5 % when absent. */
  readonly addedTolerance?: number;
}

export interface ValueFromChange {
  readonly value: number;
  /** One sigma, to first order. */
  readonly sigma: number;
  /** Where one sigma ends either way by the law itself: a small change leaves the far side open. */
  readonly low: number;
  readonly high: number;
  /** One plain sentence with the law that was used. */
  readonly law: string;
}

const READING_ERROR = 0.01;
const ADDED_TOLERANCE = 0.05;
const UNIFORM_SIGMA = 1 / Math.sqrt(3);

interface Law {
  readonly text: string;
  /** The unknown from the ratio of before to after, for an added part of 1. */
  readonly of: (ratio: number) => number;
}

const LAWS: Readonly<Record<ChangeKind, Law>> = {
  'parallel capacitor, rate': {
    text: 'a rate goes as 1/C: C = added / (before/after - 1)',
    of: (q) => 1 / (q - 1),
  },
  'parallel resistor, rate': {
    text: 'a rate goes as 1/R: R = added (after/before - 1)',
    of: (q) => 1 / q - 1,
  },
  'series resistor, level': {
    text: 'a divider with what follows: R = added / (before/after - 1)',
    of: (q) => 1 / (q - 1),
  },
  'load resistor, level': {
    text: 'a source behind its resistance: R = added (before/after - 1)',
    of: (q) => q - 1,
  },
};

/**
 * An unknown part from what a known one changed: the capacitor that set a rate from another in parallel, the input
 * resistance from a resistor in series, the source resistance from a load. The error is carried through to first order, and
 * by the law itself to either side.
 *
 * @returns null where the change goes the wrong way, or nothing changed
 */
export function unknownFromChange(change: KnownChange): ValueFromChange | null {
  const { added, before, after } = change;
  const law = LAWS[change.kind];
  if (!(added > 0) || !(before > 0) || !(after > 0)) return null;
  const ratio = before / after;
  const value = added * law.of(ratio);
  if (!(value > 0) || !Number.isFinite(value)) return null;
  const step = 1e-6;
  const slope = ((law.of(ratio * (1 + step)) - law.of(ratio * (1 - step))) / (2 * step)) * added;
  const readingSigma = Math.SQRT2 * (change.readingError ?? READING_ERROR) * UNIFORM_SIGMA;
  const addedSigma = (change.addedTolerance ?? ADDED_TOLERANCE) * UNIFORM_SIGMA;
  const ends = [1 - readingSigma, 1 + readingSigma].map((factor) => {
    const end = added * law.of(ratio * factor);
    return end > 0 ? end : Number.POSITIVE_INFINITY;
  });
  const low = value - Math.hypot(value - Math.min(...ends), value * addedSigma);
  const high = value + Math.hypot(Math.max(...ends) - value, value * addedSigma);
  return {
    value,
    sigma: Math.hypot(slope * readingSigma, value * addedSigma),
    low: Math.max(0, low),
    high,
    law: law.text,
  };
}
