import type { UnitResource } from '@zemble/contract';
import { foundParams, isPolarised, partsInPlace, type Weighed } from '@zemble/core';
import type { JudgeRequest } from '../../compute/measuring.ts';
import { boardWalk } from './board-walk.ts';
import { verdictKey, type Order } from './measured-parts.ts';

/** Latest readings that only the circuit can judge: those in circuit, and those of junctions, contacts and the like. */
export function readingsForCircuit(
  unit: Pick<UnitResource, 'parts' | 'readings' | 'changes'>,
): JudgeRequest['readings'] {
  return partsInPlace(unit).flatMap(({ part, readings }) => {
    if (readings.length === 0) return [];
    const last = new Map(readings.map((r) => [r.aspect, r] as const));
    const { esr } = foundParams(part, readings);
    return [...last.values()]
      .filter((r) => r.condition === 'in circuit' || r.aspect !== null)
      .map(({ id, value, condition, aspect, red, isAsDrawn }) => ({
        key: verdictKey({ id, red, isAsDrawn }),
        ref: part.ref,
        value,
        condition,
        aspect,
        red,
        isAsDrawn,
        ...(aspect === null ? { esr } : {}),
      }));
  });
}

/** What counts for an order of the run: harm of the drift, suspicion of the block the part is in, or its place on a photo. */
export function rankBy(order: Order, unit: UnitResource, harm: Weighed | null): (ref: string) => number {
  switch (order) {
    case 'by harm':
      return rankIn((harm?.drifts ?? []).map((d) => d.ref));
    case 'by board position':
      return rankIn(boardWalk(unit));
    case 'by suspicion':
      return suspicionOf(unit);
    case 'as typed':
      return () => 0;
  }
}

function rankIn(refs: readonly string[]): (ref: string) => number {
  const ranks = new Map(refs.map((ref, i) => [ref, refs.length - i]));
  return (ref) => ranks.get(ref) ?? 0;
}

function suspicionOf(unit: UnitResource): (ref: string) => number {
  const convicted = new Set((unit.intake.convicted ?? []).flatMap((c) => [c.ref ?? '', c.blockId ?? '']));
  const noted = new Set((unit.intake.notes ?? []).flatMap((n) => [n.ref ?? '', n.blockId ?? '']));
  const blockOf = new Map(
    (unit.path?.blocks ?? []).flatMap((b) => (b.parts ?? []).map((r) => [r, b.id] as const)),
  );
  const isWet = (ref: string) => unit.parts.some((p) => p.part.ref === ref && isPolarised(p.part));
  return (ref) => {
    const block = blockOf.get(ref) ?? '-';
    return (
      (convicted.has(ref) || convicted.has(block) ? 4 : 0) +
      (noted.has(ref) || noted.has(block) ? 2 : 0) +
      (isWet(ref) ? 1 : 0)
    );
  };
}
