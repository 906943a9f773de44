import type { UnitResource } from '@halfsplit/contract';
import { netsOf, type Quantity, type UnitDocument } from '@halfsplit/core';

export interface MeasuredQuantity {
  readonly quantity: Quantity;
  readonly value: number | null;
}

/**
 * What has been measured that a search among parts can use, the last of each: voltages of the evidence at nets, and
 * readings of resistors and capacitors in circuit.
 */
export function measuredQuantities(unit: UnitResource, { circuit }: UnitDocument): MeasuredQuantity[] {
  const nets = new Set(netsOf(circuit));
  const points = new Map((unit.path?.testPoints ?? []).map((t) => [t.id, t.net]));
  const found = new Map<string, MeasuredQuantity>();
  for (const e of unit.evidence) {
    if (e.withdrawn || typeof e.saw === 'string' || e.saw.unit !== 'V') continue;
    const net = points.get(e.at) ?? e.at;
    if (!nets.has(net) || net === circuit.ground) continue;
    found.set(`dcv ${net}`, { quantity: { kind: 'dcv', net }, value: e.saw.value });
  }
  for (const r of unit.readings) {
    if (r.withdrawn || r.condition !== 'in circuit') continue;
    const part = unit.parts.find((p) => p.id === r.partId)?.part;
    const kind = part?.kind === 'resistor' ? 'ohm' : part?.kind === 'capacitor' ? 'cap' : null;
    const { a, b } = part?.pins ?? {};
    if (kind === null || a === undefined || b === undefined) continue;
    const value = typeof r.value === 'number' ? r.value : r.value === 'open' ? null : 0;
    found.set(`${kind} ${a} ${b}`, { quantity: { kind, red: a, black: b }, value });
  }
  return [...found.values()];
}
