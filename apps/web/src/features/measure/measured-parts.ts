import type { ReadingResource, UnitResource } from '@zemble/contract';
import {
  aspectsOf,
  bareAspect,
  foundParams,
  judgeReading,
  KINDS,
  partsInPlace,
  severity,
  withEsr,
  type Part,
  type PartInPlace,
  type Verdict,
} from '@zemble/core';

/** Something else that was read of a part: a junction, a leakage, a contact. */
export interface AspectReading {
  readonly aspect: string;
  readonly reading: ReadingResource;
  readonly verdict: Verdict | undefined;
}

export interface MeasuredPart {
  readonly place: PartInPlace;
  readonly part: Part;
  /** It has a value that a meter reads, so that a run goes through it; others are measured when they are chosen. */
  readonly isInRun: boolean;
  /** The latest reading of its value, trusted or not. */
  readonly reading: ReadingResource | undefined;
  readonly verdict: Verdict | undefined;
  readonly readingCount: number;
  /** What else was read of it, the last of each. */
  readonly aspects: readonly AspectReading[];
}

/** Kinds whose value a meter reads out of circuit. */
export const isMeasurable = (part: Part): boolean => {
  const { value } = KINDS[part.kind];
  return (value === 'resistor' || value === 'capacitor' || value === 'inductor') && bareAspect(part) === null;
};

/** Under which a verdict from the worker is kept: the reading with what was told of it, so that none is shown at another. */
export const verdictKey = ({
  id,
  red,
  isAsDrawn,
}: Pick<ReadingResource, 'id' | 'red' | 'isAsDrawn'>): string => `${id} ${red ?? ''} ${isAsDrawn}`;

/**
 * The parts that can be measured, in the order of the sheet, each with its latest reading and the verdict on it;
 * `judged` has the verdicts that take the circuit around a part into account.
 */
export function measuredParts(
  unit: UnitResource,
  judged: ReadonlyMap<string, Verdict> = new Map(),
): MeasuredPart[] {
  return partsInPlace(unit).flatMap((place) => {
    const { part, readings: all } = place;
    const isInRun = isMeasurable(part);
    if (!isInRun && aspectsOf(part).length === 0) return [];
    const readings = all.filter((r) => r.aspect === null);
    const reading = readings.at(-1);
    const last = new Map(all.flatMap((r) => (r.aspect === null ? [] : [[r.aspect, r] as const])));
    // A series resistance once read stays with the part, whatever else is read of it later.
    const { esr } = foundParams(part, all);
    return [
      {
        place,
        part,
        isInRun,
        reading,
        verdict:
          reading &&
          ((reading.condition === 'in circuit' && judged.get(verdictKey(reading))) ||
            withEsr(part, judgeReading(part, reading), esr)),
        readingCount: readings.length,
        aspects: [...last].map(([aspect, r]) => ({
          aspect,
          reading: r,
          verdict: judged.get(verdictKey(r)),
        })),
      },
    ];
  });
}

/** Worst first; what has not been measured keeps its order at the end. */
export function byHarm(parts: readonly MeasuredPart[]): MeasuredPart[] {
  const worst = (p: MeasuredPart) =>
    Math.max(severity(p.verdict), ...p.aspects.map((a) => severity(a.verdict)));
  return [...parts].sort((a, b) => worst(b) - worst(a));
}

/** The part a run goes on with after `ref`: the next without a reading, from there on and then from the start. */
export function nextToMeasure(
  parts: readonly MeasuredPart[],
  ref: string | null,
  skipped: ReadonlySet<string>,
): MeasuredPart | undefined {
  const start = parts.findIndex((p) => p.part.ref === ref) + 1;
  const order = [...parts.slice(start), ...parts.slice(0, start)];
  return order.find((p) => p.isInRun && !p.reading && !skipped.has(p.part.ref));
}

/** In which order a run goes through the parts. */
export const ORDERS = ['as typed', 'by suspicion', 'by harm', 'by board position'] as const;
export type Order = (typeof ORDERS)[number];

/** The parts in an order; `rank` gives what counts for it, larger first, and ties keep the order of the sheet. */
export function ordered(parts: readonly MeasuredPart[], rank: (ref: string) => number): MeasuredPart[] {
  return [...parts].sort((a, b) => rank(b.part.ref) - rank(a.part.ref));
}

export interface Repeated {
  readonly count: number;
  readonly mean: number;
  /** Standard deviation over the repeated readings. */
  readonly spread: number;
}

/** Statistics over repeated readings of one part under one condition; null for fewer than two numbers. */
export function repeated(readings: readonly ReadingResource[]): Repeated | null {
  const last = readings.at(-1);
  const values = readings.flatMap((r) =>
    r.condition === last?.condition && typeof r.value === 'number' ? [r.value] : [],
  );
  if (values.length < 2) return null;
  const mean = values.reduce((a, b) => a + b, 0) / values.length;
  const squares = values.reduce((sum, v) => sum + (v - mean) ** 2, 0);
  return { count: values.length, mean, spread: Math.sqrt(squares / (values.length - 1)) };
}
