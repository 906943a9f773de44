import type { EvidenceResource, UnitResource } from '@halfsplit/contract';
import { netsOf, toneHzOf, type Circuit, type Quantity, type UnitDocument } from '@halfsplit/core';

export interface MeasuredQuantity {
  readonly quantity: Quantity;
  readonly value: number | null;
}

/**
 * What has been measured that a search among parts can use, the last of each: direct voltages and levels of the evidence at
 * nets, and readings of resistors and capacitors in circuit.
 */
export function measuredQuantities(unit: UnitResource, { circuit }: UnitDocument): MeasuredQuantity[] {
  const nets = new Set(netsOf(circuit));
  const points = new Map((unit.path?.testPoints ?? []).map((t) => [t.id, t.net]));
  const found = new Map<string, MeasuredQuantity>();
  for (const e of unit.evidence) {
    const net = points.get(e.at) ?? e.at;
    if (e.withdrawn || !nets.has(net) || net === circuit.ground) continue;
    const measured = quantityOf(e, net, circuit);
    if (measured) found.set(`${measured.quantity.kind} ${net}`, measured);
  }
  for (const r of unit.readings) {
    if (r.withdrawn || r.condition !== 'in circuit' || r.aspect !== null) continue;
    const part = unit.parts.find((p) => p.id === r.partId)?.part;
    const kind = part?.kind === 'resistor' ? 'ohm' : part?.kind === 'capacitor' ? 'cap' : null;
    const { a, b } = part?.pins ?? {};
    if (kind === null || a === undefined || b === undefined) continue;
    const value = typeof r.value === 'number' ? r.value : r.value === 'open' ? null : 0;
    found.set(`${kind} ${a} ${b}`, { quantity: { kind, red: a, black: b }, value });
  }
  return [...found.values()];
}

/** A voltage of the evidence as what was measured; null for what is no voltage, or a level without a tone to compare. */
function quantityOf({ saw }: EvidenceResource, net: string, circuit: Circuit): MeasuredQuantity | null {
  if (typeof saw === 'string') return null;
  if (saw.unit === 'V') return { quantity: { kind: 'dcv', net }, value: saw.value };
  const frequencyHz = toneHzOf(circuit);
  if (saw.unit !== 'Vrms' || frequencyHz === null) return null;
  return { quantity: { kind: 'level', net, frequencyHz }, value: saw.value * Math.SQRT2 };
}
