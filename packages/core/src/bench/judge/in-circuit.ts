import { resolveLayer } from '../../circuit/changes/index.ts';
import {
  KINDS,
  markedValue,
  usualTolerance,
  type Circuit,
  type LayerCircuit,
  type Part,
} from '../../circuit/circuit/index.ts';
import { ZembleError } from '../../base/errors/index.ts';
import { formatQuantity, QUANTITY_KINDS } from '../../base/quantity/index.ts';
import { Probe, through } from '../../analysis/meter/index.ts';
import { technologyOf } from './ageing.ts';
import { electrolyticLoss } from './small-verdicts.ts';
import { isShownBelow, shownAt, Surroundings, type Extreme } from './surroundings.ts';
import { BORDER, judgeReading, type JudgedReading, type Verdict, type VerdictKind } from './verdict.ts';

/**
 * Where a part's own value lies, given what was read across it in circuit. An end that is open is infinite; `low` is above
 * `high` where no value at all explains the reading.
 */
export interface OwnValue {
  readonly low: number;
  readonly high: number;
  /** The reading cannot be this part's alone: another beside it is off as well. */
  readonly isWithAnother?: true;
}

/** A reading across a part in circuit. */
export interface InCircuitReading {
  /** Ohm or farad; null for overload, of a capacitance meter for too little to read. */
  readonly value: number | null;
  /** Pin with the red lead; both ways when it is not known. */
  readonly red?: string | null | undefined;
  /** Controls stand as drawn; anywhere otherwise. */
  readonly isAsDrawn?: boolean;
  /** Series resistance that was read with a capacity, ohm; anywhere up to what is usual when it is not known. */
  readonly esr?: number | null | undefined;
}

/** Error of a usual meter: a part of the reading, and what its leads and last digit may add, ohm and F (common practice). */
const METER_SHARE = 0.01;
const OHM_FLOOR = 0.3;
const CAP_FLOOR_F = 2e-12;
/** A part is looked for this far from its marking, as a factor each way. */
const REACH = 1e5;
const BISECTIONS = 22;
/** Values of a capacitor that are tried, a decade: its reading need not rise with it. */
const TRIES_A_DECADE = 12;
const CAP_REACH = 1e3;
/** The lowest frequency at which a capacitance meter reads, Hz. */
const LEAST_CAP_HZ = 100;
/** A capacitor that has come off its leads, F. */
const NO_FARAD = 1e-13;

/** How a kind of part is read in circuit; null for kinds whose value no meter reads there. */
export function meterModeOf(part: Pick<Part, 'kind'>): 'ohm' | 'cap' | null {
  const quantity = KINDS[part.kind].value;
  if (quantity === 'resistor' && part.kind !== 'potentiometer') return 'ohm';
  return quantity === 'capacitor' ? 'cap' : null;
}

/**
 * The value of a part itself from a reading across it in circuit: every value with which the meter could show that, with
 * all other parts anywhere in their tolerances, controls anywhere and transistors and diodes anywhere in the spread of
 * their types, whichever way the leads were.
 *
 * @returns null where the part has no marking, or is none that is read so
 * @throws {ZembleError} where the circuit around the part cannot be computed
 */
export function ownValueFrom(circuit: Circuit, part: Part, reading: InCircuitReading): OwnValue | null {
  const byLead = ownValuesByLead(circuit, part, reading);
  return byLead && unionOf(byLead.map(({ own }) => own));
}

interface ByLead {
  /** Pin that has the red lead. */
  readonly red: string;
  readonly own: OwnValue;
}

