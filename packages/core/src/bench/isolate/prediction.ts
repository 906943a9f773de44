import type { OwnModel } from '@zemble/contract';
import { spreadParts, type AnalysisSession, type SpreadPart } from '../../analysis/analysis/index.ts';
import { netsOf, usualTolerance, type LayerCircuit, type LayerPart } from '../../circuit/circuit/index.ts';
import { ZembleError } from '../../base/errors/index.ts';
import { modelParameters, TYPE_SPREAD } from '../../circuit/models/index.ts';
import { Probe, Voltmeter, withLeaks, type MeterMode } from '../../analysis/meter/index.ts';
import { levelAt } from './expected.ts';

/** Something that can be measured of a circuit. */
export type Quantity =
  | { readonly kind: 'dcv'; readonly net: string; readonly minus?: string }
  | { readonly kind: 'ohm' | 'cap' | 'diode'; readonly red: string; readonly black: string }
  | { readonly kind: 'level'; readonly net: string; readonly frequencyHz: number };

/** What is expected to be read, and by how much each source of spread moves it, one sigma each. */
export interface Prediction {
  /** Null for overload. */
  readonly value: number | null;
  /** What tolerances, types and the severity of the fault move it by: the same sources in the same order for a whole entry. */
  readonly moves: readonly number[];
  /** What the instrument and the model add by themselves, one sigma. */
  readonly own: number;
}

/** One sigma of a prediction in all. */
export const sigmaOf = ({ moves, own }: Prediction): number => Math.hypot(own, ...moves);

/** A reading of a usual meter, and of a model against a real part: shares and floors, one sigma (common practice). */
const METER_SHARE = 0.01;
const DC_FLOOR_V = 0.01;
const LEVEL_SHARE = 0.15;
const LEVEL_FLOOR_V = 1e-4;
const OHM_SHARE = 0.06;
const CAP_SHARE = 0.12;
const JUNCTION_SHARE = 0.06;
/** Uniform deviations have this part of their limit as sigma. */
const UNIFORM_SIGMA = 1 / Math.sqrt(3);
/** Smallest capacity and resistance that an instrument tells, F and ohm. */
const CAP_FLOOR_F = 5e-11;
const OHM_FLOOR = 0.5;

/**
 * What a circuit would read, a prediction for every quantity; null for one that cannot be computed by itself.
 *
 * @param circuit with the fault in it
 * @param sound the circuit without it: nets that only the faulty part touched are still there on the board
 * @returns null where the circuit has no operating point
 */
export function predict(
  circuit: LayerCircuit,
  quantities: readonly Quantity[],
  sound: LayerCircuit,
): (Prediction | null)[] | null {
  const isPowered = quantities.some((q) => q.kind === 'dcv' || q.kind === 'level');
  const powered = isPowered ? orNull(() => new Powered(circuit)) : null;
  if (isPowered && !powered) return null;
  return quantities.map((q) =>
    orNull(() => {
      if (q.kind === 'dcv') return powered!.volt(q.net, q.minus);
      if (q.kind === 'level') return powered!.level(q.net, q.frequencyHz);
      return unpowered(circuit, sound, q.kind, q.red, q.black);
    }),
  );
}

/** What something answers, or null where it cannot be computed. */
function orNull<T>(compute: () => T): T | null {
  try {
    return compute();
  } catch (error) {
    if (error instanceof ZembleError) return null;
    throw error;
  }
}

const STEP = 0.3;
/** A parameter that lies anywhere within a factor, on the logarithm: how many steps of it are a sigma. */
const within = (factor: number) => (Math.log(factor) * UNIFORM_SIGMA) / STEP;

/** A way in which a part may differ from its type: the parameters a step away, and how many steps are a sigma. */
interface TypeSpread {
  readonly params: Readonly<Record<string, number>>;
  readonly stepsASigma: number;
}

/** How a part may differ from its type. */
function typeSpreads(part: LayerPart, models: readonly OwnModel[]): TypeSpread[] {
  const up = Math.exp(STEP);
  switch (part.kind) {
    case 'diode':
    case 'led': {
      const { IS } = modelParameters<'diode' | 'led'>(part, models);
      return [{ params: { IS: IS * up }, stepsASigma: within(TYPE_SPREAD.saturation) }];
    }
    case 'bjt': {
      const { IS, BF } = modelParameters<'bjt'>(part, models);
      return [
        { params: { IS: IS * up }, stepsASigma: within(TYPE_SPREAD.saturation) },
        { params: { BF: BF * up }, stepsASigma: within(TYPE_SPREAD.gain) },
      ];
    }
    case 'jfet': {
      const { BETA, VTO } = modelParameters<'jfet'>(part, models);
      return [
        { params: { BETA: BETA * up }, stepsASigma: within(TYPE_SPREAD.gain) },
        { params: { VTO: VTO * (1 + TYPE_SPREAD.pinchOff) }, stepsASigma: UNIFORM_SIGMA },
      ];
    }
    case 'triode':
    case 'pentode': {
      const { KG1 } = modelParameters<'triode' | 'pentode'>(part, models);
      return [{ params: { KG1: KG1 * up }, stepsASigma: within(TYPE_SPREAD.valve) }];
    }
    case 'opamp':
      return [{ params: { VOS: TYPE_SPREAD.offsetV }, stepsASigma: UNIFORM_SIGMA }];
    default:
      return [];
  }
}

