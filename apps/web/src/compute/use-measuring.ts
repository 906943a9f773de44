import type { ExpectedReading, UnitDocument, Verdict, Weighed } from '@zemble/core';
import type { Layer } from '@zemble/contract';
import { useMemo } from 'react';
import { isSlow } from './is-slow.ts';
import type { JudgeRequest } from './measuring.ts';
import { LatestRunner } from './runner.ts';
import { useLatest } from './use-latest.ts';

type Verdicts = [string, Verdict][];
/** The reading just entered never waits for the others. */
const judges = {
  last: new LatestRunner<JudgeRequest, Verdicts>('at hand', async (engine, r) => engine.judge(r)),
  all: new LatestRunner<JudgeRequest, Verdicts>('shown', async (engine, r) => engine.judge(r)),
} as const;

const NONE: ReadonlyMap<string, Verdict> = new Map();

/**
 * Verdicts on readings with the circuit around their parts, computed in a worker; the last ones stay while new ones are
 * made, each under what was read of what.
 */
export function useJudgements(request: JudgeRequest, which: 'last' | 'all'): ReadonlyMap<string, Verdict> {
  const { made } = useLatest(judges[which], request.readings.length === 0 ? null : request);
  const verdicts = useMemo(() => (made ? new Map(made.answer) : NONE), [made]);
  return request.readings.length === 0 ? NONE : verdicts;
}

const expecters = new LatestRunner<{ document: UnitDocument; ref: string }, ExpectedReading | null>(
  'shown',
  async (engine, r) => engine.expectInCircuit(r),
);

/** What a meter should show across a part in its circuit, computed in a worker; null until it is known, or when it cannot be. */
export function useExpectedInCircuit(document: UnitDocument, ref: string | null): ExpectedReading | null {
  const request = useMemo(() => (ref === null ? null : { document, ref }), [document, ref]);
  const { made } = useLatest(expecters, request);
  return made !== null && made.of.ref === ref ? made.answer : null;
}

const weighers = {
  quick: new LatestRunner<UnitDocument, Weighed>('shown', async (engine, d) => engine.harm(d, false)),
  /** What takes runs in time follows. */
  all: new LatestRunner<UnitDocument, Weighed>('later', async (engine, d) => engine.harm(d, true)),
} as const;

/** What the drifts of a unit do, and why that could not be worked out. */
export interface Harm {
  readonly weighed: Weighed | null;
  readonly why: string | null;
}

/**
 * What the drifts of a unit do, computed in a worker. Readouts that take runs in time are weighed afterwards: until then they are
 * named as left out.
 */
export function useHarm(document: UnitDocument): Harm {
  const hasSlow = document.readouts.some(isSlow);
  const quick = useLatest(weighers.quick, document);
  const all = useLatest(weighers.all, hasSlow ? document : null);
  const made = all.isCurrent ? all.made : (quick.made ?? all.made);
  return { weighed: made?.answer ?? null, why: quick.why ?? all.why };
}

type Volts = Readonly<Record<string, number>>;
const voltmeters = new LatestRunner<{ document: UnitDocument; layer: Layer }, Volts | null>(
  'shown',
  async (engine, r) => engine.shown(r),
);

/** Volt by net as a 10 Mohm voltmeter shows it, computed in a worker; null until it is known for the circuit of now, and where it cannot be. */
export function useShownVolts(document: UnitDocument, layer: Layer): Volts | null {
  const request = useMemo(() => ({ document, layer }), [document, layer]);
  const { made } = useLatest(voltmeters, request);
  return made?.answer ?? null;
}
