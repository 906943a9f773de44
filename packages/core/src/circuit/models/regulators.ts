/** What the type number of a fixed voltage regulator says. */
export interface RegulatorType {
  readonly name: string;
  /** Nominal output against its common pin, V; negative for a negative regulator. */
  readonly volt: number;
  /** Least voltage between input and output, V. */
  readonly dropout: number;
  /** Most current of the output, A. */
  readonly limit: number;
  /** Own consumption, A. */
  readonly IQ: number;
}

/** Voltages that are sold, V. */
const VOLTS = [5, 6, 8, 9, 10, 12, 15, 18, 20, 24];

/** The families by the letter of their size: typical data-sheet values, from memory. */
const FAMILIES = [
  { head: '78', sign: 1, dropout: 2, limit: 1.5, IQ: 5e-3 },
  { head: '78M', sign: 1, dropout: 2, limit: 0.5, IQ: 4.5e-3 },
  { head: '78L', sign: 1, dropout: 1.7, limit: 0.1, IQ: 3e-3 },
  { head: '79', sign: -1, dropout: 1.1, limit: 1.5, IQ: 1.5e-3 },
  { head: '79M', sign: -1, dropout: 1.1, limit: 0.5, IQ: 1.5e-3 },
  { head: '79L', sign: -1, dropout: 1.7, limit: 0.1, IQ: 2e-3 },
] as const;

/** Three-terminal regulators that are sold under the same number by many makers; the adjustable ones hold 1.25 V. */
export const REGULATORS: readonly RegulatorType[] = [
  ...FAMILIES.flatMap(({ head, sign, ...rest }) =>
    VOLTS.map((volt) => ({ name: `${head}${String(volt).padStart(2, '0')}`, volt: sign * volt, ...rest })),
  ),
  { name: 'LM317', volt: 1.25, dropout: 2, limit: 1.5, IQ: 5e-5 },
  { name: 'LM337', volt: -1.25, dropout: 2, limit: 1.5, IQ: 6.5e-5 },
];

/** What makers set before the number of a regulator, and the tails of its grades and cases. */
const MAKERS = /^(?:lm|l|ua|µa|mc|ka|tl)(?=7[89])/;
const GRADES = /(?:ct|cv|acz|act|ac|a|c|t)$/;

/** The number that a regulator is listed under: "LM7805CT" is a 7805. */
export const regulatorNumber = (name: string): string =>
  name.trim().toLowerCase().replace(MAKERS, '').replace(GRADES, '');

/** The type of a regulator by its number, as makers print it; undefined for what is none of them. */
export function regulatorType(name: string | undefined): RegulatorType | undefined {
  if (name === undefined) return undefined;
  const wanted = regulatorNumber(name);
  return REGULATORS.find((r) => r.name.toLowerCase() === wanted);
}
