import type { UnitDocument, Verdict, Weighed } from '@zemble/core';
import type { Layer } from '@zemble/contract';
import { useEffect, useState } from 'react';
import { isSlow } from './is-slow.ts';
import type { JudgeRequest } from './measuring.ts';
import { LatestRunner } from './runner.ts';

type Judges = LatestRunner<JudgeRequest, [string, Verdict][]>;
/** The reading just entered never waits for the others. */
const judges: Partial<Record<'last' | 'all', Judges>> = {};
/** What takes runs in time follows. */
const weighers: Partial<Record<'quick' | 'all', LatestRunner<UnitDocument, Weighed>>> = {};

const NONE: ReadonlyMap<string, Verdict> = new Map();

/**
 * Verdicts on readings with the circuit around their parts, computed in a worker; the last ones stay while new ones are
 * made.
 */
export function useJudgements(request: JudgeRequest, which: 'last' | 'all'): ReadonlyMap<string, Verdict> {
  const [verdicts, setVerdicts] = useState(NONE);
  useEffect(() => {
    if (request.readings.length === 0) return;
    let isCurrent = true;
    judges[which] ??= new LatestRunner(
      which === 'last' ? 'at hand' : 'shown',
      async (engine, r: JudgeRequest) => engine.judge(r),
    );
    judges[which].run(request, (answer) => {
      if (isCurrent) setVerdicts(new Map(answer));
    });
    return () => {
      isCurrent = false;
    };
  }, [request, which]);
  return request.readings.length === 0 ? NONE : verdicts;
}

let expecters: LatestRunner<{ document: UnitDocument; ref: string }, string | null> | null = null;

/** What a meter would show across a part in its circuit, computed in a worker; null until it is known, or when it cannot be. */
export function useExpectedInCircuit(document: UnitDocument, ref: string | null): string | null {
  const [expected, setExpected] = useState<{ ref: string; words: string | null } | null>(null);
  useEffect(() => {
    if (ref === null) return;
    let isCurrent = true;
    expecters ??= new LatestRunner('shown', async (engine, r: { document: UnitDocument; ref: string }) =>
      engine.expectInCircuit(r),
    );
    expecters.run({ document, ref }, (words) => {
      if (isCurrent) setExpected({ ref, words });
    });
    return () => {
      isCurrent = false;
    };
  }, [document, ref]);
  return expected !== null && expected.ref === ref ? expected.words : null;
}

/**
 * What the drifts of a unit do, computed in a worker; null until the first answer. Readouts that take runs in time are
 * weighed afterwards: until then they are named as left out.
 */
export function useHarm(document: UnitDocument): Weighed | null {
  const [harm, setHarm] = useState<Weighed | null>(null);
  useEffect(() => {
    let isCurrent = true;
    let isComplete = false;
    const weigh = (which: 'quick' | 'all') => {
      weighers[which] ??= new LatestRunner(
        which === 'quick' ? 'shown' : 'later',
        async (engine, d: UnitDocument) => engine.harm(d, which === 'all'),
      );
      weighers[which].run(document, (answer) => {
        if (!isCurrent || isComplete) return;
        isComplete = which === 'all';
        setHarm(answer);
      });
    };
    weigh('quick');
    if (document.readouts.some(isSlow)) weigh('all');
    return () => {
      isCurrent = false;
    };
  }, [document]);
  return harm;
}

type Volts = Readonly<Record<string, number>>;
let voltmeters: LatestRunner<{ document: UnitDocument; layer: Layer }, Volts | null> | null = null;

/** Volt by net as a 10 Mohm voltmeter shows it, computed in a worker; null until it is known, and where it cannot be. */
export function useShownVolts(document: UnitDocument, layer: Layer): Volts | null {
  const [shown, setShown] = useState<Volts | null>(null);
  useEffect(() => {
    let isCurrent = true;
    voltmeters ??= new LatestRunner('shown', async (engine, r) => engine.shown(r));
    voltmeters.run({ document, layer }, (answer) => {
      if (isCurrent) setShown(answer);
    });
    return () => {
      isCurrent = false;
    };
  }, [document, layer]);
  return shown;
}
