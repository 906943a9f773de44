import { NoOperatingPoint } from '../analysis/index.ts';
import {
  KINDS,
  markedValue,
  resolveLayer,
  usualTolerance,
  type Circuit,
  type Part,
} from '../circuit/index.ts';
import { HalfsplitError } from '../errors.ts';
import { formatQuantity, QUANTITY_KINDS } from '../quantity/index.ts';
import { Probe } from '../meter/index.ts';
import { judgeReading, type JudgedReading, type Verdict } from './verdict.ts';

/** Where a part's own value lies, given what was read across it in circuit. An end that is open is infinite. */
export interface OwnValue {
  readonly low: number;
  readonly high: number;
  /** What the meter would show with the part as marked, and the range of that over the others' tolerances. */
  readonly expected: number | null;
  /** The other parts that make the reading differ, most first. */
  readonly through: readonly string[];
}

/** Error of the meter itself, as a part of the reading (common practice). */
const METER_SHARE = 0.01;
/** A part is looked for this far from its marking, as a factor each way. */
const REACH = 1e4;
const BISECTIONS = 44;

/** How a kind of part is read in circuit; null for kinds whose value no meter reads there. */
export function meterModeOf(part: Part): 'ohm' | 'cap' | null {
  const quantity = KINDS[part.kind].value;
  if (quantity === 'resistor' && part.kind !== 'potentiometer') return 'ohm';
  return quantity === 'capacitor' ? 'cap' : null;
}

/**
 * The value of a part itself from a reading across it in circuit: the reading is solved for the part, with all other
 * parts at the ends of their tolerances that make it largest and smallest. A resistance rises with every other one
 * (Rayleigh 1871); a capacity goes by the sign of its slope.
 *
 * @param reading ohm or farad, above zero
 * @returns null where the circuit around the part cannot be computed, or the part has no marking
 */
export function ownValueFrom(circuit: Circuit, part: Part, reading: number): OwnValue | null {
  const mode = meterModeOf(part);
  const marked = markedValue(part);
  const { a, b } = part.pins;
  if (mode === null || typeof marked !== 'number' || a === undefined || b === undefined || a === b)
    return null;
  try {
    const found = resolveLayer(circuit, 'found');
    const around = {
      ...found,
      parts: found.parts.map((p) => (p.ref === part.ref ? { ...p, value: marked } : p)),
    };
    const probe = new Probe(around, mode, a, b);
    const others = probe.spreadWithout(part.ref);
    const expected = probe.readWith([{ ref: part.ref, value: marked }]);
    const signs = probe.signsOf(others);
    const solveAt = (sign: 1 | -1, target: number): number =>
      solveFor(
        (value) =>
          probe.readWith([
            ...others.map((p, i) => ({
              ref: p.ref,
              value: p.value * (1 + sign * signs[i]! * p.tolerance),
            })),
            { ref: part.ref, value },
          ]),
        target,
        marked,
      );
    // With the others at their highest the part itself is at its lowest, and the other way about.
    const low = solveAt(1, reading * (1 - METER_SHARE));
    const high = solveAt(-1, reading * (1 + METER_SHARE));
    return { low, high, expected, through: probe.pathAround(part.ref) };
  } catch (error) {
    if (error instanceof HalfsplitError || error instanceof NoOperatingPoint) return null;
    throw error;
  }
}

/** The value at which a rising reading reaches a target; 0 or infinite when it lies beyond the reach. */
function solveFor(read: (value: number) => number | null, target: number, marked: number): number {
  const isBelow = (value: number) => {
    const shown = read(value);
    return shown !== null && shown < target;
  };
  let [low, high] = [marked / REACH, marked * REACH];
  if (!isBelow(low)) return 0;
  if (isBelow(high)) return Number.POSITIVE_INFINITY;
  for (let i = 0; i < BISECTIONS; i += 1) {
    const middle = Math.sqrt(low * high);
    if (isBelow(middle)) low = middle;
    else high = middle;
  }
  return Math.sqrt(low * high);
}

/**
 * Judges a reading; one in circuit with what the circuit around the part makes of it. A reading that the part's own
 * range puts outside its tolerance convicts without lifting a leg, one inside clears it.
 */
export function judgeInCircuit(
  circuit: Circuit,
  part: Part,
  reading: JudgedReading,
): Verdict & { own?: OwnValue } {
  const plain = judgeReading(part, reading);
  if (reading.condition !== 'in circuit' || typeof reading.value !== 'number') return plain;
  const marked = markedValue(part);
  const own = ownValueFrom(circuit, part, reading.value);
  if (!own || typeof marked !== 'number') return plain;
  const tolerance = usualTolerance(part);
  const [least, most] = [marked * (1 - tolerance), marked * (1 + tolerance)];
  const between = rangeText(part, own);
  const path =
    own.through.length > 0
      ? `the path through ${own.through.join(' and ')} explains it`
      : 'nothing in parallel';
  const middle = Number.isFinite(own.high)
    ? Math.sqrt(Math.max(own.low, marked / REACH) * own.high)
    : own.low;
  const deviation = middle / marked - 1;
  if (own.low > most)
    return {
      ...plain,
      kind: 'high',
      deviation,
      isTrusted: false,
      own,
      sentence: `${between}: above its ${percent(tolerance)}, convicted in circuit`,
    };
  if (own.high < least)
    return {
      ...plain,
      kind: 'low',
      deviation,
      isTrusted: false,
      own,
      sentence: `${between}: below its ${percent(tolerance)}, convicted in circuit`,
    };
  if (own.low >= least && own.high <= most)
    return {
      ...plain,
      kind: 'in',
      deviation,
      isTrusted: false,
      own,
      sentence: `${path}: ${between}, within ${percent(tolerance)}`,
    };
  return {
    ...plain,
    kind: 'cannot say',
    deviation: plain.deviation,
    isTrusted: false,
    own,
    sentence: `${between}: lift a leg to know`,
  };
}

const percent = (fraction: number) => `${Number((fraction * 100).toPrecision(2))} %`;

function rangeText(part: Part, { low, high }: OwnValue): string {
  const unit = QUANTITY_KINDS[KINDS[part.kind].value ?? 'number'];
  const text = (value: number) => formatQuantity(value, unit, { digits: 3 });
  if (!Number.isFinite(high))
    return low > 0 ? `the part itself is above ${text(low)}` : 'the circuit hides the part';
  if (low <= 0) return `the part itself is below ${text(high)}`;
  return `the part itself is between ${text(low)} and ${text(high)}`;
}
