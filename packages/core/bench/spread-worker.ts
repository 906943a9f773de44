import { parentPort, workerData } from 'node:worker_threads';
import {
  AnalysisSession,
  readoutRuns,
  resolveLayer,
  seededRandom,
  spreadParts,
  type Circuit,
  type Readout,
} from '../src/index.ts';

/** One worker of the tolerance bench: makes its share of the runs each time it is asked, after a warm-up. */
const { circuit, readouts, seed } = workerData as { circuit: Circuit; readouts: Readout[]; seed: number };
const resolved = resolveLayer(circuit, 'marked');
const session = new AnalysisSession(resolved);
const parts = spreadParts(resolved, () => 0.05);
const make = (runs: number) =>
  readoutRuns(session, readouts, { readouts }, parts, { runs, random: seededRandom(seed) });
make(500);
parentPort!.on('message', (runs: number) => parentPort!.postMessage(make(runs).values));
parentPort!.postMessage('ready');