/** The tolerance of a part's main value: of passives their own, of supplies and zeners the usual one. */
function spreadOf(circuit: LayerCircuit): SpreadPart[] {
  const others = circuit.parts.flatMap((p): SpreadPart[] => {
    const tolerance = p.kind === 'supply' ? TYPE_SPREAD.supply : p.kind === 'zener' ? TYPE_SPREAD.zener : 0;
    return tolerance > 0 && p.tolerance === undefined && typeof p.value === 'number' && p.value !== 0
      ? [{ ref: p.ref, value: p.value, tolerance, group: p.ref }]
      : [];
  });
  return [...spreadParts(circuit, usualTolerance), ...others];
}

/** The circuit switched on. */
class Powered {
  private readonly circuit: LayerCircuit;
  private readonly meter: Voltmeter;
  /** What every source of spread moves the unknowns by, one sigma each. */
  private readonly moves: readonly Float64Array[];

  constructor(circuit: LayerCircuit) {
    this.circuit = withLeaks(circuit);
    const all = spreadOf(this.circuit);
    const turned = ({ system }: AnalysisSession) => all.filter((p) => system.canTurn(p.ref));
    this.meter = new Voltmeter(this.circuit, turned);
    const spread = turned(this.meter.session);
    const byTolerance = this.meter.slopes
      .moves()
      .map((move, i) => move.map((v) => v * spread[i]!.tolerance * UNIFORM_SIGMA));
    this.moves = [...byTolerance, ...this.typeMoves()];
  }

  /** The moves by the spread of types: all first ways in which parts differ at once, then all second ones. */
  private typeMoves(): Float64Array[] {
    const ways = this.circuit.parts.map((part) => typeSpreads(part, this.circuit.models ?? []));
    return [0, 1].flatMap((k) => {
      const parts = this.circuit.parts.map((p, i): LayerPart => {
        const way = ways[i]![k];
        return way ? ({ ...p, params: { ...p.params, ...way.params } } as LayerPart) : p;
      });
      const differing = this.circuit.parts.flatMap((p, i) =>
        ways[i]![k] ? [{ ref: p.ref, way: ways[i]![k]! }] : [],
      );
      if (differing.length === 0) return [];
      return this.meter.slopes
        .movesOfTypes(
          { ...this.circuit, parts },
          differing.map(({ ref }) => ref),
        )
        .map((move, i) => move.map((v) => v * differing[i]!.way.stepsASigma));
    });
  }

  volt(net: string, minus?: string): Prediction {
    const [plus, less] = [this.at(net), minus === undefined ? null : this.at(minus)];
    const value = plus.value - (less?.value ?? 0);
    return {
      value,
      moves: plus.moves.map((move, i) => move - (less?.moves[i] ?? 0)),
      own: Math.hypot(METER_SHARE * value, DC_FLOOR_V),
    };
  }

  /** What a voltmeter that loads the net shows against the ground, and what moves it. */
  private at(net: string): { readonly value: number; readonly moves: readonly number[] } {
    if (net === this.circuit.ground) return { value: 0, moves: this.moves.map(() => 0) };
    const node = this.meter.session.system.node(net);
    const [free, loaded] = [this.meter.free(net), this.meter.shown(net)];
    // What moves the net moves the loaded net by the same part.
    const share = Math.abs(free) > Math.abs(loaded) ? loaded / free : 1;
    return { value: loaded, moves: this.moves.map((move) => share * move[node]!) };
  }

  level(net: string, frequencyHz: number): Prediction {
    const { session } = this.meter;
    const value = levelAt(session, session.system.node(net), frequencyHz);
    return { value, moves: [], own: LEVEL_SHARE * value + LEVEL_FLOOR_V };
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
  const overload = { value: null, moves: [], own: 0 };
  if (!known.has(red) || !known.has(black)) return netsOf(sound).includes(red) ? overload : null;
  const value = new Probe(circuit, mode, red, black).read();
  if (value === null) return overload;
  const sharing = mode === 'ohm' ? OHM_SHARE : mode === 'cap' ? CAP_SHARE : JUNCTION_SHARE;
  const floor = mode === 'ohm' ? OHM_FLOOR : mode === 'cap' ? CAP_FLOOR_F : DC_FLOOR_V;
  return { value, moves: [], own: Math.hypot(sharing * Math.abs(value), floor) };
}
