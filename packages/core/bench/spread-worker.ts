import { parentPort, workerData } from 'node:worker_threads';
import {
  BenchModel,
  readoutRuns,
  seededRandom,
  spreadParts,
  type Circuit,
  type Readout,
} from '../src/index.ts';

/** One worker of the tolerance bench: makes its share of the runs each time it is asked, after a warm-up. */
const { circuit, readouts, seed } = workerData as { circuit: Circuit; readouts: Readout[]; seed: number };
const model = new BenchModel(circuit, 'marked');
const parts = spreadParts(circuit, model, () => 0.05);
const make = (runs: number) =>
  readoutRuns(model, readouts, readouts, parts, { runs, random: seededRandom(seed) });
make(500);
parentPort!.on('message', (runs: number) => parentPort!.postMessage(make(runs)));
parentPort!.postMessage('ready');
