import type { UnitDocument, Verdict } from '@halfsplit/core';
import { useEffect, useState } from 'react';
import type { Harm, JudgeRequest } from './measuring.ts';
import { LatestRunner } from './runner.ts';

let judges: LatestRunner<JudgeRequest, [string, Verdict][]> | null = null;
let weighers: LatestRunner<UnitDocument, Harm> | null = null;

const NONE: ReadonlyMap<string, Verdict> = new Map();

/** Verdicts on readings in circuit, computed in a worker; the last ones stay while new ones are made. */
export function useJudgements(request: JudgeRequest): ReadonlyMap<string, Verdict> {
  const [verdicts, setVerdicts] = useState(NONE);
  useEffect(() => {
    if (request.readings.length === 0) return;
    let isCurrent = true;
    judges ??= new LatestRunner(async (engine, r: JudgeRequest) => engine.judge(r));
    judges.run(request, (answer) => {
      if (isCurrent) setVerdicts(new Map(answer));
    });
    return () => {
      isCurrent = false;
    };
  }, [request]);
  return request.readings.length === 0 ? NONE : verdicts;
}

/** What the drifts of a unit do, computed in a worker; null until the first answer. */
export function useHarm(document: UnitDocument): Harm | null {
  const [harm, setHarm] = useState<Harm | null>(null);
  useEffect(() => {
    let isCurrent = true;
    weighers ??= new LatestRunner(async (engine, d: UnitDocument) => engine.harm(d));
    weighers.run(document, (answer) => {
      if (isCurrent) setHarm(answer);
    });
    return () => {
      isCurrent = false;
    };
  }, [document]);
  return harm;
}
