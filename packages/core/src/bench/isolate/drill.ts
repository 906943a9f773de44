import type { Hazard } from '@zemble/contract';
import type { Random } from '../../base/numeric/index.ts';
import type { Observation } from './evidence.ts';
import { offeredTests, rankTests, type School, type Test } from './next-test.ts';
import type { Path } from './path.ts';
import { modeShares, posteriorOf } from './suspects.ts';
import { FAULT_MODES, likelihoods, symptomOfMode, SYMPTOMS, type Symptom, type Trust } from './symptom.ts';

export interface DrillOptions {
  /** Block that has failed; every block in turn when absent. */
  readonly fault?: string;
  /** Share of the answers that are wrong. */
  readonly wrong?: number;
  /** Searches in all, shared over the faults by their weight; one a fault when absent. */
  readonly runs?: number;
  readonly random: Random;
  readonly hazards?: readonly Hazard[];
  readonly school?: School;
}

export interface DrilledFault {
  readonly id: string;
  /** Mean over its runs. */
  readonly tests: number;
  readonly minutes: number;
  /** In more than half of its runs. */
  readonly found: boolean;
  /** Share of its runs in which it was found. */
  readonly foundShare: number;
}

export interface DrillAnswer {
  readonly faults: readonly DrilledFault[];
  /** Means by the faults' weights. */
  readonly meanTests: number;
  readonly meanMinutes: number;
  readonly worstTests: number;
  readonly foundShare: number;
}

/** A searcher who knows that no answer is wrong leaves next to no room for a slip, and goes on until all others are cleared. */
const LEAST_WRONG = 1e-6;
/** The search ends when one group of blocks that no test can tell apart holds this much of the suspicion. */
const SURE = 0.9999;
const SURE_WITH_ERRORS = 0.985;
const MOST_TESTS = 80;

/** Plays the search against planted single faults with simulated answers, a share of them wrong. */
export function drill(path: Path, options: DrillOptions): DrillAnswer {
  const wrong = options.wrong ?? 0;
  const planted = options.fault === undefined ? path.blocks.map((_, i) => i) : [path.indexOf(options.fault)!];
  const weights = planted.map((b) => path.blocks[b]!.weight);
  const whole = weights.reduce((a, b) => a + b, 0);
  const search = new Search(path, wrong, options);
  const counts = runsOf(weights, options.runs);
  let worstTests = 0;
  const faults = planted.map((block, i): DrilledFault => {
    let [tests, minutes, found] = [0, 0, 0];
    for (let run = 0; run < counts[i]!; run += 1) {
      const one = search.play(block);
      tests += one.tests;
      minutes += one.minutes;
      found += one.isFound ? 1 : 0;
      worstTests = Math.max(worstTests, one.tests);
    }
    const n = counts[i]!;
    return {
      id: path.blocks[block]!.id,
      tests: tests / n,
      minutes: minutes / n,
      found: found * 2 > n,
      foundShare: found / n,
    };
  });
  const mean = (of: (f: DrilledFault) => number) =>
    faults.reduce((sum, f, i) => sum + weights[i]! * of(f), 0) / whole;
  return {
    faults,
    meanTests: mean((f) => f.tests),
    meanMinutes: mean((f) => f.minutes),
    worstTests,
    foundShare: mean((f) => f.foundShare),
  };
}

/** Runs for each fault: at least one, the rest by weight. */
function runsOf(weights: readonly number[], runs: number | undefined): number[] {
  if (runs === undefined) return weights.map(() => 1);
  const whole = weights.reduce((a, b) => a + b, 0);
  return weights.map((w) => Math.max(1, Math.round((runs * w) / whole)));
}

class Search {
  private readonly path: Path;
  private readonly tests: readonly Test[];
  private readonly wrong: number;
  private readonly trust: Trust;
  private readonly options: DrillOptions;
  private readonly groups: Int32Array;

