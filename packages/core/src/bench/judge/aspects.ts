import { resolveLayer } from '../../circuit/changes/index.ts';
import {
  isPolarised,
  markedNumber,
  markedValue,
  netsOf,
  resolvePart,
  type Circuit,
  type LayerCircuit,
  type Part,
  type PartOf,
} from '../../circuit/circuit/index.ts';
import { taperFraction } from '../../circuit/devices/index.ts';
import { ZembleError } from '../../base/errors/index.ts';
import { hasModelParameter, modelParameters } from '../../circuit/models/index.ts';
import { numberOfPin, pinByNumber, pinoutOf } from '../../circuit/pinout/index.ts';
import { formatPlain, formatQuantity, type QuantityKind, type Unit } from '../../base/quantity/index.ts';
import { Probe } from '../../analysis/meter/index.ts';
import { judgeEsr, judgeVoiceCoil } from './small-verdicts.ts';
import { Surroundings } from './surroundings.ts';
import type { JudgedReading, Verdict, VerdictKind } from './verdict.ts';

/**
 * What can be read of a part beside its main value: a junction between two pins (`b-e`, the red lead first), the current
 * gain, a capacitor's leakage, a contact, a winding, and of a potentiometer the middle and the end of its travel and
 * whether the wiper keeps its track. Such a reading judges the part; it is never its found value.
 */
export interface Aspect {
  /** As it is kept with a reading: `b-e`, `gain`, `leakage`, … */
  readonly id: string;
  /** Words that stand for it in the entry field, lower case. */
  readonly words: readonly string[];
  readonly quantity: QuantityKind;
  readonly unit: Unit;
  /** The word alone is the reading: the track of a potentiometer crackles or it does not. */
  readonly isWordAlone?: true;
}

const junction = (red: string, black: string): Aspect => ({
  id: `${red}-${black}`,
  words: [`${red}-${black}`, `${red}${black}`],
  quantity: 'voltage',
  unit: 'V',
});
const winding = (one: string, other: string): Aspect => ({
  id: `${one}-${other}`,
  words: [`${one}-${other}`, `${one}${other}`],
  quantity: 'resistor',
  unit: 'ohm',
});
const GAIN: Aspect = { id: 'gain', words: ['gain', 'hfe', 'beta'], quantity: 'number', unit: '' };
const ESR: Aspect = { id: 'esr', words: ['esr'], quantity: 'resistor', unit: 'ohm' };
const LEAKAGE: Aspect = {
  id: 'leakage',
  words: ['leakage', 'leak', 'leaks'],
  quantity: 'current',
  unit: 'A',
};
const CONTACT: Aspect = { id: 'contact', words: ['contact'], quantity: 'resistor', unit: 'ohm' };
const WINDING: Aspect = {
  id: 'winding',
  words: ['winding', 'dcr', 'coil'],
  quantity: 'resistor',
  unit: 'ohm',
};
const MIDDLE: Aspect = { id: 'middle', words: ['middle', 'mid', 'half'], quantity: 'resistor', unit: 'ohm' };
const END: Aspect = { id: 'end', words: ['end', 'stop'], quantity: 'resistor', unit: 'ohm' };
const TRACK: Aspect = {
  id: 'track',
  words: ['crackle', 'crackles', 'scratchy'],
  quantity: 'number',
  unit: '',
  isWordAlone: true,
};
const DIODE = [junction('a', 'k'), junction('k', 'a')];

const ASPECTS: Partial<Record<Part['kind'], readonly Aspect[]>> = {
  capacitor: [ESR, LEAKAGE],
  potentiometer: [MIDDLE, END, TRACK],
  diode: DIODE,
  zener: DIODE,
  led: DIODE,
  bjt: [
    junction('b', 'e'),
    junction('b', 'c'),
    junction('e', 'b'),
    junction('c', 'b'),
    junction('c', 'e'),
    GAIN,
  ],
  jfet: [junction('g', 's'), junction('g', 'd'), junction('s', 'g'), junction('d', 'g')],
  switch: [CONTACT],
  jumper: [CONTACT],
  fuse: [CONTACT],
  inductor: [WINDING],
  transformer: [winding('p1', 'p2'), winding('s1', 's2')],
  speaker: [WINDING],
  headphone: [WINDING],
  load: [WINDING],
};

/** Kinds of which a meter reads one of these when no word says what: a fuse its contact, a diode its junction. */
const BARE: Partial<Record<Part['kind'], Aspect>> = {
  diode: DIODE[0]!,
  zener: DIODE[0]!,
  led: DIODE[0]!,
  switch: CONTACT,
  jumper: CONTACT,
  fuse: CONTACT,
  speaker: WINDING,
  headphone: WINDING,
  load: WINDING,
};

