import type { UnitResource } from '@zemble/contract';
import { measuredInEvidence, type Measured, type UnitDocument } from '@zemble/core';

/**
 * What has been measured that a search among parts can use, the last of each: direct voltages and levels of the evidence at
 * nets, and readings of resistors and capacitors in circuit.
 */
export function measuredQuantities(unit: UnitResource, { circuit }: UnitDocument): Measured[] {
  const found = new Map<string, Measured>();
  for (const r of unit.readings) {
    if (r.withdrawn || r.condition !== 'in circuit' || r.aspect !== null) continue;
    const part = unit.parts.find((p) => p.id === r.partId)?.part;
    const kind = part?.kind === 'resistor' ? 'ohm' : part?.kind === 'capacitor' ? 'cap' : null;
    const { a, b } = part?.pins ?? {};
    if (kind === null || a === undefined || b === undefined) continue;
    const value = typeof r.value === 'number' ? r.value : r.value === 'open' ? null : 0;
    const [red, black] = r.red === 'b' ? [b, a] : [a, b];
    found.set(part!.ref, { quantity: { kind, red, black }, value });
  }
  const { evidence, path } = unit;
  const { measured } = measuredInEvidence({ circuit, evidence, path: path ?? undefined });
  return [...measured, ...found.values()];
}
