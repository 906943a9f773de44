/** Tolerance letters of IEC 60062 as fractions (symmetrical ones). */
export const TOLERANCE_LETTERS: Readonly<Record<string, number>> = {
  E: 0.00005,
  L: 0.0001,
  P: 0.0002,
  W: 0.0005,
  B: 0.001,
  C: 0.0025,
  D: 0.005,
  F: 0.01,
  G: 0.02,
  H: 0.03,
  J: 0.05,
  K: 0.1,
  M: 0.2,
  N: 0.3,
};

/** Reads "5%", "±5 %", or a letter of IEC 60062; undefined when it is none of these. Answer is a fraction. */
export function parseTolerance(text: string): number | undefined {
  const trimmed = text.trim();
  const percent = /^(?:±|\+-|\+\/-)?\s*(\d+(?:[.,]\d+)?)\s*%$/.exec(trimmed);
  if (percent) return Number(`${percent[1]!.replace(',', '.')}e-2`);
  return trimmed.length === 1 ? TOLERANCE_LETTERS[trimmed.toUpperCase()] : undefined;
}
