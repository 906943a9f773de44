import { netsOf, type LayerCircuit, type LayerPart } from '../../circuit/circuit/index.ts';
import { formatQuantity } from '../../base/quantity/index.ts';
import {
  isUnexplained,
  logPriorElse,
  logsOfSomethingElse,
  posteriorOf,
  priorsOf,
  slipsOf,
} from './certainty.ts';
import { agreement, Separation, type Agreement } from './likelihood.ts';
import { faultsOfPart, type PartFault } from './part-faults.ts';
import { seededRandom } from '../../base/numeric/index.ts';
import { drawLike, Predictor, sigmaOf, type Prediction, type Quantity } from './prediction.ts';
import { entropy } from './suspects.ts';

/** What was measured: V, ohm, F, or V peak for a level with the signal sources on. Null is overload. */
export interface Measured {
  readonly quantity: Quantity;
  readonly value: number | null;
  /** Read twice, and alike. */
  readonly isSure?: true;
}

/** One fault with what it would make every quantity read. */
export interface DictionaryEntry {
  readonly fault: Omit<PartFault, 'apply'> | null;
  /** Null where nothing is known of it: it could not be computed, and stays possible with its weight. */
  readonly predicted: readonly (Prediction | null)[];
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

/** A measurement with what it would tell of which fault it is. */
export interface NextMeasurement {
  readonly quantity: Quantity;
  readonly bits: number;
  /** Measured already: one reading carries the conclusion, and a second look at it is a test. */
  readonly isAgain?: true;
  /** What the two likeliest faults that it tells apart would make it read. */
  readonly why: string;
}

export interface PartSearch {
  /** Likeliest first. */
  readonly groups: readonly PartGroup[];
  /** That nothing is wrong, or something that none of the direct voltages shows. */
  readonly nothingWrong: number;
  /** That it is something the dictionary does not know: another fault, two at once, or more than one reading astray. */
  readonly somethingElse: number;
  /** Whether no known fault explains what was measured, taken together. */
  readonly isUnexplained: boolean;
  /** Measurements that would tell most, best first. */
  readonly next: readonly NextMeasurement[];
  /** What the sound circuit would read, a quantity each; null for overload and where it cannot be computed. */
  readonly sound: readonly (number | null)[];
  /** Measurements that agree with no fault that agrees with the others. */
  readonly unexplained: readonly number[];
  /** Parts of which a fault could not be computed; it stays possible. */
  readonly uncomputed: readonly string[];
}

/** The severity of a fault lies anywhere between its neighbours: a uniform spread of one step has this sigma. */
const GRADE_SIGMA = 1 / Math.sqrt(12);

/**
 * Expected readings of the sound circuit and of every fault of the parts named. A fault whose circuit cannot be computed
 * stays in, with nothing predicted of it.
 */
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
  const modes = circuit.parts.filter((p) => !refs || refs.has(p.ref)).flatMap((p) => byMode(faultsOfPart(p)));
  const { index, of } = options.share ?? { index: 0, of: 1 };
  const own = [[null], ...modes].filter((_, i) => i % of === index);
  const nothing = quantities.map(() => null);
  const predictor = new Predictor(quantities, circuit);
  return own.flatMap((faults, i) => {
    options.onProgress?.(i / own.length);
    const entries = faults.map((fault) => ({
      fault,
      predicted: predictor.of(fault ? fault.apply(circuit) : circuit) ?? nothing,
    }));
    if (faults[0] === null)
      return [...entries, ...soundDraws(circuit, predictor, quantities, entries[0]!.predicted)];
    return faults.length > 1 ? graded(entries) : entries;
  });
}

/** Draws of the sound circuit that tell whether it bends, those that stand for one that does, and the part of all spread that lies between them; the rest is round each. */
const FIRST_DRAWS = 12;
const SOUND_DRAWS = 40;
const DRAWN_REACH = 0.6;
/** What draws do beyond this, against what slopes say of them, is a circuit that bends: their mean in sigmas, their spread as a factor. */
const BENT_MEAN = 0.6;
const BENT_FACTOR = 1.6;

