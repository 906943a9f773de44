import type { OwnModel } from '@zemble/contract';
import { AnalysisSession, spreadParts, type SpreadPart } from '../../analysis/analysis/index.ts';
import {
  isModelled,
  netsOf,
  usualTolerance,
  type LayerCircuit,
  type LayerPart,
} from '../../circuit/circuit/index.ts';
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
 * What circuits would read that are one another's neighbours: what was assembled for one serves the next, where they differ in
 * values only.
 */
export class Predictor {
  private readonly quantities: readonly Quantity[];
  private readonly sound: LayerCircuit;
  private readonly isPowered: boolean;
  private readonly leaks = new Map<string, LayerPart>();
  private readonly types = new Types();
  private first: Powered | null = null;
  private last: Powered | null = null;

  /** @param sound the circuit without a fault: nets that only a faulty part touched are still there on the board */
  constructor(quantities: readonly Quantity[], sound: LayerCircuit) {
    this.quantities = quantities;
    this.sound = sound;
    this.isPowered = quantities.some((q) => q.kind === 'dcv' || q.kind === 'level');
  }

  /**
   * A prediction for every quantity; null for one that cannot be computed by itself.
   *
   * @param circuit with the fault in it
   * @returns null where the circuit has no operating point
   */
  of(circuit: LayerCircuit): (Prediction | null)[] | null {
    const powered = this.isPowered ? orNull(() => this.powered(circuit)) : null;
    if (this.isPowered && !powered) return null;
    return this.quantities.map((q) =>
      orNull(() => {
        if (q.kind === 'dcv') return powered!.volt(q.net, q.minus);
        if (q.kind === 'level') return powered!.level(q.net, q.frequencyHz);
        return unpowered(circuit, this.sound, q.kind, q.red, q.black);
      }),
    );
  }

  private powered(circuit: LayerCircuit): Powered {
    const leaking = withLeaks(circuit, this.leaks);
    const near = [this.last, this.first].find((p) => p?.meter.session.serves(leaking));
    this.last = new Powered(leaking, this.types, near ?? null);
    this.first ??= this.last;
    return this.last;
  }
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

/**
 * A circuit whose parts lie anywhere in a part of their tolerances and of the spread of their types, each by itself: uniform, on the
 * logarithm where a parameter is a factor.
 *
 * @param random from 0 to 1
 * @param reach the part of tolerance and spread, from 0 to 1
 */
export function drawLike(circuit: LayerCircuit, random: () => number, reach: number): LayerCircuit {
  const anywhere = () => reach * (2 * random() - 1);
  const spread = new Map(spreadOf(circuit).map((s) => [s.ref, s.tolerance]));
  const models = circuit.models ?? [];
  const drawn = (part: LayerPart): LayerPart => {
    const tolerance = spread.get(part.ref) ?? 0;
    const value =
      tolerance > 0 && typeof part.value === 'number'
        ? part.value * (1 + tolerance * anywhere())
        : part.value;
    const spreads = isModelled(part) ? typeSpreads(part, models) : [];
    const params = spreads.map((s) => drawnOf(part, models, s, anywhere()));
    return { ...part, value, params: Object.assign({}, part.params, ...params) } as LayerPart;
  };
  return { ...circuit, parts: circuit.parts.map(drawn) };
}

/** The parameters of one way in which a part differs from its type, so far to one side: from -1 to 1. */
function drawnOf(
  part: LayerPart,
  models: readonly OwnModel[],
  { params, stepsASigma }: TypeSpread,
  side: number,
): Record<string, number> {
  const usual = modelParameters(part as never, models) as Readonly<Record<string, number>>;
  const steps = (side * stepsASigma) / UNIFORM_SIGMA;
  return Object.fromEntries(
    Object.entries(params).map(([name, stepped]) => {
      const base = usual[name] ?? 0;
      const isFactor = base > 0 && stepped > 0;
      return [name, isFactor ? base * (stepped / base) ** steps : base + (stepped - base) * steps];
    }),
  );
}

/** A part as it may be of its type, and how many steps of that are a sigma. */
interface Otherwise {
  readonly part: LayerPart;
  readonly stepsASigma: number;
}

/** How parts of one circuit may differ from their types, looked up once for each. */
class Types {
  private readonly known = new Map<LayerPart, readonly Otherwise[]>();

  of(part: LayerPart, models: readonly OwnModel[]): readonly Otherwise[] {
    const known =
      this.known.get(part) ??
      typeSpreads(part, models).map(({ params, stepsASigma }) => ({
        part: { ...part, params: { ...part.params, ...params } } as LayerPart,
        stepsASigma,
      }));
    this.known.set(part, known);
    return known;
  }
}

/** A circuit with its parts otherwise than their types are, and which they are. */
interface Others {
  readonly session: AnalysisSession;
  readonly differing: readonly Otherwise[];
}

/** The circuit with the parts different that have so many ways in which they may be; null where none has. */
function othersOf(circuit: LayerCircuit, types: Types, k: 0 | 1, near: Others | null): Others | null {
  const differing: Otherwise[] = [];
  const parts = circuit.parts.map((part) => {
    // A section that is not computed, as a spare one without nets, differs in nothing.
    const other = isModelled(part) ? types.of(part, circuit.models ?? [])[k] : undefined;
    if (other) differing.push(other);
    return other?.part ?? part;
  });
  if (differing.length === 0) return null;
  const changed = { ...circuit, parts };
  return { session: near?.session.on(changed) ?? new AnalysisSession(changed), differing };
}

/** The circuit switched on. */
class Powered {
  readonly meter: Voltmeter;
  private readonly circuit: LayerCircuit;
  /** With the first way, and with the second, in which parts differ from their types. */
  private readonly others: readonly [Others | null, Others | null];
  /** What every source of spread moves the unknowns by, one sigma each. */
  private readonly moves: readonly Float64Array[];

  /**
   * @param circuit from `withLeaks`
   * @param near one that serves the circuit, with what it has assembled
   */
  constructor(circuit: LayerCircuit, types: Types, near: Powered | null) {
    this.circuit = circuit;
    const session = near?.meter.session.on(circuit) ?? new AnalysisSession(circuit);
    const spread = spreadOf(circuit).filter((p) => session.system.canTurn(p.ref));
    this.meter = new Voltmeter(session, spread);
    const [one, two] = near?.others ?? [null, null];
    this.others = [othersOf(circuit, types, 0, one), othersOf(circuit, types, 1, two)];
    const { slopes } = this.meter;
    const byTolerance = slopes
      .moves()
      .map((move, i) => move.map((v) => v * spread[i]!.tolerance * UNIFORM_SIGMA));
    const byType = this.others.flatMap((other) => {
      const refs = other?.differing.map(({ part }) => part.ref) ?? [];
      const moves = other ? slopes.movesOfTypes(other.session, refs) : [];
      return moves.map((move, i) => move.map((v) => v * other!.differing[i]!.stepsASigma));
    });
    this.moves = [...byTolerance, ...byType];
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
