import { magnitude, type AnalysisSession } from '../../analysis/analysis/index.ts';
import type { LayerPart } from '../../circuit/circuit/index.ts';
import { USUAL_FREQUENCY_HZ } from '../../circuit/devices/index.ts';
import { ZembleError } from '../../base/errors/index.ts';
import { formatQuantity } from '../../base/quantity/index.ts';
import { technologyOf } from './ageing.ts';

/** What a part bears, beside what it can: one thing of it. */
export interface Stress {
  readonly ref: string;
  readonly of: 'voltage' | 'heat' | 'temperature' | 'life';
  /** Share of what it can bear, 1 at the limit; of life, five years over those it has. */
  readonly share: number;
  readonly sentence: string;
}

/** Inside of a closed case, degC (common practice). */
export const CASE_C = 40;
/** A rating that nobody wrote down is taken for this, W (common practice: the small size). */
const USUAL_RESISTOR_W = 0.25;
/** Junction to air of the usual cases, K/W: small, as TO-92, and with a tab, as TO-220 (data sheets). */
const SMALL_CASE = 200;
const TAB_CASE = 62;
/** Junction to case of a tab, mounting, and a usual small sink, K/W. */
const TAB_ON_SINK = 3 + 0.5 + 10;
/** More heat than this is not made in a small case, W. */
const SMALL_CASE_W = 0.5;
const HOTTEST_JUNCTION_C = 125;
/** A plain electrolytic: hours at its temperature (data sheets); twice as long for every 10 K cooler (common practice). */
const LIFE = { hours: 2000, ratedC: 85 } as const;
const HOURS_A_YEAR = 8766;
/** A set is expected to last this long between two overhauls, years of running. */
const WANTED_YEARS = 5;
/** From this share of the limit on a part stands near it. */
const NEAR = 0.7;

const HOT: ReadonlySet<string> = new Set(['bjt', 'jfet', 'mosfet', 'regulator', 'opamp', 'diode', 'zener']);

/**
 * What the parts of a circuit bear at rest and with its signals at their levels: voltage across each capacitor against its
 * rating, heat of resistors against theirs, junctions with and without a heat sink in a closed case, ripple current and years of
 * electrolytics. Only those near their limit or beyond it, the worst first. Empty where the circuit cannot be computed.
 *
 * @param caseC temperature around the parts, degC
 */
export function stressesOf(session: AnalysisSession, caseC: number = CASE_C): Stress[] {
  try {
    const x = session.operatingPoint();
    return session.circuit.parts
      .flatMap((part) => stressOf(session, x, part, caseC))
      .concat(lifeOf(session, caseC))
      .filter((s) => s.share >= NEAR)
      .sort((a, b) => b.share - a.share);
  } catch (error) {
    if (error instanceof ZembleError) return [];
    throw error;
  }
}

/** What a new part must be rated for in a place: V across a capacitor, W of a resistor. */
export interface Bearing {
  readonly voltage?: number;
  readonly power?: number;
}

/** A capacitor is rated for half as much again, a resistor for twice its heat (common practice). */
const MARGIN = { voltage: 1.5, power: 2 } as const;

/** What capacitors and resistors of a circuit must be rated for, with the usual margin, by designator; empty where it cannot be computed. */
export function bearingsOf(session: AnalysisSession): ReadonlyMap<string, Bearing> {
  const point = session.tryOperatingPoint();
  const found = new Map<string, Bearing>();
  if (!point.ok) return found;
  const { system, circuit } = session;
  for (const part of circuit.parts) {
    if (part.kind === 'capacitor')
      found.set(part.ref, { voltage: MARGIN.voltage * mostAcross(session, point.x, part) });
    if (part.kind === 'resistor')
      found.set(part.ref, { power: MARGIN.power * Math.abs(system.device(part.ref).report(point.x).power) });
  }
  return found;
}

/** The most that stands across a capacitor, its signals' peaks on top, V. */
function mostAcross(session: AnalysisSession, x: Float64Array, part: LayerPart): number {
  const { system, circuit } = session;
  const [a, b] = [part.pins.a ?? circuit.ground, part.pins.b ?? circuit.ground].map((net) =>
    system.node(net),
  );
  return Math.abs(x[a!]! - x[b!]!) + swingOf(session, (s) => s.voltage(a!, b!)).peak;
}

