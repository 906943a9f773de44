import type { UnitResource } from '@halfsplit/contract';
import type { Harm } from '../../compute/measuring.ts';
import type { Order } from './run.ts';

/** Latest reading of every part that was made in circuit. */
export function readingsInCircuit(unit: UnitResource) {
  return unit.parts.flatMap(({ id, part }) => {
    const reading = unit.readings.filter((r) => r.partId === id && !r.withdrawn).at(-1);
    return reading?.condition === 'in circuit'
      ? [{ ref: part.ref, value: reading.value, condition: reading.condition }]
      : [];
  });
}

/** What counts for an order of the run: harm of the drift, or suspicion of the block the part is in. */
export function rankBy(order: Order, unit: UnitResource, harm: Harm | null): (ref: string) => number {
  if (order === 'by harm') {
    const ranks = new Map((harm?.drifts ?? []).map((d, i, all) => [d.ref, all.length - i]));
    return (ref) => ranks.get(ref) ?? 0;
  }
  if (order === 'by suspicion') {
    const convicted = new Set((unit.intake.convicted ?? []).flatMap((c) => [c.ref ?? '', c.blockId ?? '']));
    const noted = new Set((unit.intake.notes ?? []).flatMap((n) => [n.ref ?? '', n.blockId ?? '']));
    const blockOf = new Map(
      (unit.path?.blocks ?? []).flatMap((b) => (b.parts ?? []).map((r) => [r, b.id] as const)),
    );
    const isWet = (ref: string) => unit.parts.find((p) => p.part.ref === ref)?.part['polarised'] === true;
    return (ref) => {
      const block = blockOf.get(ref) ?? '-';
      return (
        (convicted.has(ref) || convicted.has(block) ? 4 : 0) +
        (noted.has(ref) || noted.has(block) ? 2 : 0) +
        (isWet(ref) ? 1 : 0)
      );
    };
  }
  return () => 0;
}
