import { expose } from 'comlink';
import type { SolveRequest } from '@halfsplit/core';
import { analyse, search, type AnalysisRequest } from './engine.ts';

const engine = {
  analyse: (request: AnalysisRequest) => analyse(request),
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
