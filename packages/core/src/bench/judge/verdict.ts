import type { Between, ReadingCondition } from '@zemble/contract';
import {
  isPolarised,
  KINDS,
  markedValue,
  usualTolerance,
  type LayerValue,
  type Part,
} from '../../circuit/circuit/index.ts';
import { isUsualDrift, technologyOf } from './ageing.ts';
import { formatCode, formatQuantity, QUANTITY_KINDS } from '../../base/quantity/index.ts';

export type VerdictKind =
  'in' | 'edge' | 'high' | 'low' | 'open' | 'short' | 'lossy' | 'cannot say' | 'no marking';

/** What would decide where no verdict was possible. */
export type Asked = 'red lead' | 'controls' | 'leg';

/** What a reading says about a part. */
export interface Verdict {
  readonly kind: VerdictKind;
  /** (reading - marked) / marked; null where that means nothing: of what is open, shorted or not decided. */
  readonly deviation: number | null;
  /** One plain sentence: "reads 32 % above 47k". */
  readonly sentence: string;
  /** True when the reading may stand as the part's found value: what the rest of the circuit cannot have made up. */
  readonly isTrusted: boolean;
  readonly asks?: Asked;
}

export interface JudgedReading {
  readonly value: Exclude<LayerValue, null>;
  readonly condition: ReadingCondition;
  /** What was read when it is not the main value; see `aspectsOf`. */
  readonly aspect?: string | null | undefined;
  /** Pin that had the red lead, where it is known. */
  readonly red?: string | null | undefined;
  /** All controls and switches stood as drawn. */
  readonly isAsDrawn?: boolean | undefined;
  /** Where the value lies, of one from a change: its standard deviation either way. */
  readonly between?: Between | null | undefined;
  /** Series resistance of a capacitor read with it, ohm. */
  readonly esr?: number | null | undefined;
}

/**
 * Width of the border on either side of a tolerance limit, as a part of the tolerance: a 68k of 10 % that reads 75k
 * stands at the border (common practice).
 */
export const BORDER = 0.1;
/** A reading beyond this many times the marking is an open part, below this part of it a short (common practice). */
const OPEN_RATIO = 100;
const SHORT_RATIO = 0.01;
/** An electrolytic with less than this part of its capacity has dried out (common practice). */
const DRY_RATIO = 0.5;

/**
 * Judges a reading against the marking. In circuit, other paths can only lower a resistance and only raise a capacity,
 * so a deviation in that direction proves nothing until a leg is lifted; the other one convicts.
 */
export function judgeReading(part: Part, reading: JudgedReading): Verdict {
  const isInCircuit = reading.condition === 'in circuit';
  const isCapacitance = part.kind === 'capacitor';
  const { value } = reading;
  if (value === 'open') {
    return verdict(
      'open',
      null,
      isInCircuit && isCapacitance ? 'reads open, even in circuit' : 'reads open',
      true,
    );
  }
  if (value === 'short') {
    if (isInCircuit)
      return { ...verdict('cannot say', null, 'reads short in circuit: lift a leg', false), asks: 'leg' };
    return verdict('short', null, 'reads short', true);
  }
  const marked = markedValue(part);
  if (typeof marked !== 'number' || !(marked > 0)) {
    const unit = QUANTITY_KINDS[KINDS[part.kind].value ?? 'number'];
    return verdict(
      'no marking',
      null,
      `${formatQuantity(value, unit)}, with no marking to compare`,
      !isInCircuit,
    );
  }
  const deviation = (value - marked) / marked;
  if (reading.condition === 'from a change')
    return judgeChange(part, { value, marked, ...(reading.between ? { between: reading.between } : {}) });
  const tolerance = usualTolerance(part);
  const canMislead = isCapacitance ? deviation > 0 : deviation < 0;
  const isBeyond = Math.abs(deviation) > tolerance * (1 + BORDER);
  if (isInCircuit && canMislead && isBeyond) {
    const why = isCapacitance ? 'neighbours may add to it' : 'a parallel path may lower it';
    const asked = verdict(
      'cannot say',
      null,
      `${offBy(deviation, part)}, in circuit: lift a leg, ${why}`,
      false,
    );
    return { ...asked, asks: 'leg' };
  }
  const ratio = value / marked;
  if (!isCapacitance && ratio > OPEN_RATIO)
    return verdict('open', null, `reads ${times(ratio)} its marking: open`, true);
  if (!isCapacitance && ratio < SHORT_RATIO)
    return verdict('short', null, `reads ${formatQuantity(value, unitOf(part))}: short`, true);
  if (isCapacitance && ratio < SHORT_RATIO)
    return verdict('open', null, 'has next to no capacity: open', true);
  if (isBeyond) {
    const isDry = isCapacitance && isPolarised(part) && ratio < DRY_RATIO;
    const why = isDry
      ? ': dried out'
      : isUsualDrift(part, deviation)
        ? `, as ${technologyOf(part)} does with age`
        : '';
    const sentence = `${offBy(deviation, part)}${why}`;
    return verdict(deviation > 0 ? 'high' : 'low', deviation, sentence, true);
  }
  if (Math.abs(deviation) >= tolerance * (1 - BORDER)) {
    return verdict(
      'edge',
      deviation,
      `${offBy(deviation, part)}, at the border of ${percent(tolerance)}`,
      true,
    );
  }
  return verdict('in', deviation, `within ${percent(tolerance)}`, true);
}

