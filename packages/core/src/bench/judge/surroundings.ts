import type { ControlState, LayerCircuit, LayerPart } from '../../circuit/circuit/index.ts';
import { controlState, usualTolerance, withControl } from '../../circuit/circuit/index.ts';
import { modelParameters, TYPE_SPREAD } from '../../circuit/models/index.ts';
import { Probe, type MeterMode } from '../../analysis/meter/index.ts';

/** Where a potentiometer is tried. */
const TRAVELS = [0, 0.125, 0.25, 0.375, 0.5, 0.625, 0.75, 0.875, 1];
/** Rounds in which the controls are turned one after the other. */
const ROUNDS = 2;

type Direction = -1 | 1;

/** What the instrument stands at, with everything around the part at one end of what it may be. */
export interface Extreme {
  readonly probe: Probe;
  /** Values of the other parts. */
  readonly values: ReadonlyMap<string, number>;
}

/** What an extreme shows with the part itself at a value; null for overload, of a capacity for too little. */
export const shownAt = ({ probe, values }: Extreme, ref: string, value: number): number | null =>
  probe.readWith(new Map([...values, [ref, value]]));

/** Whether an ohmmeter would show less than a resistance, null for overload, with the part itself at a value. */
export const isShownBelow = (
  { probe, values }: Extreme,
  ref: string,
  value: number,
  ohm: number | null,
): boolean => probe.showsBelow(ohm, new Map([...values, [ref, value]]));

/**
 * The circuit around a part as it may be: other parts anywhere within their tolerances, controls and switches anywhere,
 * transistors and diodes anywhere within the spread of their types.
 */
export class Surroundings {
  private readonly circuit: LayerCircuit;
  private readonly ref: string;
  private readonly mode: MeterMode;
  private readonly areControlsFree: boolean;

  /**
   * @param circuit with the part at its marking
   * @param areControlsFree whether controls may stand elsewhere than drawn
   */
  constructor(circuit: LayerCircuit, ref: string, mode: MeterMode, areControlsFree: boolean) {
    this.circuit = circuit;
    this.ref = ref;
    this.mode = mode;
    this.areControlsFree = areControlsFree;
  }

  /**
   * The circuits in which a reading between two nets is at its least and at its most. Of what conducts the reading rises
   * with every resistance and every contact that opens (Rayleigh 1871); where it need not, the others are turned one after
   * the other for as long as the reading moves the way that is wanted.
   *
   * Throws a ZembleError where one of them has none.
   */
  extremes(red: string, black: string): { readonly lowest: Extreme[]; readonly highest: Extreme[] } {
    const towards = (direction: Direction) =>
      this.spreadModels(direction).map((circuit) => this.extreme(circuit, red, black, direction));
    return { lowest: towards(-1), highest: towards(1) };
  }

  private extreme(circuit: LayerCircuit, red: string, black: string, direction: Direction): Extreme {
    const contacts = this.areControlsFree ? withContacts(circuit, this.ref, direction < 0) : circuit;
    const starts =
      this.mode === 'cap' && this.areControlsFree
        ? [circuit, contacts, withContacts(circuit, this.ref, direction > 0)]
        : [contacts];
    const found = starts.map((start) => this.turned(start, red, black, direction));
    const { circuit: turned } = found.reduce((best, next) =>
      direction * (next.shown - best.shown) > 0 ? next : best,
    );
    const probe = new Probe(turned, this.mode, red, black);
    return { probe, values: this.spreadValues(probe, direction) };
  }

  /** Turns every control where the reading is furthest in a direction, from where they stand. */
  private turned(start: LayerCircuit, red: string, black: string, direction: Direction) {
    let circuit = start;
    let shown = this.shown(circuit, red, black);
    if (!this.areControlsFree) return { circuit, shown };
    for (let round = 0; round < ROUNDS; round += 1) {
      let hasMoved = false;
      for (const { ref } of circuit.parts) {
        if (ref === this.ref) continue;
        for (const state of this.statesOf(circuit.parts.find((p) => p.ref === ref)!)) {
          const next = withState(circuit, ref, state);
          const there = next && this.shown(next, red, black);
          if (there === undefined || !(direction * (there - shown) > 0)) continue;
          [circuit, shown, hasMoved] = [next!, there, true];
        }
      }
      if (!hasMoved) break;
    }
    return { circuit, shown };
  }

  private shown(circuit: LayerCircuit, red: string, black: string): number {
    return (
      new Probe(circuit, this.mode, red, black).read() ?? (this.mode === 'cap' ? 0 : Number.POSITIVE_INFINITY)
    );
  }

