import { AnalysisSession, magnitude } from '../../../analysis/analysis/index.ts';
import { FreeNames, resolveLayer } from '../../../circuit/changes/index.ts';
import type { Circuit, LayerCircuit, LayerPart } from '../../../circuit/circuit/index.ts';
import { ZembleError } from '../../../base/errors/index.ts';
import {
  exactText,
  isMade,
  nearestPreferred,
  preferredBetween,
  type ESeries,
  type QuantityKind,
} from '../../../base/quantity/index.ts';

/** What was chosen in the circuit: a part or a net. */
export interface Chosen {
  readonly ref?: string | null;
  readonly net?: string | null;
}

/** A place of a circuit, as it is planned, where something is to be done. */
export class Spot {
  readonly circuit: LayerCircuit;
  readonly part: LayerPart | undefined;
  readonly net: string | undefined;
  private readonly names: FreeNames;
  private held: AnalysisSession | undefined;

  constructor(circuit: Circuit, { ref, net }: Chosen) {
    this.circuit = resolveLayer(circuit, 'planned');
    this.part = this.circuit.parts.find((p) => p.ref === ref);
    this.net = net ?? undefined;
    this.names = new FreeNames(circuit, this.circuit);
  }

  /** The next designator that is free: "R31". */
  free(letters: string): string {
    return this.names.ref(letters);
  }

  /** A net that is not there yet. */
  freeNet(stem: string): string {
    return this.names.net(`${stem}1`);
  }

  /** The parts at a net, but for one. */
  at(net: string, except?: string): LayerPart[] {
    return this.circuit.parts.filter((p) => p.ref !== except && Object.values(p.pins).includes(net));
  }

  /** The number that a part is worth. Throws `rework/recipe` where it has none. */
  worth(part: LayerPart): number {
    if (typeof part.value === 'number' && part.value > 0) return part.value;
    throw cannot(`${part.ref} has no value to go by.`);
  }

  get session(): AnalysisSession {
    return (this.held ??= new AnalysisSession(this.circuit));
  }

  /** The direct voltage of a net, V. Throws where there is no operating point. */
  volts(net: string): number {
    return this.session.operatingPoint()[this.session.system.node(net)]!;
  }

  /** The direct current of a supply, A. */
  drawn(ref: string): number {
    return Math.abs(this.session.system.device(ref).report(this.session.operatingPoint()).current);
  }

  /** What is seen between two nets at a frequency with one part taken out, ohm, the controls at their worst, which is least. */
  seen(a: string, b: string, frequencyHz: number, without?: string): number {
    const open = this.circuit.parts.find((p) => p.ref === without);
    const circuit = open
      ? {
          ...this.circuit,
          parts: this.circuit.parts.filter((p) => p !== open),
          loose: [...(this.circuit.loose ?? []), a, b],
        }
      : this.circuit;
    const session = new AnalysisSession(circuit);
    const pots = circuit.parts.filter((p) => p.kind === 'potentiometer').map((p) => p.ref);
    const ways = [
      session,
      ...pots.flatMap((ref) => [0, 1].map((at) => session.with({ controls: new Map([[ref, at]]) }))),
    ];
    return Math.min(
      ...ways.map((way) => {
        const [from, to] = [way.system.node(b), way.system.node(a)];
        return magnitude(way.smallSignal.at(frequencyHz).inject(from, to).voltage(to, from));
      }),
    );
  }
}

/** Why a way of doing does not come out, as an error to throw. */
export const cannot = (detail: string): ZembleError => new ZembleError('rework/recipe', { detail });

/** The nearest value of a series. Throws `rework/recipe` for what nobody makes. */
export function near(exact: number, series: ESeries = 'E24'): number {
  if (!isMade(exact)) throw cannot('It comes out as a value that nobody makes: ask for less, or for more.');
  return nearestPreferred(exact, series);
}

/** The track of a potentiometer that reaches as far as is asked for: the next of E3 above. */
export const trackFor = (exact: number): number =>
  near(exact, 'E3') >= exact * 0.97 ? near(exact, 'E3') : preferredBetween(exact, 10 * exact, 'E3')[0]!;

/** A value of a series as it is typed. */
export const fitted = (
  exact: number,
  series: ESeries = 'E24',
  kind: QuantityKind = 'resistor',
): string => exactText(near(exact, series), kind);
