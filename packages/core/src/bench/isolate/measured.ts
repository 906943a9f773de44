import type { EvidenceData } from '@zemble/contract';
import { netsOf, type Circuit, type LayerCircuit, type UnitDocument } from '../../circuit/circuit/index.ts';
import { voltageQuantities, type Measured } from './dictionary.ts';
import { toneHzOf } from './expected.ts';
import type { Quantity } from './prediction.ts';

/** A test of the evidence that says nothing in a search among parts, and why. */
export interface LeftOut {
  readonly at: string;
  readonly why: string;
}

/** Two readings within this of one another are the same: a meter's last digits and what moves between two looks (common practice). */
const ALIKE_SHARE = 0.03;
const ALIKE_FLOOR_V = 0.02;
export const isReadAlike = (one: number, other: number): boolean =>
  Math.abs(one - other) <= ALIKE_FLOOR_V + ALIKE_SHARE * Math.max(Math.abs(one), Math.abs(other));

/** Units in which a direct voltage is told, V. */
const VOLTS: Readonly<Record<string, number>> = { V: 1, mV: 1e-3, µV: 1e-6, uV: 1e-6 };
const VOLTS_RMS: Readonly<Record<string, number>> = { Vrms: 1, mVrms: 1e-3 };
/** No bench has more, V. */
const MOST_V = 1e5;

/**
 * What the evidence says in volts at nets, the last of each: direct voltages, and levels of the tone as V peak. One that was read
 * twice, and alike, is sure. What was withdrawn is left out without a word; what else says nothing here, with its reason.
 */
export function measuredInEvidence({
  circuit,
  path,
  evidence,
}: Pick<UnitDocument, 'circuit' | 'path' | 'evidence'>): {
  readonly measured: Measured[];
  readonly leftOut: LeftOut[];
} {
  const nets = new Set(netsOf(circuit));
  const points = new Map((path?.testPoints ?? []).map((t) => [t.id, t.net]));
  const toneHz = toneHzOf(circuit);
  const found = new Map<string, Measured>();
  const leftOut: LeftOut[] = [];
  for (const { at, saw, withdrawn } of evidence ?? []) {
    // What was seen in words is for the search among blocks.
    if (withdrawn || typeof saw === 'string') continue;
    const net = points.get(at) ?? at;
    const read = nets.has(net) ? measuredAt(saw, net, circuit.ground, toneHz) : `there is no net "${net}"`;
    if (typeof read === 'string') {
      leftOut.push({ at, why: read });
      continue;
    }
    const key = `${read.quantity.kind} ${net}`;
    const before = found.get(key)?.value;
    const isSure = typeof before === 'number' && isReadAlike(before, read.value!);
    found.set(key, isSure ? { ...read, isSure } : read);
  }
  return { measured: [...found.values()], leftOut };
}

/** A voltage of the evidence as what was measured, or why it says nothing. */
function measuredAt(
  { value, unit }: Exclude<EvidenceData['saw'], string>,
  net: string,
  ground: string,
  frequencyHz: number | null,
): Measured | string {
  const [direct, rms] = [VOLTS[unit], VOLTS_RMS[unit]];
  if (direct === undefined && rms === undefined)
    return `a reading in ${unit} is no direct voltage and no level, which are given in V, mV or Vrms`;
  const volt = value * (direct ?? rms!);
  if (net === ground) return `"${net}" is the ground, which is 0 V whatever is wrong`;
  if (Math.abs(volt) > MOST_V) return `${value} ${unit} cannot be: read it again`;
  if (direct !== undefined) return { quantity: { kind: 'dcv', net }, value: volt };
  if (frequencyHz === null) return 'a level says nothing without a signal source in the sheet';
  return { quantity: { kind: 'level', net, frequencyHz }, value: volt * Math.SQRT2 };
}

/** Minutes at a net that no test point names, and to switch off, discharge and read a part in circuit (common practice). */
const USUAL_MINUTES = 1;
const READING_MINUTES = 2;

/** Minutes that a measurement takes, by the test points of the path. */
export function measuringMinutes(
  { path }: { readonly path?: UnitDocument['path'] | null },
  quantity: Quantity,
): number {
  if (quantity.kind !== 'dcv' && quantity.kind !== 'level') return READING_MINUTES;
  return path?.testPoints?.find((t) => t.net === quantity.net)?.minutes ?? USUAL_MINUTES;
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
