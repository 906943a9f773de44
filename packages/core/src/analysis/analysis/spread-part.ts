import { isPassive, type LayerCircuit, type LayerPart } from '../../circuit/circuit/index.ts';
import type { AnalysisSession } from './session.ts';

/** A part whose value spreads, and by how much. */
export interface SpreadPart {
  readonly ref: string;
  readonly value: number;
  /** Fraction either way. */
  readonly tolerance: number;
  /** Parts of one group deviate together. */
  readonly group: string;
}

/** Parts with a numeric value and a tolerance (or the usual one of their kind). */
export function spreadParts(circuit: LayerCircuit, usual: (part: LayerPart) => number): SpreadPart[] {
  return circuit.parts.flatMap((part): SpreadPart[] => {
    const tolerance = part.tolerance ?? (isPassive(part.kind) ? usual(part) : 0);
    if (typeof part.value !== 'number' || tolerance === 0) return [];
    return [{ ref: part.ref, value: part.value, tolerance, group: part.matched ?? part.ref }];
  });
}

/** Spreading parts by their groups: one deviation moves all of a group. */
export interface SpreadGroups {
  readonly names: readonly string[];
  /** Group of each part. */
  readonly groupOf: readonly number[];
}

export function groupsOf(parts: readonly SpreadPart[]): SpreadGroups {
  const names = [...new Set(parts.map((p) => p.group))];
  const index = new Map(names.map((name, i) => [name, i]));
  return { names, groupOf: parts.map((p) => index.get(p.group)!) };
}

/** The session with every part at a deviation of its group, as a part of its tolerance, -1 to 1. */
export function deviated(
  session: AnalysisSession,
  parts: readonly SpreadPart[],
  { groupOf }: SpreadGroups,
  deviations: Float64Array,
): AnalysisSession {
  const values = new Map<string, number>();
  for (let i = 0; i < parts.length; i += 1) {
    const { ref, value, tolerance } = parts[i]!;
    values.set(ref, value * (1 + tolerance * deviations[groupOf[i]!]!));
  }
  return session.with({ values });
}
