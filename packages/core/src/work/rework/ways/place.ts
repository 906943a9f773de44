import { USUAL_MAINS_HZ, type MainsHz } from '@zemble/contract';
import { AnalysisSession, magnitude, nearestSignal } from '../../../analysis/analysis/index.ts';
import { FreeNames, resolveLayer } from '../../../circuit/changes/index.ts';
import { netNamed, type Circuit, type LayerCircuit, type LayerPart } from '../../../circuit/circuit/index.ts';
import { ZembleError } from '../../../base/errors/index.ts';
import { isMade, nearestPreferred, preferredBetween, type ESeries } from '../../../base/quantity/index.ts';

/** What was chosen in the circuit: a part or a net, and the mains that it lives on. */
export interface Chosen {
  readonly ref?: string | null;
  readonly net?: string | null;
  /** Frequency of the mains where the unit is used, Hz; 50 where it is not said. */
  readonly mainsHz?: MainsHz;
}

/** Frequency in the middle of the audio band, at which a way of the signal is told, Hz (common practice). */
export const MIDDLE_HZ = 1000;
/** Alternating voltage of a source from which it is the mains and no signal, V. */
const MAINS_V = 60;
/** A net that gives way by less than this beside what is at it is as good as the ground for a tone. */
const STIFF_OHM = 50;

/** A place of a circuit, as it is planned, where something is to be done. */
export class Place {
  /** With everything that is planned as it came. */
  readonly base: Circuit;
  readonly circuit: LayerCircuit;
  readonly part: LayerPart | undefined;
  readonly net: string | undefined;
  /** Frequency of the mains, Hz. */
  readonly mainsHz: MainsHz;
  private readonly names: FreeNames;
  private readonly whole: Circuit;
  private held: AnalysisSession | undefined;

  /**
   * @param base a circuit without changes: what a layer came to
   * @param whole the circuit as it came with its changes, whose names are taken
   */
  constructor(base: Circuit, { ref, net, mainsHz = USUAL_MAINS_HZ }: Chosen, whole = base) {
    this.mainsHz = mainsHz;
    this.base = base;
    this.whole = whole;
    this.circuit = resolveLayer({ ...base, changes: [] }, 'planned');
    this.part = this.circuit.parts.find((p) => p.ref === ref);
    // A word for the ground, and a net that was joined to another, are the net that it is.
    this.net = net ? netNamed(this.circuit, net) : undefined;
    this.names = new FreeNames(whole, this.circuit);
  }

  /** Whether the circuit has the net that was chosen. */
  get hasNet(): boolean {
    return this.net !== undefined && this.session.system.hasNet(this.net);
  }

  /** Ids of all changes of the circuit. */
  get changeIds(): readonly string[] {
    return this.whole.changes?.map((c) => c.id) ?? [];
  }