/** What can be read of a kind of part beside its main value. */
export const aspectsOf = (part: Pick<Part, 'kind'>): readonly Aspect[] => ASPECTS[part.kind] ?? [];

/** What a bare reading of a part is of; null for its main value. */
export const bareAspect = (part: Pick<Part, 'kind'>): Aspect | null => BARE[part.kind] ?? null;

export const aspectNamed = (part: Pick<Part, 'kind'>, id: string): Aspect | undefined =>
  aspectsOf(part).find((a) => a.id === id);

/** A value of an aspect in its unit. */
export function aspectText(part: Pick<Part, 'kind'>, id: string, value: JudgedReading['value']): string {
  const aspect = aspectNamed(part, id);
  if (aspect?.isWordAlone) return 'crackles';
  if (typeof value !== 'number') return value;
  return formatQuantity(value, aspect?.unit ?? '', { digits: 3 });
}

/**
 * Judges what was read of a part beside its main value. Junctions are compared with what the diode test would show of
 * the part's model, alone or in its circuit.
 *
 * @param id of the aspect, one of `aspectsOf(part)`; an unknown one is answered with "cannot say"
 */
export function judgeAspect(circuit: Circuit, part: Part, id: string, reading: JudgedReading): Verdict {
  const aspect = aspectNamed(part, id);
  if (!aspect) return say('cannot say', `nothing is known of "${id}"`);
  if (aspect.isWordAlone) return say('open', 'the wiper loses its track: clean it, replace it if that fails');
  switch (aspect) {
    case GAIN:
      return judgeGain(part, reading, circuit);
    case ESR:
      return judgeSeriesResistance(part, reading);
    case LEAKAGE:
      return judgeLeakage(part, reading);
    case CONTACT:
      return judgeContact(reading);
    case WINDING:
      return judgeWinding(part, 'winding', windingOhm(part), reading);
    case MIDDLE:
    case END:
      return judgeTravel(part, aspect, reading);
    default:
      return aspect.unit === 'ohm'
        ? judgeWinding(part, aspect.id, coilOhm(part, aspect.id), reading)
        : judgeJunction(circuit, part, aspect.id, reading);
  }
}

const say = (kind: VerdictKind, sentence: string, deviation: number | null = null): Verdict => ({
  kind,
  sentence,
  deviation,
  isTrusted: false,
});
const volts = (value: number) => formatQuantity(value, 'V', { digits: 3 });
const ohms = (value: number) => formatQuantity(value, 'ohm', { digits: 2 });

/** A junction that shows less than this is shorted, V. */
const SHORTED_V = 0.05;
/**
 * Room around the computed forward voltage for makers and temperature, V and shares (common practice). Below there is more
 * of it: the base resistance of the models is that of small currents, and falls at the meter's milliampere.
 */
const JUNCTION_ROOM_V = 0.08;
const JUNCTION_SHARE_ABOVE = 0.12;
const JUNCTION_SHARE_BELOW = 0.2;

function judgeJunction(circuit: Circuit, part: Part, id: string, reading: JudgedReading): Verdict {
  const [red, black] = id.split('-') as [string, string];
  const isAlone = reading.condition !== 'in circuit';
  const places = junctionPlaces(circuit, part, red, black, isAlone);
  if (!places) return say('cannot say', `${red} or ${black} of it leads nowhere`);
  try {
    const verdict = judgeShown(places, part, { red, black, isAlone }, reading.value);
    const orders = verdict.kind === 'in' || !isAlone ? [] : ordersThatFit(circuit, part, id, reading);
    return orders.length === 0
      ? verdict
      : {
          ...verdict,
          sentence: `${verdict.sentence}; as ${orders.join(' or ')} it would be right: which is it?`,
        };
  } catch (error) {
    if (error instanceof ZembleError)
      return say(
        'cannot say',
        `cannot say, the circuit around it cannot be computed: ${error.problem.message}`,
      );
    throw error;
  }
}

