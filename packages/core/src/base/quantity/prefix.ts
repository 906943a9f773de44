/** SI prefixes of the trade (SI Brochure, 9th edition, table 7), with the spellings people type. */
export const PREFIXES: readonly {
  symbol: string;
  spellings: readonly string[];
  factor: number;
  exponent: number;
}[] = [
  { symbol: 'f', spellings: ['f'], factor: 1e-15, exponent: -15 },
  { symbol: 'p', spellings: ['p', 'P'], factor: 1e-12, exponent: -12 },
  { symbol: 'n', spellings: ['n', 'N'], factor: 1e-9, exponent: -9 },
  { symbol: 'µ', spellings: ['u', 'U', 'µ', 'μ'], factor: 1e-6, exponent: -6 },
  { symbol: 'm', spellings: ['m'], factor: 1e-3, exponent: -3 },
  { symbol: '', spellings: [''], factor: 1, exponent: 0 },
  { symbol: 'k', spellings: ['k', 'K'], factor: 1e3, exponent: 3 },
  { symbol: 'M', spellings: ['M', 'meg', 'Meg', 'MEG'], factor: 1e6, exponent: 6 },
  { symbol: 'G', spellings: ['G'], factor: 1e9, exponent: 9 },
  { symbol: 'T', spellings: ['T'], factor: 1e12, exponent: 12 },
];

const BY_SPELLING = new Map(PREFIXES.flatMap((p) => p.spellings.map((s) => [s, p.exponent] as const)));

/** Power of ten of a prefix as typed, or undefined. `k` and `K` are kilo, `M` is mega, `m` is milli. */
export function prefixExponent(spelling: string): number | undefined {
  return BY_SPELLING.get(spelling);
}

/**
 * Decimal digits times a power of ten, rounded once: "4.7" and 3 give exactly 4700, where 4.7 * 1000 need not.
 */
export function scaled(digits: string, exponent: number): number {
  return Number(`${digits}e${exponent}`);
}

/** Prefixes that are written beside a value, and the exponents between them. */
const [LEAST_EXPONENT, MOST_EXPONENT] = [-12, 9];

/** The prefix under which a value is written with one to three digits before the point. */
export function prefixFor(value: number): { readonly factor: number; readonly symbol: string } {
  const size = Math.abs(value);
  // Values just below a power of a thousand, as 999.9999999, belong to it.
  const power = size === 0 ? 0 : 3 * Math.floor(Math.log10(Number(size.toPrecision(12))) / 3);
  const exponent = Math.min(MOST_EXPONENT, Math.max(LEAST_EXPONENT, power));
  const { factor, symbol } = PREFIXES.find((p) => p.exponent === exponent)!;
  return { factor, symbol };
}