/**
 * The sound circuit at other places in its tolerances and types, each with its own slopes, where it bends what it does: in stages that are
 * coupled directly, and where two transistors share a current, slopes at one place do not hold at the other. None where they hold.
 */
function soundDraws(
  circuit: LayerCircuit,
  predictor: Predictor,
  quantities: readonly Quantity[],
  nominal: readonly (Prediction | null)[],
): (DictionaryEntry & { readonly fault: null })[] {
  const random = seededRandom(1);
  const drawn = (count: number) =>
    Array.from({ length: count }, () => predictor.of(drawLike(circuit, random, DRAWN_REACH))).filter(
      (d) => d !== null,
    );
  const draws = drawn(FIRST_DRAWS);
  const bends = quantities.some((q, k) => {
    const p = nominal[k];
    const values = draws.flatMap((d) => d[k]?.value ?? []);
    if (q.kind !== 'dcv' || !p || p.value === null || values.length < FIRST_DRAWS / 2) return false;
    const mean = values.reduce((a, b) => a + b, 0) / values.length;
    const spread = Math.sqrt(values.reduce((sum, v) => sum + (v - mean) ** 2, 0) / values.length);
    const sigma = Math.hypot(p.own, DRAWN_REACH * Math.hypot(...p.moves));
    return Math.abs(mean - p.value) > BENT_MEAN * sigma || spread > BENT_FACTOR * sigma;
  });
  const rest = Math.sqrt(1 - DRAWN_REACH ** 2);
  if (!bends) return [];
  return [...draws, ...drawn(SOUND_DRAWS - FIRST_DRAWS)].map((d) => ({
    fault: null,
    predicted: d.map((p) => p && { ...p, moves: p.moves.map((m) => rest * m) }),
  }));
}

/** The severities of each mode together. */
function byMode(faults: readonly PartFault[]): PartFault[][] {
  const modes = new Map<string, PartFault[]>();
  for (const fault of faults) modes.set(fault.mode, [...(modes.get(fault.mode) ?? []), fault]);
  return [...modes.values()];
}

/** The severities of one mode, each with what the way to its neighbours moves it by. */
function graded<E extends DictionaryEntry>(entries: readonly E[]): E[] {
  return entries.map((entry, i) => ({
    ...entry,
    predicted: entry.predicted.map((p, k) => {
      if (p === null || p.value === null) return p;
      const valueAt = (j: number) => entries[j]?.predicted[k]?.value ?? p.value!;
      const steps = (i > 0 ? 1 : 0) + (i + 1 < entries.length ? 1 : 0);
      const move = ((valueAt(i + 1) - valueAt(i - 1)) / Math.max(1, steps)) * GRADE_SIGMA;
      return { ...p, moves: [...p.moves, move] };
    }),
  }));
}

/** Two entries nearer than this in what was measured cannot be told apart, the square of sigmas. */
const TELLING = 4;
/** Groups that are handed on. */
const SHOWN_GROUPS = 20;
const NEGLIGIBLE = 1e-4;
/** A reading that is astray with at least this chance is named. */
const ASTRAY = 0.5;

/**
 * Compares what was measured with a dictionary: the probability of every fault, those that cannot be told apart as one
 * group, and the measurement that would tell most. The dictionary's quantities begin with those measured, in order;
 * the others are candidates for the next measurement.
 *
 * @param sure which were read twice, and alike
 */
