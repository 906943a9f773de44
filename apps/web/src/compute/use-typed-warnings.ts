import type { Step } from '@zemble/contract';
import type { Circuit, Problem } from '@zemble/core';
import { useMemo } from 'react';
import { LatestRunner } from './runner.ts';
import { useLatest } from './use-latest.ts';

/** A change that is being typed, with the circuit that it would be planned in. */
export interface TypedRequest {
  readonly circuit: Circuit;
  readonly steps: readonly Step[];
}

const runner = new LatestRunner<TypedRequest, readonly Problem[]>('shown', async (engine, request) =>
  engine.typedWarnings(request),
);
const NONE: readonly Problem[] = [];

/** What a typed change would ask too much of, or leave half done, computed in a worker; nothing while it is not read. */
export function useTypedWarnings(circuit: Circuit, steps: readonly Step[] | null): readonly Problem[] {
  const request = useMemo(() => (steps === null ? null : { circuit, steps }), [circuit, steps]);
  const { made, isCurrent } = useLatest(runner, request);
  return isCurrent && made ? made.answer : NONE;
}
