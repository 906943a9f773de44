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

/** The parts that can be measured, in the order of the sheet, each with its latest reading and the verdict on it. */
export function measuredParts(unit: UnitResource): MeasuredPart[] {
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
        verdict: reading && judgeReading(part, reading),
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