/** A change convicts or clears where this many standard deviations of it lie on one side of the tolerance's limit. */
const SURE_SIGMAS = 2;

/** A value that a change told, by its own error: it decides only where all that it may be lies on one side. */
function judgeChange(
  part: Part,
  { value, marked, between }: { readonly value: number; readonly marked: number; readonly between?: Between },
): Verdict {
  const { low: below, high: above } = between ?? { low: value };
  const low = Math.max(0, value - SURE_SIGMAS * (value - below));
  const high = above === undefined ? Number.POSITIVE_INFINITY : value + SURE_SIGMAS * (above - value);
  const tolerance = usualTolerance(part);
  const [least, most] = [marked * (1 - tolerance), marked * (1 + tolerance)];
  const deviation = (value - marked) / marked;
  const text = (size: number) => formatQuantity(size, unitOf(part), { digits: 3 });
  const range =
    low <= 0 && !Number.isFinite(high)
      ? 'a change this small says nothing of it'
      : !Number.isFinite(high)
        ? `from a change it is above ${text(low)}`
        : low <= 0
          ? `from a change it is below ${text(high)}`
          : `from a change it is between ${text(low)} and ${text(high)}`;
  if (low > most) return verdict('high', deviation, `${range}: above its ${percent(tolerance)}`, true);
  if (high < least) return verdict('low', deviation, `${range}: below its ${percent(tolerance)}`, true);
  if (low >= least && high <= most)
    return verdict('in', deviation, `${range}, within ${percent(tolerance)}`, true);
  const asked = verdict('cannot say', null, `${range}: lift a leg to know`, false);
  return { ...asked, asks: 'leg' };
}

const unitOf = (part: Part) => QUANTITY_KINDS[KINDS[part.kind].value ?? 'number'];
const times = (ratio: number) => `${Math.round(ratio)} times`;
const percent = (fraction: number) => `${Number((fraction * 100).toPrecision(2))} %`;
const verdict = (
  kind: VerdictKind,
  deviation: number | null,
  sentence: string,
  isTrusted: boolean,
): Verdict => ({
  kind,
  deviation,
  sentence,
  isTrusted,
});

function offBy(deviation: number, part: Part): string {
  const amount = Math.abs(deviation) * 100;
  const rounded = amount >= 10 ? Math.round(amount) : Number(amount.toFixed(1));
  return `reads ${rounded} % ${deviation < 0 ? 'below' : 'above'} ${formatCode(Number(markedValue(part)), 3, part.kind === 'capacitor' ? 'F' : 'R')}`;
}

/** How far a verdict is from harmless, for sorting: the worst first. */
export function severity(found: Verdict | undefined): number {
  if (!found) return -1;
  const rank: Record<VerdictKind, number> = {
    open: 5e3,
    short: 5e3,
    high: 4e3,
    low: 4e3,
    edge: 3e3,
    lossy: 4e3,
    'cannot say': 2e3,
    'no marking': 1e3,
    in: 0,
  };
  return rank[found.kind] + Math.min(999, Math.abs(found.deviation ?? 0) * 100);
}