  constructor(path: Path, wrong: number, options: DrillOptions) {
    this.path = path;
    // Round a ring nothing is planted: what may show there or not would be a matter of luck.
    const none = new Uint8Array(path.blocks.length);
    this.tests = offeredTests(path, { hazards: options.hazards }).offered.map((t) => ({
      ...t,
      looped: none,
    }));
    this.wrong = wrong;
    this.trust = { wrong: Math.max(wrong, LEAST_WRONG), confused: 0.2, hidden: 0 };
    this.options = options;
    this.groups = groupsOf(path, this.tests);
  }

  play(block: number): { tests: number; minutes: number; isFound: boolean } {
    const { path, options } = this;
    const mode = this.modeOf(block);
    const observations: Observation[] = [];
    let minutes = 0;
    for (;;) {
      const posterior = posteriorOf(path, observations, { pairShare: 0 });
      const group = this.topGroup(posterior.single);
      const ranked = rankTests(path, this.tests, posterior, options.school, this.trust);
      const isSure = group.share >= (this.wrong > 0 ? SURE_WITH_ERRORS : SURE);
      if (isSure || ranked.length === 0 || observations.length >= MOST_TESTS)
        return { tests: observations.length, minutes, isFound: this.groups[block] === group.id };
      const { test } = ranked[0]!;
      minutes += test.minutes;
      observations.push(this.answer(test, block, mode));
    }
  }

  /** How the planted block fails: in its commonest way; with wrong answers, by chance among its ways. */
  private modeOf(block: number): number {
    // One dead output of several is left to the search: a drill plants what fails as a whole.
    const shares = modeShares(this.path, block).map((s, m) => (FAULT_MODES[m] === 'output' ? 0 : s));
    if (this.wrong === 0) return shares.indexOf(Math.max(...shares));
    let left = this.options.random() * shares.reduce((a, b) => a + b, 0);
    for (let mode = 0; mode < shares.length; mode += 1) {
      left -= shares[mode]!;
      if (left < 0) return mode;
    }
    return shares.indexOf(Math.max(...shares));
  }

  private answer(test: Test, block: number, mode: number): Observation {
    const drags = FAULT_MODES[mode] === 'drags';
    const shows = (drags ? test.dragged : test.relevant)[block] === 1;
    const truth: Symptom = shows ? symptomOfMode(FAULT_MODES[mode]!) : 'good';
    const isWrong = this.wrong > 0 && this.options.random() < this.wrong;
    const seen = !isWrong
      ? truth
      : truth === 'good'
        ? SYMPTOMS[1 + Math.floor(this.options.random() * (SYMPTOMS.length - 1))]!
        : 'good';
    return {
      evidence: { at: test.at, saw: seen },
      name: test.id,
      seen,
      likelihood: likelihoods(seen, this.trust),
      relevant: test.relevant,
      dragged: test.dragged,
      looped: test.looped,
      links: test.links,
      relieved: test.relieved,
      without: new Set(),
      minutes: test.minutes,
    };
  }

  private topGroup(single: Float64Array): { id: number; share: number } {
    const shares = new Map<number, number>();
    let whole = 0;
    single.forEach((p, block) => {
      const group = this.groups[block]!;
      shares.set(group, (shares.get(group) ?? 0) + p);
      whole += p;
    });
    const [id, share] = [...shares].reduce((a, b) => (b[1] > a[1] ? b : a));
    return { id, share: share / whole };
  }
}

/** Blocks that no test tells apart share a number. */
export function groupsOf(path: Path, tests: readonly Test[]): Int32Array {
  const known = new Map<string, number>();
  return Int32Array.from(path.blocks, (_, block) => {
    const drags = modeShares(path, block)[FAULT_MODES.indexOf('drags')]! > 0;
    const signature = tests
      .map((t) => (t.relevant[block] === 1 ? '1' : drags && t.dragged[block] === 1 ? 'd' : '0'))
      .join('');
    if (!known.has(signature)) known.set(signature, known.size);
    return known.get(signature)!;
  });
}
