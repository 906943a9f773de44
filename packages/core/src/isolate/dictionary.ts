import {
  AdjointSlopes,
  AnalysisSession,
  NoOperatingPoint,
  spreadParts,
  type SpreadPart,
} from '../analysis/index.ts';
import { netsOf, usualTolerance, type LayerCircuit, type LayerPart } from '../circuit/index.ts';
import { HalfsplitError } from '../errors.ts';
import { formatQuantity } from '../quantity/index.ts';
import { Probe, type MeterMode } from '../meter/index.ts';
import { levelAt } from './expected.ts';
import { faultsOfPart, type PartFault } from './part-faults.ts';
import { entropy } from './suspects.ts';

/** Something that can be measured of a circuit. */
export type Quantity =
  | { readonly kind: 'dcv'; readonly net: string; readonly minus?: string }
  | { readonly kind: 'ohm' | 'cap' | 'diode'; readonly red: string; readonly black: string }
  | { readonly kind: 'level'; readonly net: string; readonly frequencyHz: number };

/** What was measured: V, ohm, F, or V peak for a level with the signal sources on. Null is overload. */
export interface Measured {
  readonly quantity: Quantity;
  readonly value: number | null;
}

/** One fault with what it would make every quantity read. */
export interface DictionaryEntry {
  readonly fault: Omit<PartFault, 'apply'> | null;
  readonly predicted: readonly (Prediction | null)[];
}

/** What is expected to be read, and how far that may be off by tolerances, models and the meter: one sigma. */
export interface Prediction {
  readonly value: number | null;
  readonly sigma: number;
}

export interface PartSuspect {
  readonly ref: string;
  readonly mode: string;
  readonly probability: number;
}

/** Faults that no measurement so far tells apart, as one. */
export interface PartGroup {
  readonly members: readonly PartSuspect[];
  readonly probability: number;
}

export interface PartSearch {
  /** Likeliest first. */
  readonly groups: readonly PartGroup[];
  /** That everything measured is as it should be. */
  readonly nothingWrong: number;
  /** Measurements that would tell most, best first. */
  readonly next: readonly { readonly quantity: Quantity; readonly bits: number; readonly why: string }[];
  /** Measurements that no fault explains well. */
  readonly unexplained: readonly number[];
}

/** A reading of a usual meter, and of a model against a real part: shares and floors, one sigma (common practice). */
const METER_SHARE = 0.005;
const MODEL_SHARE = 0.03;
const DC_FLOOR_V = 0.03;
const LEVEL_SHARE = 0.15;
const LEVEL_FLOOR_V = 1e-4;
const OHM_SHARE = 0.06;
const CAP_SHARE = 0.12;
/** Uniform deviations have this part of their limit as sigma. */
const UNIFORM_SIGMA = 1 / Math.sqrt(3);
/** Chance that a reading has nothing to do with the fault: slipped, or a second fault; and its density against a sigma. */
const STRAY = 0.02;
const STRAY_DENSITY = 0.02;
/** From every net, so that a part that is open leaves no net without a voltage, ohm. */
const LEAK_OHM = 1e11;
/** Weight of nothing being wrong with the parts, against a resistor that has drifted. */
const NOTHING_WRONG_WEIGHT = 0.5;

/** Expected readings of the sound circuit and of every fault of the parts named. Faults without a solution are left out. */
export function faultDictionary(
  circuit: LayerCircuit,
  quantities: readonly Quantity[],
  options: {
    readonly refs?: readonly string[];
    readonly share?: { readonly index: number; readonly of: number };
    readonly onProgress?: (fraction: number) => void;
  } = {},
): (DictionaryEntry & { readonly fault: PartFault | null })[] {
  const refs = options.refs && new Set(options.refs);
  const faults = circuit.parts
    .filter((p) => !refs || refs.has(p.ref))
    .flatMap((p): (PartFault | null)[] => faultsOfPart(p));
  const { index, of } = options.share ?? { index: 0, of: 1 };
  const own = [null, ...faults].filter((_, i) => i % of === index);
  return own.flatMap((fault, i) => {
    options.onProgress?.(i / own.length);
    const predicted = predict(fault ? fault.apply(circuit) : circuit, quantities, circuit);
    return predicted ? [{ fault, predicted }] : [];
  });
}

/** What a circuit would read; null when it has no operating point. */
function predict(
  circuit: LayerCircuit,
  quantities: readonly Quantity[],
  sound: LayerCircuit,
): (Prediction | null)[] | null {
  try {
    const powered = new Powered(circuit);
    return quantities.map((q): Prediction | null => {
      if (q.kind === 'dcv') return powered.volt(q.net, q.minus);
      if (q.kind === 'level') return powered.level(q.net, q.frequencyHz);
      return unpowered(circuit, sound, q.kind, q.red, q.black);
    });
  } catch (error) {
    if (error instanceof HalfsplitError || error instanceof NoOperatingPoint) return null;
    throw error;
  }
}