/** Other orders of its pins in which a reading at the same legs is as it should be; none where the order is sure. */
function ordersThatFit(circuit: Circuit, part: Part, id: string, { value }: JudgedReading): string[] {
  const known = pinoutOf(part);
  if (!known?.isAssumed) return [];
  const legs = id.split('-').map((pin) => numberOfPin(part, pin));
  return known.orders.filter((order) => {
    if (order === known.variant.name) return false;
    const other = { ...part, pinout: order };
    const [red, black] = legs.map((leg) => (leg === undefined ? undefined : pinByNumber(other, leg)?.pin));
    if (red === undefined || black === undefined || `${red}-${black}` === id) return false;
    const places = junctionPlaces(circuit, other, red, black, true);
    return (
      places !== undefined && judgeShown(places, other, { red, black, isAlone: true }, value).kind === 'in'
    );
  });
}

interface Junction {
  readonly red: string;
  readonly black: string;
  readonly isAlone: boolean;
}

/** Where the leads stand: on the part by itself, or in the circuit as found. */
interface JunctionPlaces {
  readonly circuit: LayerCircuit;
  readonly red: string;
  readonly black: string;
}

function junctionPlaces(
  circuit: Circuit,
  part: Part,
  red: string,
  black: string,
  isAlone: boolean,
): JunctionPlaces | undefined {
  const found = resolvePart(part, 'found');
  const alone = { ...found, pins: Object.fromEntries(Object.keys(part.pins).map((pin) => [pin, `#${pin}`])) };
  const around: LayerCircuit = isAlone
    ? { ground: `#${black}`, parts: [alone], models: circuit.models }
    : resolveLayer(circuit, 'found');
  const { pins } = isAlone ? alone : part;
  const [redNet, blackNet] = [pins[red], pins[black]];
  return redNet === undefined || blackNet === undefined
    ? undefined
    : { circuit: around, red: redNet, black: blackNet };
}

/** What the diode test may show, V; infinite for overload. */
interface ShownRange {
  readonly usual: number;
  readonly low: number;
  readonly high: number;
}

function shownRange({ circuit, red, black }: JunctionPlaces, ref: string, isAlone: boolean): ShownRange {
  const read = (shown: number | null) => shown ?? Number.POSITIVE_INFINITY;
  const { lowest, highest } = new Surroundings(circuit, ref, 'diode', !isAlone).extremes(red, black);
  const all = [...lowest, ...highest].map(({ probe, values }) => read(probe.readWith(values)));
  const usual = read(new Probe(circuit, 'diode', red, black).read());
  return { usual, low: Math.min(usual, ...all), high: Math.max(usual, ...all) };
}

function judgeShown(
  places: JunctionPlaces,
  part: Part,
  { red, black, isAlone }: Junction,
  value: JudgedReading['value'],
): Verdict {
  const shown = shownRange(places, part.ref, isAlone);
  const volt = value === 'open' ? Number.POSITIVE_INFINITY : value === 'short' ? 0 : value;
  const text = Number.isFinite(volt) ? volts(volt) : 'open';
  const isIn =
    volt >= shown.low - roomBelow(shown.low) &&
    (volt <= shown.high + roomAbove(shown.high) || !Number.isFinite(shown.high));
  const deviation = Number.isFinite(volt) && Number.isFinite(shown.usual) ? volt / shown.usual - 1 : null;
  if (isIn && !isAlone && isShownWithout(places, part.ref, volt))
    return say(
      'cannot say',
      `${text}, but what lies beside it would show that without it: lift a leg`,
      deviation,
    );
  if (isIn)
    return Number.isFinite(shown.usual)
      ? say('in', `as it should be, about ${volts(shown.usual)}`, deviation)
      : say('in', `blocks from ${red} to ${black}, as it should`);
  if (volt > shown.high)
    return Number.isFinite(volt)
      ? say('high', `${text}, expected ${volts(shown.usual)}`, deviation)
      : say('open', `should show ${volts(shown.usual)}: open`);
  if (!isAlone)
    return Number.isFinite(shown.usual)
      ? say('cannot say', `${text}, expected ${volts(shown.usual)}: lift a leg`, deviation)
      : say('cannot say', `should block from ${red} to ${black}, but shows ${text}: lift a leg`);
  if (volt < SHORTED_V) return say('short', `${red} to ${black} is shorted`);
  return Number.isFinite(shown.usual)
    ? say('low', `${text}, expected ${volts(shown.usual)}: leaky or not this type`, deviation)
    : say('low', `should block from ${red} to ${black}, but shows ${text}: leaky`);
}

const roomBelow = (volt: number) =>
  Number.isFinite(volt) ? Math.max(JUNCTION_ROOM_V, JUNCTION_SHARE_BELOW * volt) : 0;
const roomAbove = (volt: number) => Math.max(JUNCTION_ROOM_V, JUNCTION_SHARE_ABOVE * volt);

