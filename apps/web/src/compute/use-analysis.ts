import { useEffect, useMemo, useRef, useState } from 'react';
import { flushSync } from 'react-dom';
import type { ReadoutRow, UnitDocument } from '@zemble/core';
import type { Analysis, AnalysisRequest } from './engine.ts';
import { isSlow } from './is-slow.ts';
import { LatestRunner } from './runner.ts';
import { useLatest } from './use-latest.ts';

/** An analysis with the rows of the one before that say the same: only what has changed is shown anew. */
function withKeptRows(made: Analysis, last: Analysis | null): Analysis {
  const before = new Map(last?.rows.map((row) => [row.id, row]));
  const rows = made.rows.map((row) => {
    const known = before.get(row.id);
    return known && JSON.stringify(known) === JSON.stringify(row) ? known : row;
  });
  return { ...made, rows };
}

const analyses = new LatestRunner<AnalysisRequest, Analysis>('at hand', async (engine, request) =>
  engine.analyse(request),
);
const slowRows = new LatestRunner<UnitDocument, readonly ReadoutRow[]>('later', async (engine, document) =>
  engine.analyseSlowly(document),
);
const NO_ROWS: readonly ReadoutRow[] = [];

/** The analysis that is shown, and why there is none of the document of now. */
export interface AnalysisView {
  readonly analysis: Analysis | null;
  readonly why: string | null;
}

/** An analysis with what it is of. */
interface Made {
  readonly analysis: Analysis;
  readonly of: UnitDocument;
}

/**
 * The analysis of a document, computed in the background; the last one stays until the next is there, and says that it is of an
 * earlier state. Readouts that take runs in time follow when they are ready.
 */
export function useAnalysis(
  document: UnitDocument,
  response: { from: string; to: string } | null,
): AnalysisView {
  const [quick, setQuick] = useState<Made | null>(null);
  const [failed, setFailed] = useState<{ readonly of: UnitDocument; readonly why: string } | null>(null);
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
    analyses.run({ document, response: nets }, (outcome) => {
      if (!isHere.current) return;
      if (!outcome.ok) return setFailed({ of: document, why: outcome.why });
      // At once, before the next frame: it is what somebody who turns a value waits for. Answers come in the order of the
      // questions, so that each is newer than the last, also while the value is turned on.
      flushSync(() =>
        setQuick((last) => ({
          analysis: withKeptRows(outcome.answer, last?.analysis ?? null),
          of: document,
        })),
      );
    });
  }, [document, from, to]);
  const slow = useLatest(slowRows, hasSlow ? document : null);
  return useMemo(() => {
    const isOfNow = quick?.of === document;
    const why = (!isOfNow && failed?.of === document ? failed.why : null) ?? slow.why;
    if (!quick) return { analysis: null, why };
    const isSlowPending = hasSlow && !slow.isCurrent;
    const rows = hasSlow ? [...quick.analysis.rows, ...(slow.made?.answer ?? NO_ROWS)] : quick.analysis.rows;
    return {
      analysis: { ...quick.analysis, rows, isSlowPending, isCurrent: isOfNow && !isSlowPending },
      why,
    };
  }, [quick, failed, slow, document, hasSlow]);
}