function ownValuesByLead(circuit: Circuit, part: Part, reading: InCircuitReading): ByLead[] | null {
  const mode = meterModeOf(part);
  const marked = markedValue(part);
  const { a, b } = part.pins;
  if (mode === null || typeof marked !== 'number' || !(marked > 0)) return null;
  if (a === undefined || b === undefined || a === b) return null;
  const around = surroundingCircuit(circuit, part, marked);
  const esr = mode === 'cap' ? (reading.esr ?? esrOf(around, part)) : undefined;
  const surroundings = withEsrRead(around, part, mode === 'cap' ? reading.esr : undefined).map(
    (each) => new Surroundings(each, part.ref, mode, reading.isAsDrawn !== true),
  );
  const both = [
    { red: 'a', nets: [a, b] as const },
    { red: 'b', nets: [b, a] as const },
  ];
  const isOneWay = mode === 'cap' || new Probe(around, mode, a, b).session.system.isLinear;
  const placements = both.filter(({ red }) => (isOneWay ? red === 'a' : (reading.red ?? red) === red));
  return placements.map(({ red, nets: [redNet, blackNet] }) => {
    const all = surroundings.map((each) => each.extremes(redNet, blackNet));
    const [lowest, highest] = [all.flatMap((each) => each.lowest), all.flatMap((each) => each.highest)];
    const own =
      mode === 'ohm'
        ? resistanceFrom(part.ref, marked, reading.value, lowest, highest)
        : withUsualLoss(
            part,
            capacityFrom(part.ref, marked, reading.value, [...lowest, ...highest], esr),
            esr !== undefined,
          );
    return { red, own };
  });
}

const esrOf = ({ parts }: LayerCircuit, { ref }: Part): number | undefined => {
  const part = parts.find((p) => p.ref === ref);
  return part?.kind === 'capacitor' && part.esr ? part.esr : undefined;
};

/** Every value that one of them holds: a lead that cannot be ruled out protects the part. */
function unionOf(values: readonly OwnValue[]): OwnValue {
  const possible = values.filter(isPossible);
  if (possible.length === 0) return IMPOSSIBLE;
  return {
    low: Math.min(...possible.map((v) => v.low)),
    high: Math.max(...possible.map((v) => v.high)),
    ...(possible.every((v) => v.isWithAnother) ? { isWithAnother: true as const } : {}),
  };
}

const IMPOSSIBLE: OwnValue = { low: Number.POSITIVE_INFINITY, high: 0 };
const isPossible = ({ low, high }: OwnValue): boolean => low <= high && low < Number.POSITIVE_INFINITY;

/** The circuit as found, with the part itself as marked. */
function surroundingCircuit(circuit: Circuit, { ref }: Part, marked: number): LayerCircuit {
  const found = resolveLayer(circuit, 'found');
  return { ...found, parts: found.parts.map((p) => (p.ref === ref ? { ...p, value: marked } : p)) };
}

/** An ESR meter is right within this part (common practice). */
const ESR_SHARE = 0.1;
/** A sound electrolytic's loss may be this many times the typical of its rated voltage (common practice). */
const MOST_LOSS = 1.5;

/**
 * The circuits with the part's series resistance at both ends of what was read; as it is where none was. A meter at one
 * frequency shows C / (1 + tan² δ) of a capacity in series with a resistance, so that a sound electrolytic may read low.
 */
function withEsrRead(circuit: LayerCircuit, { ref }: Part, esr: number | null | undefined): LayerCircuit[] {
  if (!esr) return [circuit];
  return [1 - ESR_SHARE, 1 + ESR_SHARE].map((share) => ({
    ...circuit,
    parts: circuit.parts.map((p) =>
      p.ref === ref && p.kind === 'capacitor' ? { ...p, esr: esr * share } : p,
    ),
  }));
}

/** Where no series resistance is known, an electrolytic may have lost what is usual: more capacity than a meter shows. */
function withUsualLoss(part: Part, own: OwnValue, isEsrKnown: boolean): OwnValue {
  if (isEsrKnown || technologyOf(part) !== 'electrolytic') return own;
  const most = MOST_LOSS * electrolyticLoss(part.kind === 'capacitor' ? part.voltage : undefined);
  return { ...own, high: own.high * (1 + most ** 2) };
}

/** With the others at their highest the part itself is at its lowest, and the other way about. */
function resistanceFrom(
  ref: string,
  marked: number,
  shown: number | null,
  lowest: readonly Extreme[],
  highest: readonly Extreme[],
): OwnValue {
  const least = shown === null ? null : shown * (1 - METER_SHARE) - OHM_FLOOR;
  const most = shown === null ? null : shown * (1 + METER_SHARE) + OHM_FLOOR;
  const low = Math.min(
    ...highest.map((extreme) => solveFor((v) => isShownBelow(extreme, ref, v, least), marked)),
  );
  // More than the others would ever show: another is off as well, and what is beside a resistance only takes from it.
  if (!Number.isFinite(low))
    return { low: least ?? marked * REACH, high: Number.POSITIVE_INFINITY, isWithAnother: true };
  return {
    low,
    high:
      most === null
        ? Number.POSITIVE_INFINITY
        : Math.max(...lowest.map((extreme) => solveFor((v) => isShownBelow(extreme, ref, v, most), marked))),
  };
}

