import type { IntakeData } from '@zemble/contract';
import { resolveLayer } from '../../circuit/changes/index.ts';
import { ELECTROLYTIC_F, isPolarised, type Circuit, type UnitDocument } from '../../circuit/circuit/index.ts';
import { complaintOf, complaintWeights } from './complaint.ts';
import { checkedKinds } from './first-checks.ts';
import { heardModes } from './heard.ts';
import type { Block, Path } from './path.ts';
import { modeShares } from './suspects.ts';
import { FAULT_MODES } from './symptom.ts';

/** A first check that came out fine leaves this much of the suspicion of the blocks it judges. */
const CHECKED_FINE = 0.1;
/** One that was the cause multiplies it. */
const CHECKED_GUILTY = 30;
/** Damage that is seen multiplies the suspicion of its block (common practice). */
const DAMAGED = 12;
/** Own repairs count as this many of the general experience. */
const HISTORY_BASE = 4;

/** An electrolytic's dielectric dries out over about this time, years. */
const DRYING_YEARS = 20;
/** Kinds of block that are electrolytics themselves. */
const WET_KINDS = ['reservoir capacitor', 'coupling capacitor'];
/** A block with electrolytics among its parts fails this much more often than one without (common practice). */
const WET = 1.3;

function electrolyticsOf(circuit: Circuit): ReadonlySet<string> {
  return new Set(
    resolveLayer(circuit, 'marked')
      .parts.filter((p) => p.kind === 'capacitor')
      .filter((p) => isPolarised(p) || (typeof p.value === 'number' && p.value >= ELECTROLYTIC_F))
      .map((p) => p.ref),
  );
}

/** Electrolytics dry out with the years; a block of nothing but solid parts does not. */
function technologyWeight(block: Block, electrolytics: ReadonlySet<string>, ageYears: number): number {
  const isKind = WET_KINDS.includes(block.kind.name);
  const hasOne = block.parts.some((ref) => electrolytics.has(ref));
  if (!isKind && !hasOne) return 1;
  return (isKind ? 1 : WET) * (1 + ageYears / DRYING_YEARS);
}

/**
 * Weight of each block before any test at a point: its own, times what notes of others, first checks, the sound of the
 * fault, which outputs it hits, and the workshop's own repairs say.
 */
export function weightsFor(
  path: Path,
  unit: UnitDocument,
  history: Readonly<Record<string, number>> = {},
): number[] {
  const intake: IntakeData = unit.intake ?? {};
  const modes = heardModes(intake.heard ?? []);
  const electrolytics = electrolyticsOf(unit.circuit);
  const told = complaintWeights(path, complaintOf(path, intake));
  return path.blocks.map((block, i) => {
    let weight = block.weight * told[i]! * technologyWeight(block, electrolytics, intake.ageYears ?? 0);
    for (const note of intake.notes ?? []) {
      const isOfPart = note.ref !== undefined && block.parts.includes(note.ref);
      if (note.blockId === block.id || isOfPart) weight *= note.weight;
    }
    for (const { target } of intake.damage ?? []) {
      const isThere =
        target !== undefined && (block.parts.includes(target) || path.pointNamed(target)?.block === i);
      if (isThere) weight *= DAMAGED;
    }
    for (const [id, outcome] of Object.entries(intake.checks ?? {})) {
      if (!checkedKinds(id).includes(block.kind.name)) continue;
      weight *= outcome === 'fine' ? CHECKED_FINE : CHECKED_GUILTY;
    }
    if (modes) {
      const shares = modeShares(path, i);
      weight *= FAULT_MODES.reduce((sum, mode, m) => sum + shares[m]! * modes[mode], 0);
    }
    const own = Object.hasOwn(history, block.kind.name) ? history[block.kind.name]! : 0;
    return weight * ((own + HISTORY_BASE) / HISTORY_BASE);
  });
}