/** Whether the same would be read with the part taken out: then nothing is known of it. */
function isShownWithout(places: JunctionPlaces, ref: string, volt: number): boolean {
  const { circuit } = places;
  const rest = { ...circuit, parts: circuit.parts.filter((p) => p.ref !== ref) };
  const nets = netsOf(rest);
  if (!nets.includes(places.red) || !nets.includes(places.black)) return !Number.isFinite(volt);
  const { low, high } = shownRange({ ...places, circuit: rest }, ref, false);
  return volt >= low * (1 - WITHOUT_SHARE) && volt <= high * (1 + WITHOUT_SHARE);
}
/** Readings this close are one, as a share. */
const WITHOUT_SHARE = 0.03;

/** Gain of one type varies this much either way between makers and batches (common practice). */
const GAIN_LOW = 0.4;
const GAIN_HIGH = 2.5;
/** With collector and emitter changed over a transistor has a few per cent of its gain (textbook: BR is small). */
const GAIN_REVERSED = 0.08;

function judgeGain(part: Part, { value, condition }: JudgedReading, circuit: Circuit): Verdict {
  if (typeof value !== 'number') return say(value, 'no gain at all');
  if (condition === 'in circuit') return say('cannot say', 'the circuit takes part in a gain: take it out');
  if (part.kind !== 'bjt') return say('cannot say', 'only a transistor has a gain');
  const own = hasModelParameter(part, 'BF', circuit.models)
    ? modelParameters<'bjt'>(part, circuit.models).BF
    : undefined;
  if (own === undefined) return say('no marking', `gain ${Math.round(value)}, with no type to compare`);
  const typical = Math.round(own);
  const known = pinoutOf(part);
  if (value < GAIN_REVERSED * own && known?.isAssumed)
    return say(
      'low',
      `gain ${formatPlain(value, 2)}, typical ${typical}: as little as with collector and emitter changed over; this type comes as ${known.orders.join(' and ')}`,
      value / own - 1,
    );
  if (value < GAIN_LOW * own)
    return say(
      'low',
      `gain ${Math.round(value)}, typical ${typical}: worn or of another type`,
      value / own - 1,
    );
  if (value > GAIN_HIGH * own)
    return say('edge', `gain ${Math.round(value)}, typical ${typical}: more than usual`, value / own - 1);
  return say('in', `gain ${Math.round(value)}, typical ${typical}`, value / own - 1);
}

/** The series resistance of a capacitor, read by itself. In circuit others beside it only take from it. */
function judgeSeriesResistance(part: Part, { value, condition }: JudgedReading): Verdict {
  if (value === 'open') return say('open', 'no series resistance to be read: open');
  const marked = markedNumber(part);
  if (marked === null) return say('no marking', 'with no marking to compare');
  const judged = judgeEsr(marked, part.voltage, value === 'short' ? 0 : value);
  if (judged.kind === 'in' && condition === 'in circuit')
    return say('in', `${judged.sentence}, unless another beside it makes it so`);
  return say(judged.kind === 'out' ? 'lossy' : judged.kind, judged.sentence);
}

/** Leakage of aluminium electrolytics at rated voltage after two minutes: 0.01 CV or 3 uA (usual data sheets). */
const LEAK_PER_CV = 0.01;
const LEAK_FLOOR_A = 3e-6;
/** More than this through any other capacitor moves the bias it is there to block, A (common practice). */
const FILM_LEAK_A = 1e-7;
const USUAL_RATING_V = 25;
/** At which voltage a leakage is read: the rated one. */
export const leakageV = (part: Part): number => part.voltage ?? USUAL_RATING_V;

function judgeLeakage(part: Part, { value }: JudgedReading): Verdict {
  if (value === 'short') return say('short', 'it conducts: shorted');
  if (value === 'open') return say('in', 'no leakage to be seen');
  const text = formatQuantity(value, 'A', { digits: 2 });
  const marked = markedValue(part);
  const limit =
    isPolarised(part) && typeof marked === 'number'
      ? Math.max(LEAK_FLOOR_A, LEAK_PER_CV * marked * leakageV(part))
      : FILM_LEAK_A;
  const most = formatQuantity(limit, 'A', { digits: 2 });
  if (value > limit) return say('high', `leaks ${text}, at most ${most} is usual: replace it`);
  if (value > limit / 2) return say('edge', `leaks ${text}, near the usual limit of ${most}`);
  return say('in', `leaks ${text}, below ${most}`);
}

