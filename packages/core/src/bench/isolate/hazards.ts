import { HAZARDS, type Hazard } from '@zemble/contract';
import { markedValue, type Circuit } from '../../circuit/circuit/index.ts';
import { restingVolts } from './expected.ts';

/** Energy that can hurt: a capacitor that is charged, and the resistor it is discharged with. */
export interface Stored {
  readonly farad: number;
  readonly volt: number;
  /** Resistor to discharge it with, ohm; chosen when absent. */
  readonly ohm?: number | undefined;
  /** The capacitor that holds it, where the sheet has it. */
  readonly ref?: string | undefined;
  /** True where the sheet does not hold the part that stores it, and a cautious figure stands in. */
  readonly isCautious?: boolean | undefined;
}

export interface Discharge {
  readonly ohm: number;
  /** Time until no more than `SAFE_V` is left, s. */
  readonly seconds: number;
  /** Heat in the resistor at the first moment, W. */
  readonly peakWatt: number;
  /** Rating that the resistor should have, W: it takes the pulse, so half of the first moment will do. */
  readonly ratingWatt: number;
  readonly joule: number;
  /** One plain sentence. */
  readonly sentence: string;
}

/** Direct voltage below which dry skin is not in danger (IEC 61140 and IEC 60364-4-41: 120 V DC dry; 60 V with margin). */
export const SAFE_V = 60;
/** Below this a slip of the probe does no harm either, which is when a meter or a finger goes in (common practice). */
export const WORKING_V = 12;
/** Energy above which a discharge hurts or burns, J (IEC 60065, 60950: 0.35 J is the limit for a plug's pins). */
export const HARMLESS_J = 0.35;
const RATINGS_W = [0.25, 0.5, 1, 2, 3, 5, 7, 10, 15, 25, 50, 100];
/** A chosen resistor starts with no more than this, W. */
const GENTLE_W = 10;
const OHMS = [10, 22, 47, 100, 220, 470, 1000, 2200, 4700, 10_000, 22_000, 47_000];

/**
 * Discharge of a capacitor through a resistor: V(t) = V e^(-t/RC), down to 12 V, or to a tenth where it starts below
 * 60 V. Farad, volt and ohm above zero.
 */
export function dischargeOf({ farad, volt, ohm: given, isCautious }: Stored): Discharge {
  const ohm = given ?? OHMS.find((r) => (volt * volt) / r <= GENTLE_W) ?? OHMS.at(-1)!;
  const target = volt > SAFE_V ? WORKING_V : Math.min(volt / 10, WORKING_V);
  const seconds = ohm * farad * Math.log(volt / target);
  const peakWatt = (volt * volt) / ohm;
  const joule = (farad * volt * volt) / 2;
  const wanted = Math.max(peakWatt / 2, joule / Math.max(seconds, 1));
  const ratingWatt = RATINGS_W.find((w) => w >= wanted) ?? Math.ceil(wanted);
  const isHarmless = joule < HARMLESS_J && volt <= SAFE_V && isCautious !== true;
  const unknown =
    isCautious === true
      ? 'What stores it is not on the sheet, so that nobody can know from here; as a cautious figure, '
      : '';
  const sentence = isHarmless
    ? `${round(joule)} J at ${round(volt)} V: harmless to touch; let it down through ${ohmText(ohm)} before a resistance is measured.`
    : `${unknown}${round(joule)} J: through ${ohmText(ohm)} it falls to ${round(target)} V in ${timeText(seconds)}; take a resistor of ${ratingWatt} W with insulated clips, then measure before you touch.`;
  return { ohm, seconds, peakWatt, ratingWatt, joule, sentence };
}

const round = (value: number) => Number(value.toPrecision(2));
const ohmText = (ohm: number) => (ohm >= 1000 ? `${round(ohm / 1000)} kΩ` : `${round(ohm)} Ω`);
const timeText = (s: number) => (s >= 90 ? `${Math.ceil(s / 60)} min` : `${Math.max(1, Math.ceil(s))} s`);

const LOCAL = 'Follow your local codes; work on the mains side is for licensed people.';

