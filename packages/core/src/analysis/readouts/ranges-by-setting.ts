import type { Readout } from '@zemble/contract';
import type { AnalysisSession } from '../analysis/index.ts';
import type { Setting } from '../../circuit/circuit/index.ts';
import { evaluateReadout, type ReadoutsAround } from './evaluate.ts';
import type { Ends } from './range.ts';

/** What a knob reaches in one setting; no range where it has none, with the reason. */
export interface RangeInSetting {
  /** Null for the controls as they are drawn. */
  readonly setting: Setting | null;
  readonly ends: Ends | null;
  readonly sentence: string | null;
}

export interface RangesBySetting {
  readonly ranges: readonly RangeInSetting[];
  /** What all of them reach; null where they do not overlap, or fewer than two have a range. */
  readonly common: Ends | null;
}

/**
 * The range of a readout over a knob in every setting of a unit, that as it is drawn first, and what all of them reach.
 *
 * @param readout of the kind `range`; its own setting is left aside
 */
export function rangesBySetting(
  session: AnalysisSession,
  readout: Readout & { readonly kind: 'range' },
  around: ReadoutsAround,
): RangesBySetting {
  const settings: (Setting | null)[] = [null, ...(around.settings ?? [])];
  const ranges = settings.map((setting): RangeInSetting => {
    const { setting: _, ...free } = readout;
    const at: Readout = setting === null ? free : { ...free, setting: setting.id };
    const answer = evaluateReadout(session, at, around);
    if (!answer.ok) return { setting, ends: null, sentence: answer.problem.message };
    return { setting, ends: answer.range ?? null, sentence: null };
  });
  const known = ranges.flatMap((r) => (r.ends ? [r.ends] : []));
  const [min, max] = [Math.max(...known.map((e) => e.min)), Math.min(...known.map((e) => e.max))];
  return { ranges, common: known.length > 1 && min <= max ? { min, max } : null };
}
