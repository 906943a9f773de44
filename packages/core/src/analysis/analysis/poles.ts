import { eigenvalues } from '../../base/numeric/index.ts';
import type { AnalysisSession } from './session.ts';
import { RealSolver } from './real-solver.ts';

/** A natural frequency, rad/s. */
export interface Pole {
  readonly re: number;
  readonly im: number;
  /** |p| / 2 pi. */
  readonly frequencyHz: number;
  /** |p| / (2 |Re p|). */
  readonly q: number;
}

export interface Poles {
  readonly poles: readonly Pole[];
  /** Every real part below zero. */
  readonly stable: boolean;
}

/** The pencil is inverted about this real frequency, rad/s: inside the audio band, where it is best conditioned. */
const SHIFT = 2 * Math.PI * 1000;
/** Eigenvalues this much smaller than the largest belong to poles at infinity. */
const INFINITE_RATIO = 1e-11;
/** Poles faster than this are those of rounding, rad/s: a thousand gigahertz. */
const FASTEST = 2 * Math.PI * 1e12;

/**
 * Natural frequencies about the operating point: s with det(G + s C) = 0, by the eigenvalues nu of (G + sigma C)^-1 C,
 * s = sigma - 1/nu. Both of a conjugate pair are listed; slowest first. Throws a ZembleError when the
 * eigenvalues do not converge.
 */
export function naturalFrequencies(session: AnalysisSession): Poles {
  const { system, smallSignal } = session;
  const n = system.size;
  const shifted = Float64Array.from(smallSignal.g, (g, slot) => g + SHIFT * smallSignal.c[slot]!);
  const solver = new RealSolver(system);
  if (solver.factor(shifted) >= 0) return { poles: [], stable: true };
  const matrix = new Float64Array(n * n);
  const column = new Float64Array(n + 1);
  const answer = new Float64Array(n + 1);
  const { rows, columns } = system.pattern;
  for (let c = 1; c <= n; c += 1) {
    column.fill(0);
    let isEmpty = true;
    for (let slot = 1; slot < rows.length; slot += 1) {
      if (columns[slot] !== c || smallSignal.c[slot] === 0) continue;
      column[rows[slot]!] = column[rows[slot]!]! + smallSignal.c[slot]!;
      isEmpty = false;
    }
    if (isEmpty) continue;
    solver.solve(column, answer);
    for (let r = 1; r <= n; r += 1) matrix[(r - 1) * n + c - 1] = answer[r]!;
  }
  const found = eigenvalues(n, matrix);
  if (!found) throw new Error('The natural frequencies did not converge.');
  const largest = Math.max(0, ...found.map((e) => Math.hypot(e.re, e.im)));
  const poles = found
    .filter((e) => Math.hypot(e.re, e.im) > INFINITE_RATIO * largest)
    .map((e): Pole => {
      const squared = e.re * e.re + e.im * e.im;
      const re = SHIFT - e.re / squared;
      const im = e.im / squared;
      const size = Math.hypot(re, im);
      return { re, im, frequencyHz: size / (2 * Math.PI), q: size / (2 * Math.abs(re)) };
    })
    .filter((p) => Math.hypot(p.re, p.im) < FASTEST)
    .sort((a, b) => a.frequencyHz - b.frequencyHz || b.im - a.im);
  return { poles, stable: poles.every((p) => p.re < 0) };
}