/** Usual cautions by hazard, in the order of danger. */
const CAUTIONS: Readonly<Record<Hazard, readonly string[]>> = {
  mains: [
    'Unplug before you open it, and keep the plug where you see it.',
    `Nothing on the mains side is measured live here. ${LOCAL}`,
  ],
  'switch-mode primary': [
    'The primary stays charged to the peak of the mains after unplugging: discharge its capacitor through a resistor and measure it.',
    `It is live to the mains while plugged in. ${LOCAL}`,
  ],
  'valve high tension': [
    'High tension kills, on and after: switch off, unplug, discharge every reservoir, measure, and only then reach in.',
    `Live work is for people trained for it, one hand behind the back. ${LOCAL}`,
  ],
  'large capacitors': [
    'Large and super capacitors weld a screwdriver: discharge through a resistor, never with a short.',
  ],
  lithium: ['A lithium cell that is bent, hot or swollen goes outside, on stone. Never charge it again.'],
  'hot parts': ['Heat sinks, valves and resistors burn for minutes after switching off.'],
  'battery only': ['Battery powered: it may be probed while it runs. Take care not to short the battery.'],
};

/** The usual cautions for a unit's hazards, the most dangerous first; a battery-only unit has no other. */
export const cautionsOf = (hazards: readonly Hazard[]): readonly string[] =>
  HAZARDS.filter((known) => hazards.includes(known)).flatMap((h) => CAUTIONS[h]);

/** What is usual behind a hazard: the rectified peak of 230 V, a valve amplifier's reservoir, a bank of capacitors. */
const USUAL_STORED: Readonly<Partial<Record<Hazard, Stored>>> = {
  'valve high tension': { farad: 47e-6, volt: 400 },
  'switch-mode primary': { farad: 100e-6, volt: 325 },
  mains: { farad: 100e-6, volt: 325 },
  'large capacitors': { farad: 10e-3, volt: 63 },
};
/** From this size a capacitor is what people call a large one, F (common practice). */
const LARGE_F = 470e-6;

/**
 * What is likely stored in a unit: of the capacitors of its circuit, each at its own computed voltage, the one with the
 * most energy. Where a hazard is said that the sheet does not hold (no capacitor above 60 V with high tension or the
 * mains, no large one with large capacitors) what is usual for it stands in, as a cautious figure.
 */
export function likelyStored(circuit: Circuit, hazards: readonly Hazard[]): Stored | null {
  const known = mostCharged(circuit);
  for (const hazard of HAZARDS) {
    const usual = USUAL_STORED[hazard];
    if (!usual || !hazards.includes(hazard)) continue;
    // A mains-side reservoir is on no sheet of what lies behind the transformer, and high tension is told by its voltage.
    const isOnSheet =
      known !== null && (hazard === 'large capacitors' ? known.farad >= LARGE_F : known.volt > SAFE_V);
    if (!isOnSheet) return { ...usual, isCautious: true };
  }
  return known;
}

/** The capacitor with the most energy, at the voltage across it; at the highest supply where none is computed. */
function mostCharged(circuit: Circuit): Stored | null {
  const volts = restingVolts(circuit);
  const highest = Math.max(
    0,
    ...circuit.parts.map((p) => {
      const value = p.kind === 'supply' ? markedValue(p) : null;
      return typeof value === 'number' ? Math.abs(value) : 0;
    }),
  );
  const at = (net: string | undefined) => (net === circuit.ground ? 0 : net && volts.get(net));
  let most: Stored | null = null;
  for (const part of circuit.parts) {
    const farad = part.kind === 'capacitor' ? markedValue(part) : null;
    if (typeof farad !== 'number') continue;
    const [a, b] = [at(part.pins.a), at(part.pins.b)];
    const volt = typeof a === 'number' && typeof b === 'number' ? Math.abs(a - b) : highest;
    if (volt > 0 && (!most || farad * volt ** 2 > most.farad * most.volt ** 2))
      most = { farad, volt, ref: part.ref };
  }
  return most;
}