/** The circuit switched on. */
class Powered {
  private readonly session: AnalysisSession;
  private readonly spread: SpreadPart[];
  private readonly slopes: AdjointSlopes;
  private readonly circuit: LayerCircuit;

  constructor(circuit: LayerCircuit) {
    const leaks = netsOf(circuit)
      .filter((net) => net !== circuit.ground)
      .map((net): LayerPart => ({
        ref: `#${net}`,
        kind: 'resistor',
        pins: { a: net, b: circuit.ground },
        value: LEAK_OHM,
        tolerance: 0,
      }));
    this.circuit = { ...circuit, parts: [...circuit.parts, ...leaks] };
    this.session = new AnalysisSession(this.circuit);
    this.spread = spreadParts(this.circuit, usualTolerance).filter((p) => this.session.system.canTurn(p.ref));
    this.slopes = new AdjointSlopes(this.session, this.spread);
  }

  volt(net: string, minus?: string): Prediction | null {
    const of = (name: string) =>
      name === this.circuit.ground
        ? { value: 0, slopes: this.spread.map(() => 0) }
        : {
            value: this.session.operatingPoint()[this.session.system.node(name)]!,
            slopes: this.slopes.voltage(name),
          };
    const [a, b] = [of(net), minus === undefined ? null : of(minus)];
    const value = a.value - (b?.value ?? 0);
    const byTolerance = this.spread.reduce(
      (sum, p, i) => sum + ((a.slopes[i]! - (b?.slopes[i] ?? 0)) * p.tolerance * UNIFORM_SIGMA) ** 2,
      0,
    );
    const size = Math.abs(value);
    const sigma = Math.sqrt(byTolerance + ((METER_SHARE + MODEL_SHARE) * size) ** 2 + DC_FLOOR_V ** 2);
    return { value, sigma };
  }

  level(net: string, frequencyHz: number): Prediction {
    const value = levelAt(this.session, this.session.system.node(net), frequencyHz);
    return { value, sigma: LEVEL_SHARE * value + LEVEL_FLOOR_V };
  }
}

/** The circuit switched off, between two nets. */
function unpowered(
  circuit: LayerCircuit,
  sound: LayerCircuit,
  mode: Exclude<MeterMode, 'dcv'>,
  red: string,
  black: string,
): Prediction | null {
  // A net that only the faulty part touched is still there on the board.
  const known = new Set(netsOf(circuit));
  if (!known.has(red) || !known.has(black))
    return netsOf(sound).includes(red) ? { value: null, sigma: 1 } : null;
  const value = new Probe(circuit, mode, red, black).read();
  if (value === null) return { value: null, sigma: 1 };
  const sharing = mode === 'ohm' ? OHM_SHARE : mode === 'cap' ? CAP_SHARE : MODEL_SHARE;
  const floor = mode === 'ohm' ? 0.5 : mode === 'cap' ? 5e-11 : DC_FLOOR_V;
  return { value, sigma: Math.hypot(sharing * Math.abs(value), floor) };
}

/** Distance of a reading from a prediction, in sigmas. */
function distance(measured: number | null, predicted: Prediction): number {
  if (measured === null || predicted.value === null) return measured === predicted.value ? 0 : FAR;
  return (measured - predicted.value) / predicted.sigma;
}
const FAR = 8;

/** Two entries that differ by less than this in every quantity measured cannot be told apart, in sigmas. */
const TELLING = 1.5;
/** Groups and measurements that are handed on. */
const SHOWN_GROUPS = 20;
const SHOWN_NEXT = 5;
const NEGLIGIBLE = 1e-4;

/**
 * Compares what was measured with a dictionary: the probability of every fault, those that cannot be told apart as one
 * group, and the measurement that would tell most. The dictionary's quantities begin with those measured, in order;
 * the others are candidates for the next measurement.
 */
