import type { Step } from '@zemble/contract';
import { AnalysisSession } from '../analysis/analysis/index.ts';
import { resolveLayer } from '../circuit/changes/index.ts';
import type { Circuit } from '../circuit/circuit/index.ts';

/** A circuit with steps that are planned, on the planned layer. */
export const sessionWith = (circuit: Circuit, steps: readonly Step[]): AnalysisSession =>
  new AnalysisSession(
    resolveLayer(
      { ...circuit, changes: [{ id: 'm', name: 'm', purpose: 'modification', state: 'planned', steps }] },
      'planned',
    ),
  );