/** The value up to which a rising reading is below what is looked for; 0 or infinite when that lies beyond the reach. */
function solveFor(isBelow: (value: number) => boolean, marked: number): number {
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
 * Every capacity with which the reading lies between what the extremes show: it may fall again where a resistance is in
 * series. Where one of them shows exactly the end of what may have been read, the capacity is possible by itself.
 */
function capacityFrom(
  ref: string,
  marked: number,
  shown: number | null,
  extremes: readonly Extreme[],
  esr: number | undefined,
): OwnValue {
  const read = shown ?? 0;
  const ends = [read * (1 - METER_SHARE) - CAP_FLOOR_F, read * (1 + METER_SHARE) + CAP_FLOOR_F] as const;
  const count = 2 * TRIES_A_DECADE * Math.log10(CAP_REACH);
  // More than this and the resistance would be what the meter sees: the reading falls again, and is none.
  const most = esr === undefined ? Number.POSITIVE_INFINITY : 1 / (2 * Math.PI * LEAST_CAP_HZ * esr);
  const raster = Array.from(
    { length: count + 1 },
    (_, i) => marked * CAP_REACH ** ((2 * i) / count - 1),
  ).filter((farad) => farad <= most);
  const tried = raster[0]! > NO_FARAD ? [NO_FARAD, ...raster] : raster;
  const rows = extremes.map((extreme) => {
    const at = (value: number) => shownAt(extreme, ref, value) ?? 0;
    return { at, shown: tried.map(at) };
  });
  const possible = tried.filter((_, i) => {
    const all = rows.map((row) => row.shown[i]!);
    return Math.min(...all) <= ends[1] && Math.max(...all) >= ends[0];
  });
  const crossings = rows.flatMap(({ at, shown: row }) =>
    ends.flatMap((end) =>
      tried.flatMap((value, i) =>
        i > 0 && row[i - 1]! < end !== row[i]! < end ? [crossing(at, end, tried[i - 1]!, value)] : [],
      ),
    ),
  );
  const all = [...possible, ...crossings];
  if (all.length === 0) return IMPOSSIBLE;
  const [low, high] = [Math.min(...all), Math.max(...all)];
  return {
    low: low === tried[0] ? 0 : low,
    high: high === tried.at(-1) ? Number.POSITIVE_INFINITY : high,
  };
}

/** Where a reading passes a target between two values. */
function crossing(at: (value: number) => number, target: number, from: number, to: number): number {
  let [low, high] = [from, to];
  const isBelow = at(low) < target;
  for (let i = 0; i < BISECTIONS / 2; i += 1) {
    const middle = Math.sqrt(low * high);
    if (at(middle) < target === isBelow) low = middle;
    else high = middle;
  }
  return Math.sqrt(low * high);
}

/** A verdict in circuit, with the part's own value. */
export type InCircuitVerdict = Verdict & { readonly own?: OwnValue };

/**
 * Judges a reading; one in circuit by every value that the part may have. A reading convicts where none of them lies
 * within the tolerance, and clears where none lies outside; otherwise it is said what would decide: which pin had the red
 * lead, that the controls stand as drawn, or a leg lifted. What cannot be computed judges nothing.
 */
export function judgeInCircuit(circuit: Circuit, part: Part, reading: JudgedReading): InCircuitVerdict {
  const plain = judgeReading(part, reading);
  const marked = markedValue(part);
  if (reading.condition !== 'in circuit' || typeof marked !== 'number' || meterModeOf(part) === null)
    return plain;
  const value = reading.value === 'open' ? null : reading.value === 'short' ? 0 : reading.value;
  const cannotSay = (sentence: string) => ({
    ...plain,
    kind: 'cannot say' as const,
    isTrusted: false,
    sentence,
  });
  if (value !== null && !(value >= 0))
    return cannotSay('a unit that is off reads nothing below zero: is it on, or charged?');
  const judge = (own: OwnValue) => verdictOn(circuit, part, marked, own);
  try {
    const { red, isAsDrawn = false, esr } = reading;
    const byLead = ownValuesByLead(circuit, part, { value, red, isAsDrawn, esr });
    if (byLead === null) return plain;
    const found = judge(unionOf(byLead.map(({ own }) => own)));
    if (found.kind !== 'cannot say' || !isPossible(found.own!)) return found;
    const verdicts = byLead.map((each) => ({ red: each.red, verdict: judge(each.own) }));
    if (verdicts.length > 1 && verdicts.some(({ verdict }) => verdict.kind !== 'cannot say'))
      return {
        ...found,
        asks: 'red lead',
        sentence: `${verdicts.map((each) => `with the red lead at ${each.red} ${each.verdict.sentence}`).join('; ')}: red lead on which pin?`,
      };
    const drawn = judge(ownValueFrom(circuit, part, { value, red, isAsDrawn: true, esr })!);
    if (!isAsDrawn && drawn.kind !== 'cannot say')
      return {
        ...found,
        asks: 'controls',
        sentence: `with all controls as drawn ${drawn.sentence}; elsewhere ${found.sentence}`,
      };
    return { ...found, asks: 'leg', sentence: `${found.sentence}: lift a leg to know` };
  } catch (error) {
    if (error instanceof ZembleError)
      return cannotSay(`cannot say, the circuit around it cannot be computed: ${error.problem.message}`);
    throw error;
  }
}

/** A part of more than this times its marking is open, of less than that part of it shorted (common practice). */
const OPEN_RATIO = 100;
const SHORT_RATIO = 0.01;

function verdictOn(circuit: Circuit, part: Part, marked: number, own: OwnValue): InCircuitVerdict {
  const tolerance = usualTolerance(part);
  const [least, most] = [marked * (1 - tolerance), marked * (1 + tolerance)];
  const isCapacitance = part.kind === 'capacitor';
  const range = rangeText(part, own);
  const middle = Number.isFinite(own.high)
    ? Math.sqrt(Math.max(own.low, marked / REACH) * own.high)
    : own.low;
  const say = (kind: VerdictKind, sentence: string): InCircuitVerdict => ({
    kind,
    sentence,
    deviation: ['high', 'low', 'in', 'edge'].includes(kind) ? middle / marked - 1 : null,
    isTrusted: false,
    own,
  });
  if (!isPossible(own))
    return say(
      'cannot say',
      `no value of ${part.ref} explains that: another part, a control or a lead is not as taken`,
    );
  const border = BORDER * tolerance * marked;
  if (own.low > most + border) {
    const isOpen = !isCapacitance && own.low > OPEN_RATIO * marked;
    const also = own.isWithAnother ? ', and another part beside it is off as well' : '';
    return say(
      isOpen ? 'open' : 'high',
      `${range}: above its ${percent(tolerance)}, convicted in circuit${also}`,
    );
  }
  if (own.high < least - border) {
    const isNothing = own.high < SHORT_RATIO * marked;
    const kind = !isNothing ? 'low' : isCapacitance ? 'open' : 'short';
    return say(kind, `${range}: below its ${percent(tolerance)}, convicted in circuit`);
  }
  const path = pathText(circuit, part, marked);
  if (own.low >= least && own.high <= most && Math.abs(middle / marked - 1) < tolerance * (1 - BORDER))
    return say('in', `${path}${range}, within ${percent(tolerance)}`);
  if (own.low >= least - border && own.high <= most + border)
    return say('edge', `${path}${range}, at the border of ${percent(tolerance)}`);
  return say('cannot say', `${path}${range}`);
}

/** A difference from the marking that no bench instrument shows. */
const NO_DIFFERENCE = 0.005;

/** The parts that make the reading differ from the part's own value; nothing where they do not. */
function pathText(circuit: Circuit, part: Part, marked: number): string {
  const { a, b } = part.pins;
  const mode = meterModeOf(part)!;
  const around = surroundingCircuit(circuit, part, marked);
  const probe = new Probe(around, mode, a!, b!);
  const shown = probe.read();
  if (shown !== null && Math.abs(shown / marked - 1) < NO_DIFFERENCE) return '';
  const [first, ...others] = through(probe, part.ref);
  if (first === undefined) return '';
  const isAcross = (ref: string) => {
    const nets = Object.values(around.parts.find((p) => p.ref === ref)?.pins ?? {});
    return nets.length === 2 && nets.includes(a!) && nets.includes(b!);
  };
  if (others.length === 0 && isAcross(first)) return `${first} lies across it: `;
  return `the path through ${[first, ...others].join(' and ')} explains it: `;
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
