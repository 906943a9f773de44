import { readoutDefinitionOf, type Readout, type ReadoutOf } from '@zemble/contract';
import type { AnalysisSession } from '../analysis/index.ts';
import { controlState } from '../../circuit/circuit/index.ts';
import {
  checkTime,
  needed,
  undefinedBecause,
  type ReadoutContext,
  type ReadoutType,
} from './readout-type.ts';

/** Places of the travel that are tried, in steps of a tenth, ends included. */
const PLACES = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10] as const;
/** What takes a run in time is tried at these first; where it rises or falls all the way, its ends are those of the travel. */
const FEW_PLACES: readonly number[] = [0, 2, 5, 8, 10];

export interface Ends {
  readonly min: number;
  readonly max: number;
}

/** The readout that a range or overlap is of. Throws when there is none, or it is one of those itself. */
function innerReadout(readout: ReadoutOf<'range' | 'overlap'>, context: ReadoutContext): Readout {
  const of = needed(readout, 'of', readout.of);
  const inner = context.readouts.find((r) => r.id === of);
  if (!inner || inner.kind === 'range' || inner.kind === 'overlap')
    throw undefinedBecause(readout, `there is no readout "${of}" to take the range of`);
  return inner;
}

/** Smallest and largest value of another readout over the travel of a potentiometer. */
function endsOver(
  session: AnalysisSession,
  readout: ReadoutOf<'range' | 'overlap'>,
  context: ReadoutContext,
): Ends {
  const inner = innerReadout(readout, context);
  const ref = needed(readout, 'part', readout.part);
  if (!session.circuit.parts.some((p) => p.ref === ref && p.kind === 'potentiometer'))
    throw undefinedBecause(readout, `${ref} is not a potentiometer`);
  let why = '';
  const taken = PLACES.map((): number | null | undefined => undefined);
  const takeAt = (places: readonly number[]) =>
    places.map((place) => {
      if (taken[place] !== undefined) return taken[place];
      checkTime(readout, context);
      const answer = context.evaluate(session.with({ controls: new Map([[ref, place / 10]]) }), inner);
      if (!answer.ok) why = answer.problem.message;
      return (taken[place] = answer.ok ? answer.value : null);
    });
  const isDear = readoutDefinitionOf(inner.kind).isSlow === true;
  const few = isDear ? takeAt(FEW_PLACES) : [];
  const values = (isOneWay(few) ? few : takeAt(PLACES)).filter((v) => v !== null);
  if (values.length === 0)
    throw undefinedBecause(readout, `"${inner.name}" has no value anywhere on the travel of ${ref}: ${why}`);
  return { min: Math.min(...values), max: Math.max(...values) };
}

/** Whether values are all there, some, and rise or fall from the first to the last. */
function isOneWay(values: readonly (number | null)[]): boolean {
  const steps = values
    .slice(1)
    .map((v, i) => (v === null || values[i] === null ? Number.NaN : v - values[i]!));
  return steps.length > 0 && (steps.every((s) => s > 0) || steps.every((s) => s < 0));
}

/**
 * Smallest and largest value of another readout (`of`, its id) over the travel of a potentiometer (`part`), in that
 * readout's unit, or with `in`: "semitones" as steps of pitch from where the control stands. As a single number it is the
 * distance between the two.
 */
export const range: ReadoutType<'range'> = {
  describe: (r) => `range of ${r.of} over ${r.part}`,
  compute(session, r, context) {
    const ends = endsOver(session, r, context);
    if (r.in !== 'semitones') return { value: ends.max - ends.min, range: ends };
    const inner = innerReadout(r, context);
    const here = context.evaluate(session, inner);
    if (!here.ok) throw undefinedBecause(r, here.problem.message);
    if (!(ends.min > 0) || !(here.value > 0))
      throw undefinedBecause(r, 'a pitch must be above zero to be counted in semitones');
    const range = { min: semitones(here.value, ends.min), max: semitones(here.value, ends.max) };
    return { value: range.max - range.min, range };
  },
};

/** How far the ranges of a readout over a potentiometer in two settings reach into one another, octaves; a gap is below 0. */
export const overlap: ReadoutType<'overlap'> = {
  describe: (r) => `overlap of ${r.of} over ${r.part} in ${r.settings?.join(' and ')}`,
  compute(session, r, context) {
    const ends = needed(r, 'settings', r.settings).map((id) =>
      endsOver(withSetting(session, r, id, context), r, context),
    );
    const [low, high] = [Math.max(...ends.map((e) => e.min)), Math.min(...ends.map((e) => e.max))];
    if (!(low > 0)) throw undefinedBecause(r, 'what overlaps must be above zero to be counted in octaves');
    return Math.log2(high / low);
  },
};

/** The session with the controls of a setting. Throws where there is no such setting or a control cannot stand so. */
export function withSetting(
  session: AnalysisSession,
  readout: Readout,
  id: string,
  { settings }: Pick<ReadoutContext, 'settings'>,
): AnalysisSession {
  const setting = settings.find((s) => s.id === id);
  if (!setting) throw undefinedBecause(readout, `there is no setting "${id}"`);
  const known = new Set(session.circuit.parts.filter((p) => controlState(p) !== undefined).map((p) => p.ref));
  const stranger = Object.keys(setting.controls).find((ref) => !known.has(ref));
  if (stranger !== undefined)
    throw undefinedBecause(readout, `setting "${id}" names ${stranger}, which is no control here`);
  return session.with({ controls: new Map(Object.entries(setting.controls)) });
}

/** Distance between two pitches in semitones of equal temperament: 12 log2 of their ratio. */
export const semitones = (lowHz: number, highHz: number): number => 12 * Math.log2(highHz / lowHz);
