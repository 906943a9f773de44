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

const engine = {
  analyse: (request: AnalysisRequest) => analyse(request),
  analyseSlowly: (document: UnitDocument) => analyseSlowly(document),
  deep: async (request: DeepRequest, onProgress: (fraction: number) => Promise<void>) => {
    const told: Promise<void>[] = [];
    const answer = deepAnalysis(request, (fraction) => told.push(onProgress(fraction)));
    await Promise.all(told);
    return answer;
  },
  spread: async (
    request: DeepRequest,
    seed: number,
    runs: number,
    onProgress: (fraction: number) => Promise<void>,
  ) => {
    const told: Promise<void>[] = [];
    const share = spreadRuns(request, seed, runs, (fraction) => told.push(onProgress(fraction)));
    await Promise.all(told);
    return share;
  },
  searchState: (document: UnitDocument, options: SearchOptions) => searchOf(document, options),
  dictionary: async (request: PartsRequest, onProgress: (fraction: number) => Promise<void>) => {
    const told: Promise<void>[] = [];
    const entries = partsShare(request, (fraction) => told.push(onProgress(fraction)));
    await Promise.all(told);
    return entries;
  },
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
  board: async (request: BoardRequest, onProgress: (fraction: number) => Promise<void>) => {
    const told: Promise<void>[] = [];
    const proposal = boardFor(request, (fraction) => told.push(onProgress(fraction)));
    await Promise.all(told);
    return proposal;
  },
  search: async (request: SolveRequest, onProgress: (fraction: number) => Promise<void>) => {
    const told: Promise<void>[] = [];
    const outcome = search(request, (fraction) => told.push(onProgress(fraction)));
    // Progress must arrive before the result does.
    await Promise.all(told);
    return outcome;
  },
};

export type Engine = typeof engine;
expose(engine);
