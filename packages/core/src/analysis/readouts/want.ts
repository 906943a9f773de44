import type { Want } from '@zemble/contract';

/** The wanted range as its two ends, either open; undefined when nothing is wanted. */
export function wantedRange(want: Want | undefined): { low: number; high: number } | undefined {
  if (!want) return undefined;
  const within = want.within ?? 0;
  const low = want.min ?? (want.target === undefined ? Number.NEGATIVE_INFINITY : want.target - within);
  const high = want.max ?? (want.target === undefined ? Number.POSITIVE_INFINITY : want.target + within);
  return Number.isFinite(low) || Number.isFinite(high) ? { low, high } : undefined;
}

/** How far a value stands outside its wanted range, in the readout's unit: 0 inside, negative below, positive above. */
export function outsideBy(value: number, want: Want | undefined): number {
  const range = wantedRange(want);
  if (!range) return 0;
  if (value < range.low) return value - range.low;
  return value > range.high ? value - range.high : 0;
}