export function searchParts(
  dictionary: readonly DictionaryEntry[],
  quantities: readonly Quantity[],
  measured: readonly (number | null)[],
  sure: readonly boolean[] = [],
): PartSearch {
  const count = measured.length;
  const spans = measured.map((value, i) => spanOf(dictionary, i, value));
  const agreements = dictionary.map((entry) => agreement(entry.predicted, measured, spans, sure));
  const priors = priorsOf(dictionary);
  const logs = priors.map((prior, i) => Math.log(prior) + agreements[i]!.log);
  const unknown = logsOfSomethingElse(dictionary, priors, measured, spans);
  const now = posteriorOf(
    logs,
    unknown.reduce((a, b) => a + b, logPriorElse(priors)),
  );
  const { posterior, somethingElse } = now;
  const slips = slipsOf(dictionary, priors, agreements, sure, now, unknown);
  const nothingExplains = isUnexplained(agreements, now);
  const telling = nextMeasurements(dictionary, quantities, posterior, slips, agreements);
  const next = nothingExplains ? repeatFirst(telling) : telling;
  const sound = dictionary.find((e) => e.fault === null);
  const direct = quantities.flatMap((q, i) => (q.kind === 'dcv' ? [i] : []));
  const fromSound = sound && new Separation(sound.predicted, direct);
  const isHidden = (entry: DictionaryEntry) =>
    entry.fault === null ||
    (entry.predicted.some((p) => p !== null) && fromSound!.to(entry.predicted) < HIDDEN);
  return {
    groups: groupsOf(dictionary, posterior, count),
    nothingWrong: posterior.reduce(
      (sum, p, i) => sum + (fromSound && p > NEGLIGIBLE && isHidden(dictionary[i]!) ? p : 0),
      0,
    ),
    somethingElse,
    isUnexplained: nothingExplains,
    next: suppliesFirst(dictionary, quantities, posterior, count, next),
    sound: quantities.map((_, k) => sound?.predicted[k]?.value ?? null),
    unexplained: measured.flatMap((_, i) => {
      const astray = posterior.reduce((sum, p, e) => sum + p * agreements[e]!.astray[i]!, 0);
      return astray > ASTRAY ? [i] : [];
    }),
    uncomputed: [
      ...new Set(
        dictionary.flatMap((e) => (e.fault && e.predicted.every((p) => p === null) ? [e.fault.ref] : [])),
      ),
    ],
  };
}

/** The width in which a stray reading of a quantity lies: as far as any fault reaches. */
function spanOf(dictionary: readonly DictionaryEntry[], i: number, measured: number | null): number {
  let [low, high] = [measured ?? 0, measured ?? 0];
  let least = 0;
  for (const { predicted } of dictionary) {
    const value = predicted[i]?.value;
    if (value === null || value === undefined) continue;
    low = Math.min(low, value);
    high = Math.max(high, value);
    least = Math.max(least, predicted[i]!.own);
  }
  return Math.max(high - low, least, Number.MIN_VALUE);
}

/** What is nearer than this to the sound circuit in all direct voltages shows in none, the square of sigmas. */
const HIDDEN = 1;

function groupsOf(
  dictionary: readonly DictionaryEntry[],
  posterior: readonly number[],
  count: number,
): PartGroup[] {
  const order = posterior
    .map((p, i) => ({ p, i }))
    .filter(({ p, i }) => p > NEGLIGIBLE && dictionary[i]!.fault !== null)
    .sort((a, b) => b.p - a.p);
  const measured = Array.from({ length: count }, (_, i) => i);
  const groups: { around: Separation; members: Map<string, PartSuspect>; probability: number }[] = [];
  for (const { p, i } of order) {
    const entry = dictionary[i]!;
    const { ref, mode } = entry.fault!;
    const key = `${ref} ${mode}`;
    const home = groups.find((g) => g.members.has(key) || g.around.to(entry.predicted) < TELLING);
    const group = home ?? {
      around: new Separation(entry.predicted, measured),
      members: new Map<string, PartSuspect>(),
      probability: 0,
    };
    if (!home) groups.push(group);
    group.members.set(key, { ref, mode, probability: p + (group.members.get(key)?.probability ?? 0) });
    group.probability += p;
  }
  return groups
    .map((g) => ({
      probability: g.probability,
      members: [...g.members.values()].sort((a, b) => b.probability - a.probability),
    }))
    .sort((a, b) => b.probability - a.probability)
    .slice(0, SHOWN_GROUPS);
}

