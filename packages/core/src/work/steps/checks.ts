import type { Hazard } from '@zemble/contract';
import { AnalysisSession } from '../../analysis/analysis/index.ts';
import { netsOf, type LayerCircuit, type LayerPart } from '../../circuit/circuit/index.ts';
import { SAFE_V } from '../../bench/isolate/index.ts';
import { meterReading } from '../../analysis/meter/index.ts';
import { probePlaces } from '../../circuit/pinout/index.ts';
import { formatQuantity } from '../../base/quantity/index.ts';
import type { Draft } from './bench-step.ts';
import { computed } from './computed.ts';
import { netWords } from './net-words.ts';

/** Points that are measured before power is put on. */
const MOST_POINTS = 3;
/** A rail whose resistance to ground is below this share of what is computed is taken for shorted, and never above so many ohms. */
const SHORT_SHARE = 0.1;
const SHORT_OHM = 100;
/** Most meters show nothing above, ohm. */
const OVER_RANGE_OHM = 20e6;

/** Nets that supplies feed, ground apart. */
const railsOf = (circuit: LayerCircuit): string[] => [
  ...new Set(
    circuit.parts
      .filter((p) => p.kind === 'supply')
      .flatMap((p) => Object.values(p.pins))
      .filter((net) => net !== circuit.ground),
  ),
];

/** What an ohmmeter shows from a net to ground with the unit off; null where it cannot be computed. */
const ohmsToGround = (circuit: LayerCircuit, net: string) =>
  computed((): { readonly words: string; readonly ohm: number | null } => {
    const { reading } = meterReading(circuit, 'ohm', net, circuit.ground);
    return reading === null || reading > OVER_RANGE_OHM
      ? { words: 'over range, since nothing conducts there,', ohm: reading }
      : { words: formatQuantity(reading, 'ohm', { digits: 2 }), ohm: reading };
  });

/**
 * What is checked before power is put on: by eye, the supplies against ground, and three points where the work was, each with
 * what the circuit as planned has there.
 *
 * @param touched nets that the work touched, those of most interest first
 */
export function checksBeforePower(circuit: LayerCircuit, touched: readonly string[]): Draft[] {
  const rails = railsOf(circuit);
  const known = new Set(netsOf(circuit));
  const look: Draft = {
    id: 'check:look',
    kind: 'check',
    say: 'Look at every new joint under a lens: bridges, cold joints, clipped legs lying about, every polarity once more.',
    why: 'Most faults after work are seen, not measured.',
    refs: [],
    nets: [],
  };
  const shorts = rails.map((net): Draft => {
    const expected = ohmsToGround(circuit, net);
    const below =
      expected === null
        ? undefined
        : formatQuantity(Math.min(SHORT_OHM, (expected.ohm ?? Infinity) * SHORT_SHARE), 'ohm', { digits: 2 });
    return {
      id: `check:rail:${net}`,
      kind: 'check',
      say: `Ohms from ${netWords(circuit, net)} to ground, red lead on ${net}, once the capacitors have charged: ${expected ? `${expected.words} is computed` : 'it must not be near zero'}${below === undefined ? '' : `; below ${below} is a short`}.`,
      why: 'A short from a supply to ground is found here, or by its smoke.',
      refs: [],
      nets: [net],
    };
  });
  const points: Draft[] = [];
  for (const net of new Set([...touched, ...known])) {
    if (points.length === MOST_POINTS) break;
    const isPoint = known.has(net) && net !== circuit.ground && !rails.includes(net);
    const expected =
      isPoint && probePlaces(circuit.parts, net).length > 0 ? ohmsToGround(circuit, net) : null;
    if (!expected) continue;
    points.push({
      id: `check:ohms:${net}`,
      kind: 'check',
      say: `Ohms from ${netWords(circuit, net)} to ground, red lead on ${net}: ${expected.words} is computed.`,
      why: 'A wrong value or a forgotten wire shows here, while nothing can burn.',
      refs: [],
      nets: [net],
    });
  }
  return [look, ...shorts, ...points];
}

const LIVE: readonly Hazard[] = ['mains', 'switch-mode primary', 'valve high tension'];