  get ground(): string {
    return this.circuit.ground;
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

  /** The resistors and the like between two nets. */
  between(kind: LayerPart['kind'], a: string, b: string): LayerPart[] {
    return this.circuit.parts.filter((p) => p.kind === kind && isBetween(p, a, b));
  }

  /** The number that a part is worth. Throws `rework/way` where it has none. */
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

  /** The same; undefined where nothing rests, as in a circuit that swings. */
  private rest(net: string): number | undefined {
    const solved = this.session.tryOperatingPoint();
    return solved.ok ? solved.x[this.session.system.node(net)]! : undefined;
  }

  /** The direct current of a part, A, without its sign. */
  ampere(ref: string): number {
    return Math.abs(this.session.system.device(ref).report(this.session.operatingPoint()).current);
  }

  /** Where the signal of a net comes from: a source by its designator, or the net of a capsule; undefined without either. */
  signalAt(net: string): string | undefined {
    return nearestSignal(this.circuit, net) ?? this.capsule;
  }

  private get capsule(): string | undefined {
    return this.circuit.parts.find((p) => p.kind === 'capsule')?.pins.out;
  }

  /** The tone at a net for 1 V where the signal of another comes from, V; 0 without any. */
  tone(net: string, drivenFor = net, hz = MIDDLE_HZ): number {
    const { system, smallSignal } = this.session;
    const node = system.node(net);
    const source = nearestSignal(this.circuit, drivenFor);
    if (source !== undefined) return magnitude(smallSignal.at(hz).drive(source).voltage(node));
    if (this.capsule === undefined) return 0;
    const from = system.node(this.capsule);
    const solved = smallSignal.at(hz).inject(0, from);
    const volt = magnitude(solved.voltage(from));
    return volt === 0 ? 0 : magnitude(solved.voltage(node)) / volt;
  }

  /** What a net presents against the ground at a frequency, ohm. */
  seen(net: string, hz = MIDDLE_HZ): number {
    const node = this.session.system.node(net);
    return magnitude(this.session.smallSignal.at(hz).inject(0, node).voltage(node));
  }

  /** Whether a net is the ground, or as good as it for a tone: a rail, or what a large capacitor holds. */
  isStill(net: string): boolean {
    return (
      net === this.ground ||
      this.supplies().some((s) => s.net === net) ||
      (this.seen(net) < STIFF_OHM && this.tone(net) < STILL_V)
    );
  }

  /** Nets that supplies and regulators hold against the ground, with their voltages, the lowest first. */
  supplies(): readonly { readonly net: string; readonly volts: number; readonly by: LayerPart }[] {
    const { ground } = this;
    return this.circuit.parts
      .flatMap((by): { readonly net: string; readonly by: LayerPart }[] => {
        const { plus, minus, out, gnd } = by.pins;
        if (by.kind === 'supply' && plus !== undefined && minus !== undefined) {
          if (minus === ground && plus !== ground) return [{ net: plus, by }];
          return plus === ground && minus !== ground ? [{ net: minus, by }] : [];
        }
        return by.kind === 'regulator' && gnd === ground && out !== undefined ? [{ net: out, by }] : [];
      })
      .map((s) => ({ ...s, volts: this.rest(s.net) ?? nominal(s.by, s.net) }))
      .sort((a, b) => Math.abs(a.volts) - Math.abs(b.volts));
  }

  /** Whether a net lies at the mains: at a source of alternating voltage that no signal has. */
  isMains(net: string): boolean {
    return (
      net !== this.ground &&
      this.at(net).some(
        (p) => p.kind === 'signal' && typeof p.value === 'number' && Math.abs(p.value) > MAINS_V,
      )
    );
  }

  /** The highest direct voltage against the ground at what was chosen, V. */
  get highest(): number {
    const nets = this.part ? Object.values(this.part.pins) : this.net === undefined ? [] : [this.net];
    const most = Math.max(0, ...this.supplies().map((s) => Math.abs(s.volts)));
    return Math.max(0, ...nets.map((net) => Math.abs(this.rest(net) ?? most)));
  }
}

/** What a supply or a regulator is meant to hold its net at, V. */
const nominal = ({ value, pins }: LayerPart, net: string): number =>
  typeof value === 'number' ? (pins.minus === net ? -value : value) : 0;

/** A tone below this for 1 V at the source is none. */
const STILL_V = 1e-3;

export const isBetween = ({ pins }: LayerPart, a: string, b: string): boolean =>
  (pins.a === a && pins.b === b) || (pins.a === b && pins.b === a);

/** The other end of a part of two legs. */
export const farEnd = ({ pins }: LayerPart, net: string): string => (pins.a === net ? pins.b! : pins.a!);

/** The pin of a part of two legs at a net. */
export const pinAt = ({ pins }: LayerPart, net: string): 'a' | 'b' => (pins.a === net ? 'a' : 'b');

/** Why a way of doing does not come out, as an error to throw. */
export const cannot = (detail: string): ZembleError => new ZembleError('rework/way', { detail });

/** The nearest value of a series. Throws `rework/way` for what nobody makes. */
export function near(exact: number, series: ESeries = 'E24'): number {
  if (!isMade(exact)) throw cannot('It comes out as a value that nobody makes: ask for less, or for more.');
  return nearestPreferred(exact, series);
}

/** The track of a potentiometer that reaches as far as is asked for: the next of E3 above. Throws as `near` does. */
export const trackFor = (exact: number): number =>
  near(exact, 'E3') >= exact * 0.97 ? near(exact, 'E3') : preferredBetween(exact, 10 * exact, 'E3')[0]!;