function stressOf(session: AnalysisSession, x: Float64Array, part: LayerPart, caseC: number): Stress[] {
  if (part.kind === 'box' || part.kind === 'clock') return [];
  if (part.kind === 'capacitor') return capacitorStress(session, x, part);
  const watt = Math.abs(session.system.device(part.ref).report(x).power);
  if (part.kind === 'resistor' || part.kind === 'potentiometer') return [resistorStress(part, watt)];
  return HOT.has(part.kind) ? [junctionStress(part, watt, caseC)] : [];
}

const text = (value: number, unit: string) => formatQuantity(value, unit, { digits: 2 });

/** The largest peak and the r.m.s. of something with every signal at its level; they add as they may meet, or as heat. */
export function swingOf(
  session: AnalysisSession,
  of: (solved: AnalysisSession['smallSignal']) => { readonly re: number; readonly im: number },
): { readonly peak: number; readonly rms: number } {
  let [peak, square] = [0, 0];
  for (const part of session.circuit.parts) {
    if (part.kind !== 'signal' || typeof part.value !== 'number' || part.value === 0) continue;
    const solved = session.smallSignal.at(part.frequency ?? USUAL_FREQUENCY_HZ).drive(part.ref);
    const own = Math.abs(part.value) * magnitude(of(solved));
    peak += own;
    square += own ** 2 / 2;
  }
  return { peak, rms: Math.sqrt(square) };
}

function capacitorStress(
  session: AnalysisSession,
  x: Float64Array,
  part: LayerPart & { readonly kind: 'capacitor' },
): Stress[] {
  const { ref, voltage } = part;
  if (voltage === undefined) return [];
  const most = mostAcross(session, x, part);
  const margin = most / voltage > NEAR ? `; ${text(MARGIN.voltage * most, 'V')} would leave a margin` : '';
  const sentence = `${ref}: ${text(most, 'V')} across it, rated ${text(voltage, 'V')}${margin}.`;
  return [{ ref, of: 'voltage', share: most / voltage, sentence }];
}

/** The years of all electrolytics, which are as warm as their case, with the one that bears the most ripple. */
function lifeOf(session: AnalysisSession, caseC: number): Stress[] {
  const parts = session.circuit.parts.filter((p) => technologyOf(p) === 'electrolytic');
  const ripples = parts
    .map(({ ref }) => ({ ref, ampere: swingOf(session, (s) => s.current(ref)).rms }))
    .sort((a, b) => b.ampere - a.ampere);
  const [most] = ripples;
  if (!most) return [];
  const years = (LIFE.hours * 2 ** ((LIFE.ratedC - caseC) / 10)) / HOURS_A_YEAR;
  const who = parts.length === 1 ? most.ref : `${parts.length} electrolytics`;
  const ripple = most.ampere > 0 ? ` Most ripple: ${most.ref} with ${text(most.ampere, 'A')}.` : '';
  return [
    {
      ref: most.ref,
      of: 'life',
      share: WANTED_YEARS / years,
      sentence: `${who}: about ${text(years, '')} years of running at ${text(caseC, 'degC')} for plain ones (${LIFE.hours} h at ${LIFE.ratedC} °C); those for 105 °C last four times as long.${ripple}`,
    },
  ];
}

function resistorStress(part: LayerPart, watt: number): Stress {
  const rated = part.power ?? USUAL_RESISTOR_W;
  const said = part.power === undefined ? `${text(rated, 'W')} is usual` : `rated ${text(rated, 'W')}`;
  return {
    ref: part.ref,
    of: 'heat',
    share: watt / rated,
    sentence: `${part.ref}: ${text(watt, 'W')} of heat, ${said}; one of ${text(2 * watt, 'W')} or more runs cool.`,
  };
}

function junctionStress(part: LayerPart, watt: number, caseC: number): Stress {
  const isSmall = watt <= SMALL_CASE_W;
  const bare = caseC + watt * (isSmall ? SMALL_CASE : TAB_CASE);
  const sunk = caseC + watt * TAB_ON_SINK;
  const share = (bare - caseC) / (HOTTEST_JUNCTION_C - caseC);
  const words = isSmall
    ? `its junction at ${text(bare, 'degC')} in a small case`
    : `its junction at ${text(bare, 'degC')} without a heat sink, ${text(sunk, 'degC')} on one of 10 K/W`;
  return {
    ref: part.ref,
    of: 'temperature',
    share,
    sentence: `${part.ref}: ${text(watt, 'W')} of heat, ${words}; ${HOTTEST_JUNCTION_C} °C is the most.`,
  };
}
