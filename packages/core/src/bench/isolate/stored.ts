import { HAZARDS, type Hazard } from '@zemble/contract';
import { resolveLayer } from '../../circuit/changes/index.ts';
import type { Circuit, LayerCircuit, LayerPart } from '../../circuit/circuit/index.ts';
import { restingVolts } from './expected.ts';

/** Energy that can hurt: capacitors that discharge together, and the resistor they are discharged with. */
export interface Stored {
  /** Of all of them, F. */
  readonly farad: number;
  /** The highest of their voltages, V. */
  readonly volt: number;
  /** Resistor to discharge them with, ohm; chosen when absent. */
  readonly ohm?: number | undefined;
  /** Where the clips go: the capacitor with the most energy, where the sheet has it. */
  readonly ref?: string | undefined;
  /** The others that empty through the same two clips. */
  readonly others?: readonly string[] | undefined;
  /** What the resistances between them and the clips add to the time constant, s: the sum of C R over the others. */
  readonly lagS?: number | undefined;
  /** True where the sheet does not hold the part that stores it, and a cautious figure stands in. */
  readonly isCautious?: boolean | undefined;
}

export interface Discharge {
  readonly ohm: number;
  /** Time until no more than `targetV` is left, s. */
  readonly seconds: number;
  readonly targetV: number;
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

export const energyOf = ({ farad, volt }: Pick<Stored, 'farad' | 'volt'>): number => (farad * volt ** 2) / 2;

/** A resistor for a discharge that starts gently, ohm. */
const gentleOhm = (volt: number): number => OHMS.find((r) => volt ** 2 / r <= GENTLE_W) ?? OHMS.at(-1)!;

/**
 * Discharge of capacitors through a resistor: V(t) = V e^(-t/T), down to 12 V, or to a tenth where it starts below that.
 * T is the sum of C R over all of them, each with the resistance between it and the clips: no time constant of such a
 * network is longer (Elmore 1948). Farad, volt and ohm above zero.
 */
export function dischargeOf(stored: Stored): Discharge {
  const { farad, volt, lagS = 0, isCautious } = stored;
  const ohm = stored.ohm ?? gentleOhm(volt);
  const targetV = volt > WORKING_V ? WORKING_V : volt / 10;
  const seconds = (ohm * farad + lagS) * Math.log(volt / targetV);
  const peakWatt = (volt * volt) / ohm;
  const joule = energyOf(stored);
  const wanted = Math.max(peakWatt / 2, joule / Math.max(seconds, 1));
  const ratingWatt = RATINGS_W.find((w) => w >= wanted) ?? Math.ceil(wanted);
  const isHarmless = joule < HARMLESS_J && volt <= SAFE_V && isCautious !== true;
  const unknown =
    isCautious === true
      ? 'What stores it is not on the sheet, so that nobody can know from here; as a cautious figure, '
      : '';
  const sentence = isHarmless
    ? `${round(joule)} J at ${round(volt)} V: harmless to touch; let it down through ${ohmText(ohm)} before a resistance is measured.`
    : `${unknown}${round(joule)} J: through ${ohmText(ohm)} it falls to ${round(targetV)} V in ${timeText(seconds)}; take a resistor of ${ratingWatt} W with insulated clips, then measure before you touch.`;
  return { ohm, seconds, targetV, peakWatt, ratingWatt, joule, sentence };
}

const round = (value: number) => Number(value.toPrecision(2));
const ohmText = (ohm: number) => (ohm >= 1000 ? `${round(ohm / 1000)} kΩ` : `${round(ohm)} Ω`);
const timeText = (s: number) => (s >= 90 ? `${Math.ceil(s / 60)} min` : `${Math.max(1, Math.ceil(s))} s`);

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
 * What is likely stored in a unit, the most energy first: its capacitors in groups that empty through the same two clips, each
 * above what is harmless; where none is, the largest. Where a hazard is said that the sheet does not hold (nothing above 60 V
 * with high tension or the mains, no large capacitor with large capacitors) what is usual for it comes first, as a cautious
 * figure. Where what the sheet has and what it may not have are both there, one resistor that bears the higher voltage is
 * meant for all.
 */
export function likelyStored(circuit: Circuit, hazards: readonly Hazard[]): readonly Stored[] {
  const groups = storedGroups(circuit);
  const usual = usualUnseen(groups, hazards);
  const isLarge = hazards.includes('large capacitors');
  const hurting = groups.filter((g) => energyOf(g) >= HARMLESS_J || (isLarge && g.farad >= LARGE_F));
  const shown = hurting.length > 0 || usual ? hurting : groups.slice(0, 1);
  if (!usual) return shown;
  const ohm = gentleOhm(Math.max(usual.volt, ...shown.map((g) => g.volt)));
  return [usual, ...shown].map((s) => ({ ...s, ohm }));
}

/** What is usual behind the gravest hazard that the sheet does not hold. */
function usualUnseen(groups: readonly Stored[], hazards: readonly Hazard[]): Stored | undefined {
  for (const hazard of HAZARDS) {
    const usual = USUAL_STORED[hazard];
    if (!usual || !hazards.includes(hazard)) continue;
    // A mains-side reservoir is on no sheet of what lies behind the transformer, and high tension is told by its voltage.
    const isOnSheet = groups.some((g) =>
      hazard === 'large capacitors' ? g.farad >= LARGE_F : g.volt > SAFE_V,
    );
    if (!isOnSheet) return { ...usual, isCautious: true };
  }
  return undefined;
}

interface Charged {
  readonly ref: string;
  readonly farad: number;
  readonly volt: number;
  /** The net that is higher, and the other. */
  readonly nets: readonly [high: string, low: string];
}

/** The group that one capacitor empties with, seen from its own terminals. Undefined where it holds no charge. */
export function storedAt(circuit: Circuit, ref: string): Stored | undefined {
  const layer = resolveLayer(circuit, 'found');
  const all = chargedIn(circuit, layer);
  const seed = all.find((c) => c.ref === ref);
  return seed && groupOf(seed, all, layer);
}

/** All capacitors that hold charge at rest, in groups that empty through the same two clips, the most energy first. */
export function storedGroups(circuit: Circuit): readonly Stored[] {
  const layer = resolveLayer(circuit, 'found');
  const all = chargedIn(circuit, layer);
  const groups: Stored[] = [];
  let left = [...all].sort((a, b) => energyOf(b) - energyOf(a));
  for (let seed = left[0]; seed !== undefined; seed = left[0]) {
    const group = groupOf(seed, left, layer);
    groups.push(group);
    const taken = new Set([seed.ref, ...(group.others ?? [])]);
    left = left.filter((c) => !taken.has(c.ref));
  }
  return groups.sort((a, b) => energyOf(b) - energyOf(a));
}

/** Each capacitor at the voltage across it; at the highest supply where none is computed. */
function chargedIn(circuit: Circuit, layer: LayerCircuit): readonly Charged[] {
  const volts = restingVolts(circuit);
  const highest = Math.max(
    0,
    ...layer.parts.map((p) => (p.kind === 'supply' && typeof p.value === 'number' ? Math.abs(p.value) : 0)),
  );
  const at = (net: string) => (net === layer.ground ? 0 : volts.get(net));
  return layer.parts.flatMap((part): Charged[] => {
    const { a, b } = part.pins;
    if (part.kind !== 'capacitor' || typeof part.value !== 'number' || a === undefined || b === undefined)
      return [];
    const [va, vb] = [at(a), at(b)];
    const across = va !== undefined && vb !== undefined ? va - vb : highest;
    if (across === 0) return [];
    const nets = across > 0 ? ([a, b] as const) : ([b, a] as const);
    return [{ ref: part.ref, farad: part.value, volt: Math.abs(across), nets }];
  });
}

/** The capacitors that empty with one, through resistances that are no larger than what they are discharged with. */
function groupOf(seed: Charged, all: readonly Charged[], layer: LayerCircuit): Stored {
  const limit = gentleOhm(seed.volt);
  const [high, low] = seed.nets.map((net) => ohmsFrom(layer, net, limit)) as [Reach, Reach];
  const members = all.flatMap((c) => {
    const ohm = (high.get(c.nets[0]) ?? Infinity) + (low.get(c.nets[1]) ?? Infinity);
    return ohm <= limit ? [{ ...c, ohm }] : [];
  });
  const others = members.filter((m) => m.ref !== seed.ref);
  return {
    ref: seed.ref,
    farad: members.reduce((sum, m) => sum + m.farad, 0),
    volt: Math.max(...members.map((m) => m.volt)),
    ...(others.length > 0
      ? { others: others.map((m) => m.ref), lagS: others.reduce((sum, m) => sum + m.farad * m.ohm, 0) }
      : {}),
  };
}

/** Ohm to each net that is reached. */
type Reach = ReadonlyMap<string, number>;

/** Resistance of the way from a net to others over resistors, coils and closed contacts, up to a limit: Dijkstra's. */
function ohmsFrom(layer: LayerCircuit, from: string, limit: number): Reach {
  const reached = new Map<string, number>();
  const open = new Map([[from, 0]]);
  while (open.size > 0) {
    const [net, ohm] = [...open].reduce((least, next) => (next[1] < least[1] ? next : least));
    open.delete(net);
    reached.set(net, ohm);
    for (const part of layer.parts) {
      const way = wayThrough(part, net);
      if (way === undefined || reached.has(way.to)) continue;
      const total = ohm + way.ohm;
      if (total <= limit && total < (open.get(way.to) ?? Infinity)) open.set(way.to, total);
    }
  }
  return reached;
}

/** Where a part leads from a net for direct current both ways, and with how many ohm. */
function wayThrough(part: LayerPart, net: string): { readonly to: string; readonly ohm: number } | undefined {
  const { a, b } = part.pins;
  if (a === undefined || b === undefined || (a !== net && b !== net)) return undefined;
  const to = a === net ? b : a;
  switch (part.kind) {
    case 'resistor':
    case 'speaker':
    case 'headphone':
    case 'load':
      return typeof part.value === 'number' ? { to, ohm: part.value } : undefined;
    case 'inductor':
      return { to, ohm: part.dcr ?? 0 };
    case 'switch':
    case 'jumper':
    case 'fuse':
      return part.closed === false ? undefined : { to, ohm: 0 };
    default:
      return undefined;
  }
}
