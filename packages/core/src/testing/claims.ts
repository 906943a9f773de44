import { resolveLayer } from '../circuit/changes/index.ts';
import { usualTolerance, type Circuit, type LayerCircuit } from '../circuit/circuit/index.ts';
import {
  faultDictionary,
  isReadAlike,
  searchParts,
  voltageQuantities,
  type PartSearch,
} from '../bench/isolate/index.ts';
import { plantedFaults, type Planted } from './planted.ts';
import { drawn, voltsAt } from './second-bench/index.ts';

/** How claims of a search among parts turned out. */
export interface Claims {
  /** Faults that were searched. */
  count: number;
  /** Of which the true part was in the first group, and in the first three. */
  first: number;
  amongThree: number;
  /** Measurements taken in all, and the nets at which they were: what decides is measured twice. */
  measurements: number;
  places: number;
  /** Every part that was claimed with more than half, and whether it was the one. */
  readonly claims: { readonly chance: number; readonly isRight: boolean; readonly what: string }[];
  /** Searches with one wrong reading among all: how many, found first, and with the wrong reading named. */
  withWrong: number;
  firstDespite: number;
  named: number;
}

export const noClaims = (): Claims => ({
  count: 0,
  first: 0,
  amongThree: 0,
  measurements: 0,
  places: 0,
  claims: [],
  withWrong: 0,
  firstDespite: 0,
  named: 0,
});

/** A measurement is worth while from so many bits; a handful of parts at this chance needs no more. */
const WORTH_BITS = 0.15;
const DECIDED = 0.97;
const DECIDED_PARTS = 3;
const MOST_MEASUREMENTS = 8;
const METER_ERROR = 0.01;
/** Every so many faults are searched with a wrong reading as well. */
const WRONG_EVERY = 3;

/** What is searched: a fault, and whether one of the readings is taken at another net than it is said to be. */
export interface Case {
  readonly planted: Planted;
  readonly isMisread?: boolean;
}

/**
 * Searches faults of a circuit one after the other, as a second bench shows them: with real parts anywhere in their tolerances and
 * spreads, a voltmeter that loads and errs by a per cent, measuring what is proposed. Answers false when that bench cannot
 * tell the circuit's voltages.
 */
export function searchPlanted(
  circuit: Circuit,
  random: () => number,
  into: Claims,
  casesOf: (sound: LayerCircuit) => readonly Case[] = (sound) =>
    plantedFaults(sound).map((planted) => ({ planted })),
): boolean {
  const sound = resolveLayer(circuit, 'marked');
  const quantities = voltageQuantities(sound);
  const nets = quantities.flatMap((q) => (q.kind === 'dcv' ? [q.net] : []));
  if (!voltsAt(sound, nets)) return false;
  const dictionary = faultDictionary(sound, quantities);
  const at = (order: readonly number[]) =>
    dictionary.map(({ fault, predicted }) => ({ fault, predicted: order.map((i) => predicted[i]!) }));
  for (const { planted, isMisread = false } of casesOf(sound)) {
    const unit = planted.apply(asDrawn(drawn(sound, random, usualTolerance), sound));
    const shown = voltsAt(unit, nets);
    if (!shown || shown.some(Number.isNaN)) continue;
    const metered = (v: number) => v * (1 + METER_ERROR * (2 * random() - 1)) + 1e-3 * (2 * random() - 1);
    const order: number[] = [];
    const read: number[] = [];
    const sure: boolean[] = [];
    let [search, taken] = [searchParts(dictionary, quantities, []), 0];
    for (; taken < MOST_MEASUREMENTS; taken += 1) {
      const [best] = search.next;
      if (!best || best.bits < WORTH_BITS) break;
      const again = search.next.find((n) => n.isAgain && n.bits >= WORTH_BITS);
      if (isDecided(search) && !again) break;
      const { quantity } = isDecided(search) ? again! : best;
      const next = nets.indexOf(quantity.kind === 'dcv' ? quantity.net : '');
      const isSlip = isMisread && taken === 1;
      const other = (next + 1 + Math.floor(random() * (nets.length - 1))) % nets.length;
      const value = metered(shown[isSlip ? other : next]!);
      // What is read again replaces what was read, and is sure where it is the same.
      const place = order.includes(next) ? order.indexOf(next) : order.push(next) - 1;
      sure[place] = read[place] !== undefined && isReadAlike(read[place]!, value);
      read[place] = value;
      const all = [...order, ...nets.flatMap((_, i) => (order.includes(i) ? [] : [i]))];
      const asked = all.map((i) => quantities[i]!);
      search = searchParts(at(all), asked, read, sure);
    }
    const isIn = (group: PartSearch['groups'][number] | undefined) =>
      group?.members.some((m) => planted.refs.includes(m.ref)) === true;
    into.count += 1;
    into.measurements += taken;
    into.places += order.length;
    into.first += isIn(search.groups[0]) ? 1 : 0;
    into.amongThree += search.groups.slice(0, 3).some(isIn) ? 1 : 0;
    for (const [ref, chance] of chances(search))
      if (chance > 0.5)
        into.claims.push({
          chance,
          isRight: planted.refs.includes(ref),
          what: `${planted.refs} ${planted.what}: ${ref}`,
        });
    if (isMisread || into.count % WRONG_EVERY !== 0 || order.length === 0) continue;
    const wrong = order[Math.floor(random() * order.length)]!;
    const misread = shown.map((v, i) => (i !== wrong ? metered(v) : random() < 0.5 ? 0 : 1.6 * v + 2));
    const despite = searchParts(dictionary, quantities, misread);
    into.withWrong += 1;
    into.firstDespite += isIn(despite.groups[0]) ? 1 : 0;
    into.named += despite.unexplained.includes(wrong) ? 1 : 0;
  }
  return true;
}

/** Controls stand as the drawing has them: what is searched is a fault, not a setting. */
function asDrawn(unit: LayerCircuit, sound: LayerCircuit): LayerCircuit {
  const controls = ['potentiometer', 'switch', 'changeover'];
  const drawnParts = new Map(sound.parts.map((p) => [p.ref, p]));
  return {
    ...unit,
    parts: unit.parts.map((p) =>
      controls.includes(p.kind) ? { ...drawnParts.get(p.ref)!, value: p.value } : p,
    ),
  };
}

function isDecided({ groups: [group] }: PartSearch): boolean {
  if (!group || group.probability < DECIDED) return false;
  return new Set(group.members.map((m) => m.ref)).size <= DECIDED_PARTS;
}

/** The chance of each part, whatever is wrong with it. */
function chances({ groups }: PartSearch): Map<string, number> {
  const found = new Map<string, number>();
  for (const { ref, probability } of groups.flatMap((g) => g.members))
    found.set(ref, (found.get(ref) ?? 0) + probability);
  return found;
}

/** The share of claims above a chance that were right. */
export function rightAbove(
  { claims }: Claims,
  chance: number,
): { readonly right: number; readonly count: number } {
  const above = claims.filter((c) => c.chance > chance);
  return { right: above.filter((c) => c.isRight).length, count: above.length };
}
