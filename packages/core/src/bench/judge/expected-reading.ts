import { ZembleError } from '../../base/errors/index.ts';
import { formatQuantity, QUANTITY_KINDS, type Unit } from '../../base/quantity/index.ts';
import { circuitAt, resolveLayer } from '../../circuit/changes/index.ts';
import {
  KINDS,
  markedNumber,
  usualTolerance,
  type Circuit,
  type LayerCircuit,
  type Part,
} from '../../circuit/circuit/index.ts';
import { meterReading, type MeterMode } from '../../analysis/meter/index.ts';
import { meterModeOf } from './in-circuit.ts';
import { shownAt, Surroundings, type Extreme } from './surroundings.ts';

/** What a meter should show across a part. */
export interface ExpectedReading {
  /** "about 78 kΩ, 72 to 84 kΩ"; of a junction beside it both ways of the leads. */
  readonly words: string;
  /** Who makes it differ from the marking, in one sentence. */
  readonly reason: string;
}

/** Readings that differ by less than this are one (what a usual meter's last digits do; common practice). */
const SAME = 0.01;

interface Range {
  readonly reading: number | null;
  readonly low: number | null;
  readonly high: number | null;
}

/**
 * What a meter should read across a part where it stands, the unit off, the controls as drawn and all else as marked: its
 * value, and where it may lie with every part within its tolerance and every junction within the spread of its type.
 *
 * @returns null of what no meter reads, and where the circuit cannot be computed
 */
export function expectedInCircuit(circuit: Circuit, ref: string): ExpectedReading | null {
  const around = circuitAt(circuit, 'proven');
  const part = around.parts.find((p) => p.ref === ref);
  const mode = part && meterModeOf(part);
  const { a, b } = part?.pins ?? {};
  const marked = part && markedNumber(part);
  if (!mode || !marked || a === undefined || b === undefined || a === b) return null;
  try {
    const layer = resolveLayer(around, 'marked');
    const { reason, reading } = meterReading(layer, mode, a, b);
    const back = meterReading(layer, mode, b, a).reading;
    const rangeWith = (red: string, black: string, shown: number | null) =>
      rangeWords({ reading: shown, ...rangeOf(layer, part, marked, mode, red, black) }, unit);
    const unit = QUANTITY_KINDS[KINDS[part.kind].value!];
    const words = isSame(reading, back)
      ? rangeWith(a, b, reading)
      : `red lead at a ${rangeWith(a, b, reading)}; at b ${rangeWith(b, a, back)}`;
    return { words, reason };
  } catch (error) {
    if (error instanceof ZembleError) return null;
    throw error;
  }
}

/** What a meter should read of a part by itself: its marking, within its tolerance; null of what no meter reads. */
export function expectedAlone(part: Part): ExpectedReading | null {
  const marked = markedNumber(part);
  const { value } = KINDS[part.kind];
  if (marked === null || value === null || !(marked > 0)) return null;
  const tolerance = usualTolerance(part);
  const [low, high] = [marked * (1 - tolerance), marked * (1 + tolerance)];
  const words = rangeWords({ reading: marked, low, high }, QUANTITY_KINDS[value]);
  return { words, reason: `${part.ref} by itself is as marked.` };
}

/** The least and the most that may be shown, with the part itself at an end of its tolerance as well. */
function rangeOf(
  layer: LayerCircuit,
  part: Part,
  marked: number,
  mode: MeterMode,
  red: string,
  black: string,
): Pick<Range, 'low' | 'high'> {
  const { lowest, highest } = new Surroundings(layer, part.ref, mode, false).extremes(red, black);
  const tolerance = usualTolerance(part);
  const ends = [marked * (1 - tolerance), marked * (1 + tolerance)];
  const shown = (extremes: readonly Extreme[]) =>
    extremes.flatMap((extreme) => ends.map((end) => shownAt(extreme, part.ref, end) ?? nothing));
  const nothing = mode === 'cap' ? 0 : Number.POSITIVE_INFINITY;
  const told = (value: number) => (value === nothing ? null : value);
  return { low: told(Math.min(...shown(lowest))), high: told(Math.max(...shown(highest))) };
}

function isSame(one: number | null, other: number | null): boolean {
  if (one === null || other === null) return one === other;
  return Math.abs(one - other) <= SAME * Math.max(Math.abs(one), Math.abs(other));
}

function rangeWords({ reading, low, high }: Range, unit: Unit): string {
  const text = (value: number | null) =>
    value === null ? 'over range' : formatQuantity(value, unit, { digits: 3 });
  if (reading === null) return low === null ? 'over range' : `over range, or above ${text(low)}`;
  return `about ${text(reading)}, ${withoutUnitOf(text(low), text(high))} to ${text(high)}`;
}

/** A quantity whose unit another that follows says as well: "72 to 84 kΩ". */
function withoutUnitOf(one: string, next: string): string {
  const [number, unit] = one.split(' ');
  return unit !== undefined && next.endsWith(` ${unit}`) ? number! : one;
}
