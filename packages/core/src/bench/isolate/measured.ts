import type { EvidenceData } from '@zemble/contract';
import { netsOf, type Circuit, type LayerCircuit, type UnitDocument } from '../../circuit/circuit/index.ts';
import { voltageQuantities, type Measured } from './dictionary.ts';
import { toneHzOf } from './expected.ts';
import type { Quantity } from './prediction.ts';

/**
 * What the evidence says in volts at nets, the last of each: direct voltages, and levels of the tone as V peak. What was
 * withdrawn, ripple, and levels without a signal source to compare with are left out.
 */
export function measuredInEvidence({
  circuit,
  path,
  evidence,
}: Pick<UnitDocument, 'circuit' | 'path' | 'evidence'>): Measured[] {
  const nets = new Set(netsOf(circuit));
  const points = new Map((path?.testPoints ?? []).map((t) => [t.id, t.net]));
  const found = new Map<string, Measured>();
  for (const each of evidence ?? []) {
    const net = points.get(each.at) ?? each.at;
    if (each.withdrawn || !nets.has(net) || net === circuit.ground) continue;
    const measured = measuredAt(each, net, circuit);
    if (measured) found.set(`${measured.quantity.kind} ${net}`, measured);
  }
  return [...found.values()];
}

/** A voltage of the evidence as what was measured; null for what is no voltage, or a level without a tone to compare. */
function measuredAt({ saw }: Pick<EvidenceData, 'saw'>, net: string, circuit: Circuit): Measured | null {
  if (typeof saw === 'string') return null;
  if (saw.unit === 'V') return { quantity: { kind: 'dcv', net }, value: saw.value };
  const frequencyHz = toneHzOf(circuit);
  if (saw.unit !== 'Vrms' || frequencyHz === null) return null;
  return { quantity: { kind: 'level', net, frequencyHz }, value: saw.value * Math.SQRT2 };
}

/**
 * What a search among parts asks for: what was measured first, then what may be measured next, direct voltages at every
 * net, and with a signal source the level of its tone, since some faults show in no direct voltage.
 */
export function searchQuantities(circuit: LayerCircuit | Circuit, measured: readonly Quantity[]): Quantity[] {
  const key = (q: Quantity) => JSON.stringify(q);
  const known = new Set(measured.map(key));
  const voltages = voltageQuantities(circuit);
  const frequencyHz = toneHzOf(circuit);
  const levels = voltages.flatMap((q): Quantity[] =>
    q.kind === 'dcv' && frequencyHz !== null ? [{ kind: 'level', net: q.net, frequencyHz }] : [],
  );
  return [...measured, ...[...voltages, ...levels].filter((q) => !known.has(key(q)))];
}
