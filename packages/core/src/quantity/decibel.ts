/** Voltage ratio to decibels, 20 log10. Zero gives -Infinity. */
export const ratioToDb = (ratio: number): number => 20 * Math.log10(ratio);

/** Decibels to voltage ratio. */
export const dbToRatio = (db: number): number => 10 ** (db / 20);

/** 0 dBu: the voltage that puts 1 mW into 600 ohm (IEC 60268-17 usage), in volt. */
export const DBU_REFERENCE_V = Math.sqrt(0.6);

export const voltToDbu = (volt: number): number => ratioToDb(volt / DBU_REFERENCE_V);
export const dbuToVolt = (dbu: number): number => DBU_REFERENCE_V * dbToRatio(dbu);