  /** The other parts at the ends of their tolerances that move the reading in a direction. */
  private spreadValues(probe: Probe, direction: Direction): Map<string, number> {
    const others = probe.session.circuit.parts.flatMap((p) => {
      const tolerance = p.ref.startsWith('#') || p.ref === this.ref ? 0 : toleranceOf(p);
      return typeof p.value === 'number' && tolerance > 0 ? [{ ref: p.ref, value: p.value, tolerance }] : [];
    });
    const end = (sign: number, { value, tolerance }: (typeof others)[number]) =>
      value * (1 + sign * tolerance);
    if (this.mode !== 'cap') return new Map(others.map((p) => [p.ref, end(direction, p)]));
    const values = new Map(others.map((p) => [p.ref, p.value]));
    for (let round = 0; round < ROUNDS; round += 1)
      for (const part of others) {
        const shown = ([-1, 1] as const).map((sign) => {
          values.set(part.ref, end(sign, part));
          return probe.readWith(values) ?? 0;
        });
        const isUp = direction * (shown[1]! - shown[0]!) > 0;
        values.set(part.ref, end(isUp ? 1 : -1, part));
      }
    return values;
  }

  private statesOf(part: LayerPart): readonly ControlState[] {
    switch (part.kind) {
      case 'potentiometer':
        return TRAVELS;
      case 'changeover':
        return ['a', 'b'];
      case 'jack':
        return [true, false];
      case 'switch':
        // What conducts was set by the contacts; a capacity may go either way.
        return this.mode === 'cap' ? [true, false] : [];
      default:
        return [];
    }
  }

  /** The circuit with its junctions at the ends of their types' spread: leaking most for the least reading. */
  private spreadModels(direction: Direction): LayerCircuit[] {
    if (!this.circuit.parts.some(isSpread)) return [this.circuit];
    if (this.mode === 'cap')
      return [
        { ...this.circuit, parts: this.circuit.parts.map((p) => spreadLayers(p, direction, this.circuit)) },
      ];
    return [TYPE_SPREAD.gain, 1 / TYPE_SPREAD.gain].map((gain) => ({
      ...this.circuit,
      parts: this.circuit.parts.map((p) => spreadModel(p, direction, gain, this.circuit)),
    }));
  }
}

const toleranceOf = (part: LayerPart): number =>
  ['resistor', 'capacitor', 'inductor', 'potentiometer', 'load', 'speaker', 'headphone'].includes(part.kind)
    ? usualTolerance(part)
    : 0;

const isSpread = (part: LayerPart): boolean =>
  ['diode', 'zener', 'led', 'bjt', 'jfet'].includes(part.kind) && typeof part.value !== 'string';

function spreadModel(
  part: LayerPart,
  direction: Direction,
  gain: number,
  { models = [] }: LayerCircuit,
): LayerPart {
  const is = TYPE_SPREAD.saturation ** -direction;
  switch (part.kind) {
    case 'diode':
    case 'zener':
    case 'led':
      return {
        ...part,
        params: { ...part.params, IS: modelParameters<'diode' | 'zener' | 'led'>(part, models).IS * is },
      };
    case 'bjt': {
      const { IS, BF } = modelParameters<'bjt'>(part, models);
      return { ...part, params: { ...part.params, IS: IS * is, BF: BF * gain } };
    }
    case 'jfet': {
      const { BETA, VTO } = modelParameters<'jfet'>(part, models);
      const pinchOff = VTO * (1 - direction * TYPE_SPREAD.pinchOff);
      return {
        ...part,
        params: { ...part.params, BETA: BETA * TYPE_SPREAD.gain ** -direction, VTO: pinchOff },
      };
    }
    default:
      return part;
  }
}

/** A part with the capacities of its junctions at an end of their spread. */
function spreadLayers(part: LayerPart, direction: Direction, { models = [] }: LayerCircuit): LayerPart {
  const by = TYPE_SPREAD.junction ** direction;
  switch (part.kind) {
    case 'diode':
    case 'zener':
    case 'led': {
      const { CJO } = modelParameters<'diode' | 'zener' | 'led'>(part, models);
      return { ...part, params: { ...part.params, CJO: CJO * by } };
    }
    case 'bjt': {
      const { CJE, CJC } = modelParameters<'bjt'>(part, models);
      return { ...part, params: { ...part.params, CJE: CJE * by, CJC: CJC * by } };
    }
    case 'jfet': {
      const { CGS, CGD } = modelParameters<'jfet'>(part, models);
      return { ...part, params: { ...part.params, CGS: CGS * by, CGD: CGD * by } };
    }
    default:
      return part;
  }
}

/** Every switch but the part itself closed, or open. */
const withContacts = (circuit: LayerCircuit, ref: string, closed: boolean): LayerCircuit => ({
  ...circuit,
  parts: circuit.parts.map((p) => (p.kind === 'switch' && p.ref !== ref ? { ...p, closed } : p)),
});

function withState(circuit: LayerCircuit, ref: string, state: ControlState): LayerCircuit | undefined {
  const part = circuit.parts.find((p) => p.ref === ref)!;
  if (controlState(part) === state) return undefined;
  const turned = withControl(part, state);
  return turned && { ...circuit, parts: circuit.parts.map((p) => (p.ref === ref ? turned : p)) };
}