/**
 * What measuring a quantity would tell about which fault it is: the entropy of the readings that the suspects predict, less
 * what would only tell how bad the fault is.
 */
function nextMeasurements(
  dictionary: readonly DictionaryEntry[],
  quantities: readonly Quantity[],
  posterior: readonly number[],
  slips: readonly number[] = [],
  agreements: readonly Agreement[] = [],
): NextMeasurement[] {
  const likely = posterior.map((p, i) => ({ p, i })).filter(({ p }) => p > NEGLIGIBLE * 10);
  return quantities
    .map((quantity, k) => {
      const isAgain = k < slips.length;
      const bins = new Map<string, number>();
      const ofFault = new Map<string, Map<string, number>>();
      const lead = new Map<string, { p: number; i: number }>();
      const count = (bin: string, p: number, i: number) => {
        if (p === 0) return;
        bins.set(bin, (bins.get(bin) ?? 0) + p);
        const { fault } = dictionary[i]!;
        const key = fault ? `${fault.ref} ${fault.mode}` : '';
        const own = ofFault.get(key) ?? new Map<string, number>();
        ofFault.set(key, own.set(bin, (own.get(bin) ?? 0) + p));
        if ((lead.get(bin)?.p ?? 0) < p) lead.set(bin, { p, i });
      };
      for (const { p, i } of likely) {
        const prediction = dictionary[i]!.predicted[k];
        if (!prediction) continue;
        const width = 3 * sigmaOf(prediction);
        const bin = prediction.value === null ? 'overload' : String(Math.round(prediction.value / width));
        // What was measured reads the same again, but where it was astray.
        const astray = isAgain ? agreements[i]!.astray[k]! : 1;
        count(bin, p * astray, i);
        count('as it was', p * (1 - astray), i);
      }
      const severity = [...ofFault.values()].reduce((sum, own) => {
        const shares = [...own.values()];
        const whole = shares.reduce((a, b) => a + b, 0);
        return sum + whole * entropy(shares.map((share) => share / whole));
      }, 0);
      const told = entropy([...bins.values()]) - severity;
      const slip = slips[k] ?? 0;
      const bits = Math.max(told, slip > 0 ? entropy([slip, 1 - slip]) : 0);
      const heads = [...lead.values()].sort((x, y) => y.p - x.p).slice(0, 2);
      const why = heads
        .map(({ i }) => {
          const { fault, predicted } = dictionary[i]!;
          return `${fault ? `${fault.ref} ${fault.mode}` : 'nothing wrong'}: ${valueText(quantity, predicted[k]!.value)}`;
        })
        .join('; ');
      if (!isAgain) return { quantity, bits, why };
      return { quantity, bits, why: AGAIN_WHY, isAgain: true as const };
    })
    .filter((m) => m.bits > 0.05)
    .sort((a, b) => b.bits - a.bits);
}

/** Where nothing known explains the readings, one of them that is astray is to be found before anything is told of known faults. */
function repeatFirst(next: readonly NextMeasurement[]): NextMeasurement[] {
  const again = next.find((n) => n.isAgain);
  if (!again) return [...next];
  return [{ ...again, bits: Math.max(again.bits, next[0]!.bits) }, ...next.filter((n) => n !== again)];
}

/** A supply that may be at fault with this chance is measured before anything else is. */
const SUPPLY_SUSPECTED = 0.05;

