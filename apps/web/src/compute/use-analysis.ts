import { useEffect, useState } from 'react';
import type { UnitDocument } from '@halfsplit/core';
import type { Analysis } from './engine.ts';
import { AnalysisRunner } from './runner.ts';

let shared: AnalysisRunner | null = null;
const runner = () => (shared ??= new AnalysisRunner());

/** The analysis of a document, computed in the background; the last one stays until the next is there. */
export function useAnalysis(
  document: UnitDocument,
  response: { from: string; to: string } | null,
): Analysis | null {
  const [analysis, setAnalysis] = useState<Analysis | null>(null);
  const from = response?.from;
  const to = response?.to;
  useEffect(() => {
    let isCurrent = true;
    const nets = from !== undefined && to !== undefined ? { from, to } : null;
    runner().run({ document, response: nets }, (made) => {
      if (isCurrent) setAnalysis(made);
    });
    return () => {
      isCurrent = false;
    };
  }, [document, from, to]);
  return analysis;
}
