import type { UnitDocument } from '../../circuit/circuit/index.ts';
import { complaintOf, complaintSentence } from './complaint.ts';
import {
  contradictions,
  isSameLook,
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
  /** Probability of its being faulty, alone or with another: over all blocks these add up to more than 1. */
  readonly probability: number;
  /** Probability of its being the only one: with those of the pairs these add up to 1. */
  readonly alone: number;
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
  /** What the complaint says of the outputs, as it was understood; null where it says nothing of them. */
  readonly complaint: string | null;
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

/** Why what was answered is asked once more; nothing of what was not. */
function againWords(path: Path, observations: readonly Observation[], test: Test): string {
  const { at, injectedAt, conditions } = test;
  const asked = {
    evidence: {
      at,
      saw: 'good' as const,
      ...(injectedAt === undefined ? {} : { injectedAt }),
      ...(conditions ? { conditions: [...conditions] } : {}),
    },
  };
  return observations.some((o) => isSameLook(path, o, asked))
    ? 'Once more, because all hangs on that answer, and one look in thirty is wrong. '
    : '';
}

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
  const ranked = rankTests(path, offered, posterior, options.school).slice(0, EXPLAINED);
  const complaint = complaintOf(path, unit.intake ?? {});
  const suspects = path.blocks
    .map((_, block): Suspect => ({
      block,
      probability: posterior.marginal[block]!,
      alone: posterior.single[block]!,
      why: whySuspect(path, observations, block),
    }))
    .sort((a, b) => b.probability - a.probability);
  return {
    suspects,
    next: ranked.map((r) => ({
      ...r,
      why: `${againWords(path, observations, r.test)}${whyTest(path, r, posterior)}`,
    })),
    offered,
    forbidden,
    observations,
    ignored,
    contradictions: unit.intake?.intermittent === true ? [] : contradictions(observations),
    complaint: complaint && complaintSentence(path, complaint),
    pairs: posterior.pairs.filter((p) => p.probability > NAMED_PAIR),
    posterior,
    testsToCome: testsToCome(posterior, ranked),
  };
}
