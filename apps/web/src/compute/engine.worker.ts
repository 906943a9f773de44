import type { Layer } from '@zemble/contract';
import { expose } from 'comlink';
import {
  positionTable,
  resolveLayer,
  tellingReadings,
  typedWarnings,
  type Circuit,
  type PartGroup,
  type SearchOptions,
  type SolveRequest,
  type UnitDocument,
} from '@zemble/core';
import { boardFor, workOf, type BoardRequest, type WorkRequest } from './building.ts';
import { compareRanges, compareSets, type CompareRequest } from './comparing.ts';
import { deepAnalysis, spreadRuns, type DeepRequest } from './deep.ts';
import { draw, type DrawRequest } from './drawing.ts';
import { partsShare, searchOf, type PartsRequest } from './finding.ts';
import { expectInCircuit, harmOf, judgeAll, shownOn, type JudgeRequest } from './measuring.ts';
import type { TypedRequest } from './use-typed-warnings.ts';
import { wayAt, waysAt, type WayRequest, type WaysRequest } from './ways.ts';
import { analyse, analyseSlowly, search, type AnalysisRequest } from './engine.ts';

type OnProgress = (fraction: number) => Promise<void>;

/** Does some work that tells how far it is: all of that has arrived before what comes of the work does. */
async function telling<T>(onProgress: OnProgress, work: (tell: (fraction: number) => void) => T): Promise<T> {
  const told: Promise<void>[] = [];
  const made = work((fraction) => told.push(onProgress(fraction)));
  await Promise.all(told);
  return made;
}

const engine = {
  analyse: (request: AnalysisRequest) => analyse(request),
  analyseSlowly: (document: UnitDocument) => analyseSlowly(document),
  deep: (request: DeepRequest, onProgress: OnProgress) =>
    telling(onProgress, (tell) => deepAnalysis(request, tell)),
  spread: (request: DeepRequest, seed: number, runs: number, onProgress: OnProgress) =>
    telling(onProgress, (tell) => spreadRuns(request, seed, runs, tell)),
  searchState: (document: UnitDocument, options: SearchOptions) => searchOf(document, options),
  dictionary: (request: PartsRequest, onProgress: OnProgress) =>
    telling(onProgress, (tell) => partsShare(request, tell)),
  tellingReadings: ({ circuit, group }: { circuit: Circuit; group: PartGroup }) =>
    tellingReadings(resolveLayer(circuit, 'found'), group.members),
  judge: (request: JudgeRequest) => judgeAll(request),
  expectInCircuit: (request: { document: UnitDocument; ref: string }) => expectInCircuit(request),
  shown: (request: { document: UnitDocument; layer: Layer }) => shownOn(request),
  harm: (document: UnitDocument, includesSlow: boolean) => harmOf(document, includesSlow),
  compareSets: (request: CompareRequest) => compareSets(request),
  compareRanges: (request: { document: UnitDocument; readoutId: string }) => compareRanges(request),
  draw: (request: DrawRequest) => draw(request),
  work: (request: WorkRequest) => workOf(request),
  typedWarnings: ({ circuit, steps }: TypedRequest) => typedWarnings(circuit, steps),
  ways: (request: WaysRequest) => waysAt(request),
  way: (request: WayRequest) => wayAt(request),
  positions: (document: UnitDocument, which: 'quick' | 'all') => positionTable(document, which),
  board: (request: BoardRequest, onProgress: OnProgress) =>
    telling(onProgress, (tell) => boardFor(request, tell)),
  search: (request: SolveRequest, onProgress: OnProgress) =>
    telling(onProgress, (tell) => search(request, tell)),
};

export type Engine = typeof engine;
expose(engine);