export function searchParts(
  dictionary: readonly DictionaryEntry[],
  quantities: readonly Quantity[],
  measured: readonly (number | null)[],
): PartSearch {
  const count = measured.length;
  const logs = dictionary.map((entry) => {
    let log = Math.log(entry.fault?.weight ?? NOTHING_WRONG_WEIGHT);
    for (let i = 0; i < count; i += 1) {
      const predicted = entry.predicted[i];
      if (!predicted) continue;
      const z = distance(measured[i]!, predicted);
      // A wide prediction is paid for: the density of a reading falls with its sigma.
      const relative = relativeSigma(dictionary, i, predicted);
      log += Math.log(((1 - STRAY) * Math.exp((-z * z) / 2)) / relative + STRAY * STRAY_DENSITY);
    }
    return log;
  });
  const best = Math.max(...logs);
  const weights = logs.map((l) => Math.exp(l - best));
  const whole = weights.reduce((a, b) => a + b, 0);
  const posterior = weights.map((w) => w / whole);
  const order = posterior
    .map((p, i) => ({ p, i }))
    .filter(({ p, i }) => p > NEGLIGIBLE && dictionary[i]!.fault !== null)
    .sort((a, b) => b.p - a.p);
  const groups: { head: DictionaryEntry; members: Map<string, PartSuspect>; probability: number }[] = [];
  for (const { p, i } of order) {
    const entry = dictionary[i]!;
    const { ref, mode } = entry.fault!;
    const home = groups.find((g) => looksLike(g.head, entry, count) || g.members.has(`${ref} ${mode}`));
    const group = home ?? { head: entry, members: new Map<string, PartSuspect>(), probability: 0 };
    if (!home) groups.push(group);
    const key = `${ref} ${mode}`;
    group.members.set(key, { ref, mode, probability: p + (group.members.get(key)?.probability ?? 0) });
    group.probability += p;
  }
  const sound = dictionary.findIndex((e) => e.fault === null);
  const likeliest = dictionary[posterior.indexOf(Math.max(...posterior))];
  return {
    groups: groups
      .map((g) => ({
        probability: g.probability,
        members: [...g.members.values()].sort((a, b) => b.probability - a.probability),
      }))
      .sort((a, b) => b.probability - a.probability)
      .slice(0, SHOWN_GROUPS),
    nothingWrong: sound < 0 ? 0 : posterior[sound]!,
    next: nextMeasurements(dictionary, quantities, posterior, count),
    unexplained: measured.flatMap((value, i) => {
      const predicted = likeliest?.predicted[i];
      return predicted && Math.abs(distance(value, predicted)) > UNEXPLAINED ? [i] : [];
    }),
  };
}
const UNEXPLAINED = 4;

/** Sigma of a prediction against the sound circuit's, at least a tenth of it. */
function relativeSigma(dictionary: readonly DictionaryEntry[], i: number, predicted: Prediction): number {
  const usual = dictionary.find((e) => e.fault === null)?.predicted[i]?.sigma;
  return usual === undefined || usual === 0 ? 1 : Math.max(0.1, predicted.sigma / usual);
}

function looksLike(a: DictionaryEntry, b: DictionaryEntry, count: number): boolean {
  for (let i = 0; i < count; i += 1) {
    const [p, q] = [a.predicted[i], b.predicted[i]];
    if (!p || !q) continue;
    if (p.value === null || q.value === null) {
      if (p.value !== q.value) return false;
    } else if (Math.abs(p.value - q.value) > TELLING * Math.max(p.sigma, q.sigma)) return false;
  }
  return true;
}

/** What measuring a quantity would tell about the fault: the entropy of the readings that the suspects predict. */
function nextMeasurements(
  dictionary: readonly DictionaryEntry[],
  quantities: readonly Quantity[],
  posterior: readonly number[],
  from: number,
): PartSearch['next'] {
  const likely = posterior.map((p, i) => ({ p, i })).filter(({ p }) => p > NEGLIGIBLE * 10);
  return quantities
    .map((quantity, k) => {
      if (k < from) return { quantity, bits: 0, why: '' };
      const bins = new Map<string, number>();
      const lead = new Map<string, { p: number; i: number }>();
      for (const { p, i } of likely) {
        const predicted = dictionary[i]!.predicted[k];
        if (!predicted) continue;
        const width = 3 * predicted.sigma;
        const bin = predicted.value === null ? 'overload' : String(Math.round(predicted.value / width));
        bins.set(bin, (bins.get(bin) ?? 0) + p);
        if ((lead.get(bin)?.p ?? 0) < p) lead.set(bin, { p, i });
      }
      const bits = entropy([...bins.values()]);
      const heads = [...lead.values()].sort((a, b) => b.p - a.p).slice(0, 2);
      const why = heads
        .map(({ i }) => {
          const { fault, predicted } = dictionary[i]!;
          return `${fault ? `${fault.ref} ${fault.mode}` : 'nothing wrong'}: ${valueText(quantity, predicted[k]!.value)}`;
        })
        .join('; ');
      return { quantity, bits, why };
    })
    .filter((m) => m.bits > 0.05)
    .sort((a, b) => b.bits - a.bits)
    .slice(0, SHOWN_NEXT);
}

const UNIT_OF = { dcv: 'V', diode: 'V', level: 'V', ohm: 'ohm', cap: 'F' } as const;

const valueText = (quantity: Quantity, value: number | null): string =>
  value === null ? 'overload' : formatQuantity(value, UNIT_OF[quantity.kind], { digits: 3 });

/** Direct voltages of a circuit that may be measured: every net but the ground and those a supply holds by itself. */
export function voltageQuantities(
  circuit: Pick<LayerCircuit, 'ground'> & { parts: readonly Pick<LayerPart, 'pins'>[] },
): Quantity[] {
  return netsOf(circuit)
    .filter((net) => net !== circuit.ground)
    .map((net): Quantity => ({ kind: 'dcv', net }));
}