/** A contact of this resistance is good, above the other it is bad, ohm; the leads are in it (common practice). */
const CONTACT_GOOD_OHM = 0.2;
const CONTACT_BAD_OHM = 1;

function judgeContact({ value }: JudgedReading): Verdict {
  if (value === 'open') return say('open', 'does not conduct: open, or not closed');
  if (value === 'short' || value <= CONTACT_GOOD_OHM) return say('in', 'a good contact');
  const text = `${ohms(value)} contact`;
  return value > CONTACT_BAD_OHM
    ? say('high', `${text}: clean or replace it`)
    : say('edge', `${text}: take the leads off; the rest should be below ${ohms(CONTACT_GOOD_OHM)}`);
}

const isLoudspeaker = (part: Part) => ['speaker', 'headphone', 'load'].includes(part.kind);
function windingOhm(part: Part): number | undefined {
  const marked = markedValue(part);
  if (isLoudspeaker(part) && typeof marked === 'number') return marked;
  return part.kind === 'inductor' ? part.dcr : undefined;
}

/** Wire resistance of one winding of a transformer, ohm, where it is known. */
const coilOhm = (part: Part, id: string): number | undefined =>
  part.kind !== 'transformer' ? undefined : id === 'p1-p2' ? part.rp : part.rs;

/** Copper warms and wire varies: a winding within this of its figure is whole (common practice). */
const WINDING_SHARE = 0.25;

function judgeWinding(part: Part, name: string, ohm: number | undefined, { value }: JudgedReading): Verdict {
  if (value === 'open') return say('open', 'the winding is open');
  const shown = value === 'short' ? 0 : value;
  if (ohm === undefined || !(ohm > 0))
    return say('no marking', `${ohms(shown)} through ${name}: whole, with no figure to compare`);
  if (isLoudspeaker(part)) {
    const coil = judgeVoiceCoil(ohm, shown);
    const kinds = { in: 'in', edge: 'edge', out: shown > ohm ? 'open' : 'short' } as const;
    return say(kinds[coil.kind], coil.sentence, shown / ohm - 1);
  }
  const deviation = shown / ohm - 1;
  if (deviation < -WINDING_SHARE)
    return say(
      'low',
      `${ohms(shown)}, expected ${ohms(ohm)}: turns are shorted, or a path beside it`,
      deviation,
    );
  if (deviation > WINDING_SHARE)
    return say('high', `${ohms(shown)}, expected ${ohms(ohm)}: a bad joint or another winding`, deviation);
  return say('in', `about ${ohms(ohm)}, as it should be`, deviation);
}

/** How far the fraction at half travel may be from its law, and what is left at the end, as shares (common practice). */
const LAW_GOOD = 0.1;
const LAW_EDGE = 0.2;
const END_GOOD = 0.005;
const END_BAD = 0.02;
const END_FLOOR_OHM = 5;
type Taper = NonNullable<PartOf<'potentiometer'>['taper']>;
const TAPERS: readonly Taper[] = ['linear', 'log', 'antilog'];

function judgeTravel(part: Part, aspect: Aspect, { value, condition }: JudgedReading): Verdict {
  const whole = resolvePart(part, 'found').value;
  if (value === 'open') return say('open', 'the track or the wiper is open');
  if (typeof whole !== 'number' || !(whole > 0)) return say('no marking', 'with no marking to compare');
  const shown = value === 'short' ? 0 : value;
  if (aspect === END) {
    if (shown <= Math.max(END_GOOD * whole, END_FLOOR_OHM)) return say('in', 'comes down to its end');
    const text = `${ohms(shown)} left at its end`;
    return shown > END_BAD * whole ? say('high', `${text}: worn or dirty`) : say('edge', text);
  }
  if (condition === 'in circuit') return say('cannot say', 'the circuit takes part in the law: lift a leg');
  const share = shown / whole;
  const distance = (taper: Taper) => Math.abs(share - taperFraction(taper, 0.5));
  const taper = (part.kind === 'potentiometer' ? part.taper : undefined) ?? 'linear';
  const text = `${Math.round(share * 100)} % at half travel`;
  if (distance(taper) <= LAW_GOOD) return say('in', `${text}: ${taper}`);
  const likest = [...TAPERS].sort((a, b) => distance(a) - distance(b))[0]!;
  if (likest !== taper && distance(likest) <= LAW_GOOD)
    return say('high', `${text}: its law is ${likest}, not ${taper}`);
  return distance(taper) <= LAW_EDGE
    ? say('edge', `${text}: not quite ${taper}`)
    : say('high', `${text}: the track is worn`);
}
