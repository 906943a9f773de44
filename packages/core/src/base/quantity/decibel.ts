/** Voltage ratio to decibels, 20 log10. Zero gives -Infinity. */
export const ratioToDb = (ratio: number): number => 20 * Math.log10(ratio);

/** Decibels to voltage ratio. */
export const dbToRatio = (db: number): number => 10 ** (db / 20);
