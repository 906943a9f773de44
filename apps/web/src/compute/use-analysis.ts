import { useEffect, useMemo, useState } from 'react';
import type { ReadoutRow, UnitDocument } from '@halfsplit/core';
import type { Analysis, AnalysisRequest } from './engine.ts';
import { LatestRunner } from './runner.ts';

let quick: LatestRunner<AnalysisRequest, Analysis> | null = null;
let slow: LatestRunner<UnitDocument, readonly ReadoutRow[]> | null = null;
const quickRunner = () => (quick ??= new LatestRunner((engine, request) => engine.analyse(request)));
const slowRunner = () => (slow ??= new LatestRunner((engine, document) => engine.analyseSlowly(document)));

/**
 * The analysis of a document, computed in the background; the last one stays until the next is there. Readouts that
 * take runs in time follow when they are ready.
 */
export function useAnalysis(
  document: UnitDocument,
  response: { from: string; to: string } | null,
): Analysis | null {
  const [analysis, setAnalysis] = useState<Analysis | null>(null);
  const [slowRows, setSlowRows] = useState<readonly ReadoutRow[]>([]);
  const from = response?.from;
  const to = response?.to;
  useEffect(() => {
    let isCurrent = true;
    const nets = from !== undefined && to !== undefined ? { from, to } : null;
    quickRunner().run({ document, response: nets }, (made) => {
      if (isCurrent) setAnalysis(made);
    });
    return () => {
      isCurrent = false;
    };
  }, [document, from, to]);
  useEffect(() => {
    let isCurrent = true;
    slowRunner().run(document, (rows) => {
      if (isCurrent) setSlowRows(rows);
    });
    return () => {
      isCurrent = false;
    };
  }, [document]);
  return useMemo(
    () => analysis && { ...analysis, rows: [...analysis.rows, ...slowRows] },
    [analysis, slowRows],
  );
}
