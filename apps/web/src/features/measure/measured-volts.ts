import type { UnitResource } from '@zemble/contract';
import { netsOf, type UnitDocument, type VoltageUnit } from '@zemble/core';

/** The last voltage of a kind measured at each net: direct, of a tone, or of a ripple. */
export function measuredVolts(
  unit: UnitResource,
  { circuit }: UnitDocument,
  kind: VoltageUnit = 'V',
): ReadonlyMap<string, number> {
  const nets = new Set(netsOf(circuit));
  const points = new Map((unit.path?.testPoints ?? []).map((t) => [t.id, t.net]));
  const found = new Map<string, number>();
  for (const e of unit.evidence) {
    if (e.withdrawn || typeof e.saw === 'string' || e.saw.unit !== kind) continue;
    const net = points.get(e.at) ?? e.at;
    if (nets.has(net)) found.set(net, e.saw.value);
  }
  return found;
}
