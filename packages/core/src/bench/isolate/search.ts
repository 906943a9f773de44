import type { UnitDocument } from '../../circuit/circuit/index.ts';
import {
  contradictions,
  readEvidence,
  type Contradiction,
  type Ignored,
  type Observation,
} from './evidence.ts';
import { expectedVoltage, restingVolts } from './expected.ts';
import {
  disconnectingTests,
  offeredTests,
  rankTests,
  testsOf,
  testsToCome,
  whyTest,
  type ForbiddenTest,
  type RatedTest,
  type School,
  type Test,
} from './next-test.ts';
import type { Path } from './path.ts';
import { posteriorOf, whySuspect, type PairSuspect, type Posterior } from './suspects.ts';
import { weightsFor } from './weights.ts';

export interface Suspect {
  readonly block: number;
  /** Probability of its being faulty, alone or with another. */
  readonly probability: number;
  readonly why: string;
}

export type ProposedTest = RatedTest & { readonly why: string };

/** Where a search stands. */
export interface SearchState {
  /** Likeliest first. */
  readonly suspects: readonly Suspect[];
  readonly next: readonly ProposedTest[];
  /** Every test that may be made. */
  readonly offered: readonly Test[];
  readonly forbidden: readonly ForbiddenTest[];
  readonly observations: readonly Observation[];
  readonly ignored: readonly Ignored[];
  readonly contradictions: readonly Contradiction[];
  readonly pairs: readonly PairSuspect[];
  readonly posterior: Posterior;
  /** About how many more tests are needed. */
  readonly testsToCome: number;
}

export interface SearchOptions {
  readonly school?: School;
  /** Repairs that this workshop has finished: how often each kind of block was it. */
  readonly history?: Readonly<Record<string, number>>;
}

/** Tests that are explained and handed on. */
const EXPLAINED = 12;
/** A pair is named when it holds this much of the suspicion. */
const NAMED_PAIR = 0.02;

/** Suspects and next tests from a unit's evidence, intake and hazards. */
export function searchState(path: Path, unit: UnitDocument, options: SearchOptions = {}): SearchState {
  const { observations, ignored } = readEvidence(path, unit.evidence ?? [], {
    isIntermittent: unit.intake?.intermittent === true,
    expected: expectedVoltage(unit.circuit),
  });
  const posterior = posteriorOf(path, observations, { weights: weightsFor(path, unit, options.history) });
  const { offered, forbidden } = offeredTests(
    path,
    { hazards: unit.unit.hazards, volts: restingVolts(unit.circuit) },
    [...testsOf(path), ...disconnectingTests(path, observations)],
  );
  const ranked = rankTests(offered, posterior, options.school).slice(0, EXPLAINED);
  const suspects = path.blocks
    .map((_, block): Suspect => ({
      block,
      probability: posterior.marginal[block]!,
      why: whySuspect(path, observations, block),
    }))
    .sort((a, b) => b.probability - a.probability);
  return {
    suspects,
    next: ranked.map((r) => ({ ...r, why: whyTest(path, r, posterior) })),
    offered,
    forbidden,
    observations,
    ignored,
    contradictions: unit.intake?.intermittent === true ? [] : contradictions(observations),
    pairs: posterior.pairs.filter((p) => p.probability > NAMED_PAIR),
    posterior,
    testsToCome: testsToCome(posterior, ranked),
  };
}
