import type { PartResource, ReadingResource, UnitResource } from '@halfsplit/contract';
import { judgeReading, KINDS, normalisePart, severity, type Part, type Verdict } from '@halfsplit/core';

export interface MeasuredPart {
  readonly resource: PartResource;
  readonly part: Part;
  /** The latest reading, trusted or not. */
  readonly reading: ReadingResource | undefined;
  readonly verdict: Verdict | undefined;
  readonly readingCount: number;
}

/** Kinds whose value a meter reads out of circuit. */
export const isMeasurable = (part: Part): boolean => {
  const { value } = KINDS[part.kind];
  return (value === 'resistor' || value === 'capacitor' || value === 'inductor') && part.kind !== 'load';
};

/**
 * The parts that can be measured, in the order of the sheet, each with its latest reading and the verdict on it;
 * `inCircuit` has the verdicts that take the circuit around a part into account.
 */
export function measuredParts(
  unit: UnitResource,
  inCircuit: ReadonlyMap<string, Verdict> = new Map(),
): MeasuredPart[] {
  return unit.parts.flatMap((resource) => {
    const part = normalisePart(resource.part, resource.part.ref, []);
    if (!isMeasurable(part)) return [];
    const readings = unit.readings.filter((r) => r.partId === resource.id && !r.withdrawn);
    const reading = readings.at(-1);
    return [
      {
        resource,
        part,
        reading,
        verdict:
          reading &&
          ((reading.condition === 'in circuit' && inCircuit.get(part.ref)) || judgeReading(part, reading)),
        readingCount: readings.length,
      },
    ];
  });
}

/** Worst first; what has not been measured keeps its order at the end. */
export function byHarm(parts: readonly MeasuredPart[]): MeasuredPart[] {
  return [...parts].sort((a, b) => severity(b.verdict) - severity(a.verdict));
}

/** The part a run goes on with after `ref`: the next without a reading, from there on and then from the start. */
export function nextToMeasure(
  parts: readonly MeasuredPart[],
  ref: string | null,
  skipped: ReadonlySet<string>,
): MeasuredPart | undefined {
  const start = parts.findIndex((p) => p.part.ref === ref) + 1;
  const order = [...parts.slice(start), ...parts.slice(0, start)];
  return order.find((p) => !p.reading && !skipped.has(p.part.ref));
}

/** In which order a run goes through the parts. */
export const ORDERS = ['as typed', 'by suspicion', 'by harm'] as const;
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