/** Nothing is blamed on a supply before what it gives was measured: where one is suspected, its net comes first. */
function suppliesFirst(
  dictionary: readonly DictionaryEntry[],
  quantities: readonly Quantity[],
  posterior: readonly number[],
  count: number,
  next: readonly NextMeasurement[],
): NextMeasurement[] {
  const chances = new Map<string, { chance: number; readonly rails: readonly string[] }>();
  dictionary.forEach(({ fault }, e) => {
    if (!fault?.rails) return;
    const known = chances.get(fault.ref) ?? { chance: 0, rails: fault.rails };
    known.chance += posterior[e]!;
    chances.set(fault.ref, known);
  });
  const isAt = (q: Quantity, rails: readonly string[]) => q.kind === 'dcv' && rails.includes(q.net);
  const first = [...chances]
    .filter(
      ([, { chance, rails }]) =>
        chance > SUPPLY_SUSPECTED && !quantities.slice(0, count).some((q) => isAt(q, rails)),
    )
    .flatMap(([ref, { rails }]): NextMeasurement[] => {
      const quantity = quantities.slice(count).find((q) => isAt(q, rails));
      const told = next.find((n) => n.quantity === quantity)?.bits ?? 0;
      const bits = Math.max(told, next[0]?.bits ?? 0, HARDLY_TELLS);
      return quantity
        ? [{ quantity, bits, why: `${ref} is suspected, and what it gives was not measured` }]
        : [];
    });
  return [...first, ...next.filter((n) => !first.some((f) => f.quantity === n.quantity))];
}

/** Why a reading is taken once more. */
const AGAIN_WHY = 'the conclusion hangs on it alone: is the probe where it should be?';

const UNIT_OF = { dcv: 'V', diode: 'V', level: 'V', ohm: 'ohm', cap: 'F' } as const;

const valueText = (quantity: Quantity, value: number | null): string =>
  value === null ? 'overload' : formatQuantity(value, UNIT_OF[quantity.kind], { digits: 3 });

/** A next voltage or level that tells less than this leaves a group as it is, bit. */
export const HARDLY_TELLS = 0.3;

/**
 * Readings across the parts of a group in their circuit, switched off, that would tell its members apart: for faults that no
 * voltage and no level does. Best first; the part that is read goes with each.
 */
export function tellingReadings(
  circuit: LayerCircuit,
  members: readonly PartSuspect[],
): (NextMeasurement & { readonly ref: string })[] {
  const chance = new Map(members.map((m) => [`${m.ref} ${m.mode}`, m.probability]));
  const parts = circuit.parts.filter((p) => members.some((m) => m.ref === p.ref));
  const read = parts.flatMap((p) => {
    const { a, b } = p.pins;
    const kind = p.kind === 'resistor' ? 'ohm' : p.kind === 'capacitor' ? 'cap' : null;
    if (kind === null || a === undefined || b === undefined) return [];
    return [{ ref: p.ref, quantity: { kind, red: a, black: b } as const }];
  });
  const quantities = read.map((r) => r.quantity);
  const modes = parts
    .flatMap((p) => byMode(faultsOfPart(p)))
    .filter(([fault]) => chance.has(`${fault!.ref} ${fault!.mode}`));
  const predictor = new Predictor(quantities, circuit);
  const entries = modes.flatMap((faults) =>
    faults.map((fault) => ({
      fault,
      probability: chance.get(`${fault.ref} ${fault.mode}`)! / faults.length,
      predicted: predictor.of(fault.apply(circuit)) ?? quantities.map(() => null),
    })),
  );
  const posterior = entries.map((e) => e.probability);
  return nextMeasurements(entries, quantities, posterior).map((next) => ({
    ...next,
    ref: read.find((r) => r.quantity === next.quantity)!.ref,
  }));
}

/** Direct voltages of a circuit that may be measured: every net but the ground and those a supply holds by itself. */
export function voltageQuantities(
  circuit: Pick<LayerCircuit, 'ground'> & { parts: readonly Pick<LayerPart, 'pins'>[] },
): Quantity[] {
  return netsOf(circuit)
    .filter((net) => net !== circuit.ground)
    .map((net): Quantity => ({ kind: 'dcv', net }));
}
