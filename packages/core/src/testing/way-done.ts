import { expect } from 'vitest';
import { evaluateReadout, type Readout } from '../analysis/readouts/index.ts';
import { ZembleError } from '../base/errors/index.ts';
import { asksAt, makeWay, placeIn, WAYS, type Answers, type Chosen } from '../work/rework/ways/index.ts';
import { circuitOf, type Unnamed } from './circuits.ts';
import { sessionWith } from './with-steps.ts';

/** A way by its id. */
export const way = (id: string) => WAYS.find((w) => w.id === id)!;

/** A circuit with what a way of doing makes of it, computed anew from its steps. */
export function done(id: string, lines: string, chosen: Chosen, answers: Answers = {}) {
  const circuit = circuitOf(lines);
  const place = placeIn(circuit, chosen);
  const asks = asksAt(way(id), place);
  expect(asks, `${id} fits there`).not.toBeNull();
  const given = Object.fromEntries(asks!.map((a) => [a.id, a.given]));
  const made = makeWay(way(id), place, { ...given, ...answers });
  const session = sessionWith(circuit, made.steps);
  const reads = (what: Unnamed, controls: Readonly<Record<string, number | boolean | string>> = {}) => {
    const at = session.with({ controls: new Map(Object.entries(controls)) });
    const answer = evaluateReadout(at, { id: 'x', name: 'x', ...what } as Readout);
    if (!answer.ok) throw new Error(answer.problem.message);
    return answer.value;
  };
  const { parts } = session.circuit;
  const valueOf = (ref: string) => parts.find((p) => p.ref === ref)!.value as number;
  const lastOf = (kind: string) => parts.findLast((p) => p.kind === kind)!;
  return { made, reads, parts, valueOf, lastOf };
}

/** Why a way is refused at a place; nothing where it is not. */
export function refusal(id: string, lines: string, chosen: Chosen, answers: Answers = {}): string {
  const place = placeIn(circuitOf(lines), chosen);
  const asks = asksAt(way(id), place);
  if (!asks) return 'not offered';
  try {
    makeWay(way(id), place, { ...Object.fromEntries(asks.map((a) => [a.id, a.given])), ...answers });
    return '';
  } catch (error) {
    expect(error).toBeInstanceOf(ZembleError);
    return (error as ZembleError).message;
  }
}

/** The ways that offer themselves at a place. */
export const offered = (lines: string, chosen: Chosen) => {
  const place = placeIn(circuitOf(lines), chosen);
  return WAYS.filter((w) => asksAt(w, place)).map((w) => w.id);
};

export const RAILS = 'V1 15V vp 0\nV2 15V 0 vm';
/** A stage that does not invert: 1 + R3/R2. */
export const PLUS = `${RAILS}\nG1 10mV in 0\nR1 100k in 0
  U1 TL072 plus=in minus=m out=out vplus=vp vminus=vm\nR2 1k m 0\nR3 10k out m`;
export const gain = (from: string, to: string, frequencyHz = 1000): Unnamed => ({
  kind: 'gain',
  from,
  to,
  frequencyHz,
});
export const decibel = (ratio: number) => 20 * Math.log10(ratio);
