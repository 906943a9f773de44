import { useEffect, useMemo, useRef, useState } from 'react';
import { flushSync } from 'react-dom';
import type { ReadoutRow, UnitDocument } from '@zemble/core';
import type { Analysis, AnalysisRequest } from './engine.ts';
import { isSlow } from './is-slow.ts';
import { LatestRunner } from './runner.ts';

/** An analysis with the rows of the one before that say the same: only what has changed is shown anew. */
function withKeptRows(made: Analysis, last: Analysis | null): Analysis {
  const before = new Map(last?.rows.map((row) => [row.id, row]));
  const rows = made.rows.map((row) => {
    const known = before.get(row.id);
    return known && JSON.stringify(known) === JSON.stringify(row) ? known : row;
  });
  return { ...made, rows };
}

let quick: LatestRunner<AnalysisRequest, Analysis> | null = null;
let slowShared: LatestRunner<UnitDocument, readonly ReadoutRow[]> | null = null;
const quickRunner = () =>
  (quick ??= new LatestRunner('at hand', (engine, request) => engine.analyse(request)));
const slowRunner = () =>
  (slowShared ??= new LatestRunner('later', (engine, document) => engine.analyseSlowly(document)));

/**
 * The analysis of a document, computed in the background; the last one stays until the next is there. Readouts that
 * take runs in time follow when they are ready.
 */
export function useAnalysis(
  document: UnitDocument,
  response: { from: string; to: string } | null,
): Analysis | null {
  const [analysis, setAnalysis] = useState<Analysis | null>(null);
  const [slow, setSlow] = useState<{ rows: readonly ReadoutRow[]; of: UnitDocument | null }>({
    rows: [],
    of: null,
  });
  const hasSlow = document.readouts.some(isSlow);
  const from = response?.from;
  const to = response?.to;
  const isHere = useRef(true);
  useEffect(() => {
    isHere.current = true;
    return () => {
      isHere.current = false;
    };
  }, []);
  useEffect(() => {
    const nets = from !== undefined && to !== undefined ? { from, to } : null;
    quickRunner().run({ document, response: nets }, (made) => {
      // At once, before the next frame: it is what somebody who turns a value waits for. Answers come in the order of the
      // questions, so that each is newer than the last, also while the value is turned on.
      if (isHere.current) flushSync(() => setAnalysis((last) => withKeptRows(made, last)));
    });
  }, [document, from, to]);
  useEffect(() => {
    if (!hasSlow) return;
    let isCurrent = true;
    slowRunner().run(document, (rows) => {
      if (isCurrent) setSlow({ rows, of: document });
    });
    return () => {
      isCurrent = false;
    };
  }, [document, hasSlow]);
  return useMemo(
    () =>
      analysis && {
        ...analysis,
        rows: hasSlow ? [...analysis.rows, ...slow.rows] : analysis.rows,
        isSlowPending: hasSlow && slow.of !== document,
      },
    [analysis, slow, document, hasSlow],
  );
}