/** The first power-up: limited, watched, rails, offset, then the speaker, then a signal. */
export function powerSteps(unpowered: LayerCircuit, hazards: readonly Hazard[]): Draft[] {
  const { circuit, turned } = switchedOn(unpowered);
  const volts = voltsOf(circuit);
  const rails = railsOf(circuit).filter((net) => volts.nets.has(net));
  const isLive =
    LIVE.some((h) => hazards.includes(h)) || rails.some((net) => Math.abs(volts.nets.get(net)!) > SAFE_V);
  const speakers = circuit.parts.filter((p) => p.kind === 'speaker' || p.kind === 'headphone');
  const current =
    volts.ampere === null ? '' : ` ${formatQuantity(volts.ampere, 'A', { digits: 2 })} is computed at rest.`;
  const steps: Draft[] = [
    ...turned.map((part): Draft => ({
      id: `power:on:${part.ref}`,
      kind: 'power',
      say:
        part.kind === 'jack'
          ? `Put a plug into ${part.ref}: it is the switch of the supply.`
          : `Have ${part.ref} on when the supply comes: it switches the unit.`,
      why: 'What is computed from here on is with it so.',
      refs: [part.ref],
      nets: [...new Set(Object.values(part.pins))],
    })),
    {
      id: 'power:limit',
      kind: 'power',
      say: `${isLive ? 'First power through a lamp in series or a current limit, covers in place as far as they go' : 'First power through a current limit or a series resistor'}${speakers.length > 0 ? ', no speaker connected' : ''}: look, smell, and off at the first doubt.${current}`,
      why: 'A limit turns a mistake into a warm lamp instead of a dead part.',
      refs: [],
      nets: [],
      ...(isLive
        ? {
            caution:
              'Keep hands out while it is on. Work on the mains side follows your local codes and is for licensed people.',
          }
        : {}),
    },
  ];
  if (rails.length > 0)
    steps.push({
      id: 'power:rails',
      kind: 'power',
      say: `${isLive ? 'Clip the meter on with the power off, then switch on: ' : 'Rails to ground: '}${rails
        .map((net) => `${net} ${formatQuantity(volts.nets.get(net)!, 'V', { digits: 3 })}`)
        .join(', ')} is computed.`,
      why: 'Nothing behind a wrong rail can be judged.',
      refs: [],
      nets: rails,
    });
  for (const { ref, pins } of speakers) {
    const net = Object.values(pins).find((n) => n !== circuit.ground) ?? circuit.ground;
    steps.push({
      id: `power:offset:${ref}`,
      kind: 'power',
      say: `Direct voltage at ${netWords(circuit, net)} before ${ref} is connected: below 50 mV; then connect it.`,
      why: 'Direct current through a voice coil moves it out of its gap and burns it.',
      refs: [ref],
      nets: [net],
    });
  }
  const sources = circuit.parts.filter((p) => p.kind === 'signal');
  return [
    ...steps,
    {
      id: 'power:signal',
      kind: 'power',
      say: `A small signal${sources[0] ? ` at ${netWords(circuit, sources[0].pins.plus ?? circuit.ground)}` : ''}, then the usual level; let it run, and feel for heat with the power off.`,
      why: 'An amplifier that oscillates is found by its heat before it is heard.',
      refs: sources.map((p) => p.ref),
      nets: [],
    },
  ];
}

/** A contact through which this many times the current flows switches the unit. */
const SWITCHES_TIMES = 10;

/** The circuit with the contacts made that switch its supplies, by the current that comes of it; and which those are. */
function switchedOn(circuit: LayerCircuit): {
  readonly circuit: LayerCircuit;
  readonly turned: readonly LayerPart[];
} {
  let now = circuit;
  const turned: LayerPart[] = [];
  for (const part of circuit.parts) {
    const on = asOn(part);
    if (!on) continue;
    const tried = { ...now, parts: now.parts.map((p) => (p.ref === part.ref ? on : p)) };
    const [before, after] = [drawnFrom(now), drawnFrom(tried)];
    if (before === null || after === null || !(after > SWITCHES_TIMES * before)) continue;
    now = tried;
    turned.push(part);
  }
  return { circuit: now, turned };
}

/** A contact that is open, made; undefined for what is none. */
function asOn(part: LayerPart): LayerPart | undefined {
  if (part.kind === 'jack' && part.inserted !== true) return { ...part, inserted: true, plug: 'mono' };
  return part.kind === 'switch' && part.closed === false ? { ...part, closed: true } : undefined;
}

/** The current of all supplies together, A; null where none is computed. */
const drawnFrom = (circuit: LayerCircuit): number | null =>
  computed(() => {
    const session = new AnalysisSession(circuit);
    const x = session.operatingPoint();
    return circuit.parts
      .filter((p) => p.kind === 'supply')
      .reduce((sum, p) => sum + Math.abs(session.system.device(p.ref).report(x).current), 0);
  });

interface Volts {
  readonly nets: ReadonlyMap<string, number>;
  /** What the supplies give at rest. */
  readonly ampere: number | null;
}

/** Direct voltages at rest; nothing where they cannot be computed. */
const voltsOf = (circuit: LayerCircuit): Volts =>
  computed((): Volts => {
    const session = new AnalysisSession(circuit);
    const x = session.operatingPoint();
    const supplies = circuit.parts.filter((p) => p.kind === 'supply');
    const currents = supplies.map((p) => Math.abs(session.system.device(p.ref).report(x).current));
    return {
      nets: new Map(session.system.nets().map(([net, i]) => [net, x[i]!])),
      ampere: currents.length > 0 ? Math.max(...currents) : null,
    };
  }) ?? { nets: new Map(), ampere: null };
