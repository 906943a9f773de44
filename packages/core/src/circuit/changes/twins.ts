import type { Step } from '@zemble/contract';
import {
  markedValue,
  netsOf,
  type Circuit,
  type LayerCircuit,
  type LayerPart,
  type Part,
  type Value,
} from '../circuit/index.ts';
import { twinsBy } from '../continuity/index.ts';
import { FreeNames } from './free-names.ts';
import { buildLayer } from './layer.ts';
import { readPin } from './pin.ts';

/** What mirrors what in two equal channels: parts by their designators, and nets. */
export interface ChannelTwins {
  readonly parts: ReadonlyMap<string, string>;
  readonly nets: ReadonlyMap<string, string>;
}

/** How the names of nets of two channels tell them apart (common practice): left and right, L and R. */
const SIDES: readonly (readonly [RegExp, string])[] = [
  [/left/i, 'right'],
  [/right/i, 'left'],
  [/(?<=[a-z_.-])l(?=\d*$)|^l(?=\d*$)/i, 'r'],
  [/(?<=[a-z_.-])r(?=\d*$)|^r(?=\d*$)/i, 'l'],
];

const sameCase = (like: string, text: string): string => {
  if (like === like.toUpperCase()) return text.toUpperCase();
  return like[0] === like[0]!.toUpperCase() ? text[0]!.toUpperCase() + text.slice(1) : text;
};

/** The net of the other channel by its name; undefined where none is called so. */
function namedTwin(net: string, nets: ReadonlySet<string>): string | undefined {
  return SIDES.map(([side, instead]) =>
    side.test(net) ? net.replace(side, (was) => sameCase(was, instead)) : net,
  ).find((name) => name !== net && nets.has(name));
}

/** Of two channels at most so many parts at one net may have no twin: one of them may have something of its own. */
const MOST_ALONE = 1;
/** Fewer pairs that hold together may be chance, or the two halves of one stage. */
const FEWEST_PAIRS = 3;

/**
 * The two channels of a circuit: parts that mirror one another by their designators, or are alike between nets that mirror one
 * another; nets that parts which do so are at in the same way, or that are called so. What is alike by chance does not hold
 * together: at a net of a channel, its parts have their twins at the net that mirrors it. Neighbours in one channel are no twins.
 *
 * @param came the parts as they came: what is printed on them says what is alike, whatever is planned for one of them
 */
export const channelTwins = (
  circuit: Pick<LayerCircuit, 'parts' | 'ground'>,
  came: readonly Part[] = [],
): ChannelTwins => new TwinSearch(circuit, came).run();

class TwinSearch {
  private readonly byRef: ReadonlyMap<string, LayerPart>;
  private readonly circuit: Pick<LayerCircuit, 'parts' | 'ground'>;
  private readonly parts = new Map<string, string>();
  private readonly nets = new Map<string, string>();
  private readonly marked: ReadonlyMap<string, Value | null>;
  private readonly legs = new Map<string, number>();

  constructor(circuit: Pick<LayerCircuit, 'parts' | 'ground'>, came: readonly Part[]) {
    this.circuit = circuit;
    this.marked = new Map(came.map((p) => [p.ref, markedValue(p)]));
    for (const { pins } of circuit.parts)
      for (const net of Object.values(pins)) this.legs.set(net, (this.legs.get(net) ?? 0) + 1);
    this.byRef = new Map(circuit.parts.map((p) => [p.ref, p]));
  }

  run(): ChannelTwins {
    for (const [a, b] of twinsBy(this.circuit.parts, (p) => this.worth(p)))
      if (a < b) this.pair(this.byRef.get(a)!, this.byRef.get(b)!);
    this.extend();
    const all = new Set(netsOf(this.circuit));
    for (const net of all) {
      const twin = this.nets.has(net) ? undefined : namedTwin(net, all);
      if (twin !== undefined && !this.nets.has(twin)) this.join(net, twin);
    }
    this.extend();
    this.holdTogether();
    if (this.parts.size < 2 * FEWEST_PAIRS) return { parts: new Map(), nets: new Map() };
    return {
      parts: this.parts,
      nets: new Map([...this.nets].filter(([net, twin]) => net !== twin)),
    };
  }

  /** Lets go of pairs and nets that contradict one another, until those that are left hold together. */
  private holdTogether(): void {
    for (let isLess = true; isLess;) {
      isLess = false;
      for (const part of this.circuit.parts) {
        const twin = this.byRef.get(this.parts.get(part.ref) ?? '');
        if (!twin || this.isMirrored(part, twin)) continue;
        this.parts.delete(part.ref);
        this.parts.delete(twin.ref);
        isLess = true;
      }
      for (const [net, twin] of this.nets) {
        if (net === twin || this.alone(net) <= MOST_ALONE) continue;
        this.nets.delete(net);
        this.nets.delete(twin);
        isLess = true;
      }
    }
  }

  /** Whether a pair lies in both channels alike: pin by pin at nets that mirror one another, and not all at the same ones. */
  private isMirrored(part: LayerPart, twin: LayerPart): boolean {
    const pins = Object.entries(part.pins);
    const isAlike = ([pin, net]: [string, string]) => {
      const other = twin.pins[pin];
      if (other !== undefined && this.isOpen(net) !== this.isOpen(other)) return true;
      return other === (this.nets.get(net) ?? (other === net ? net : undefined));
    };
    return pins.every(isAlike) && pins.some(([pin, net]) => twin.pins[pin] !== net);
  }

  /** Parts at a net that have no twin. */
  private alone(net: string): number {
    return this.circuit.parts.filter((p) => Object.values(p.pins).includes(net) && !this.parts.has(p.ref))
      .length;
  }

  private worth(part: LayerPart): Value | null {
    return this.marked.has(part.ref) ? this.marked.get(part.ref)! : part.value;
  }

  private areAlike(a: LayerPart, b: LayerPart): boolean {
    return a.kind === b.kind && a.model === b.model && this.worth(a) === this.worth(b);
  }

  /** A net that one leg alone is at may be one with others: as long as it is not traced, it says nothing. */
  private isOpen(net: string): boolean {
    return this.legs.get(net) === 1;
  }

  private join(a: string, b: string): boolean {
    if (this.isOpen(a) !== this.isOpen(b)) return false;
    const [knownA, knownB] = [this.nets.get(a), this.nets.get(b)];
    if ((knownA !== undefined && knownA !== b) || (knownB !== undefined && knownB !== a)) return false;
    this.nets.set(a, b).set(b, a);
    return true;
  }

  private pair(a: LayerPart, b: LayerPart): void {
    this.parts.set(a.ref, b.ref).set(b.ref, a.ref);
    for (const [pin, net] of Object.entries(a.pins))
      if (b.pins[pin] !== undefined) this.join(net, b.pins[pin]);
  }

  /** Pairs parts that are alike between nets that mirror one another, as long as that finds more. */
  private extend(): void {
    for (let isMore = true; isMore;) {
      isMore = false;
      for (const part of this.circuit.parts) {
        if (this.parts.has(part.ref)) continue;
        const twin = this.alikeAt(part);
        if (!twin) continue;
        this.pair(part, twin);
        isMore = true;
      }
    }
  }

  /** The one part that is at the images of a part's nets: known ones, with a net at most that is not known yet. */
  private alikeAt(part: LayerPart): LayerPart | undefined {
    const pins = Object.entries(part.pins);
    const images = pins.map(
      ([pin, net]) => [pin, this.nets.get(net) ?? (net === this.circuit.ground ? net : undefined)] as const,
    );
    const known = images.filter(([, image]) => image !== undefined);
    const isOneSided = known.some(([pin, image]) => image !== part.pins[pin]);
    if (!isOneSided || images.length - known.length > 1) return undefined;
    const found = this.circuit.parts.filter(
      (p) =>
        p !== part &&
        !this.parts.has(p.ref) &&
        this.areAlike(part, p) &&
        known.every(([pin, image]) => p.pins[pin] === image),
    );
    return found.length === 1 ? found[0] : undefined;
  }
}

/**
 * What the steps of one channel are in the other: the same values and parts at what mirrors their places, designators and new
 * nets of their own. Null where they are of no channel, of both, or where something has no twin.
 *
 * @param circuit as it came, with its changes; the steps are made on what it is planned to be
 */
export function twinSteps(circuit: Circuit, steps: readonly Step[]): readonly Step[] | null {
  const { circuit: planned } = buildLayer(circuit, 'planned');
  const twins = channelTwins(planned, circuit.parts);
  if (twins.parts.size === 0) return null;
  const names = new FreeNames(circuit, planned);
  names.take(steps);
  const mirror = new Mirror(planned, twins, names);
  const mirrored = steps.map((step) => mirror.step(step));
  if (mirrored.some((step) => step === null)) return null;
  const isBoth = steps.every((step) =>
    mirrored.some((other) => JSON.stringify(other) === JSON.stringify(step)),
  );
  return isBoth || !mirror.hasCrossed ? null : (mirrored as Step[]);
}

class Mirror {
  /** Whether anything lies in the other channel at all. */
  hasCrossed = false;
  private readonly refs: Map<string, string>;
  private readonly nets: Map<string, string>;
  private readonly circuit: LayerCircuit;
  private readonly own: ReadonlySet<string>;
  private readonly names: FreeNames;

  constructor(circuit: LayerCircuit, twins: ChannelTwins, names: FreeNames) {
    this.circuit = circuit;
    this.refs = new Map(twins.parts);
    this.nets = new Map(twins.nets);
    this.own = new Set(netsOf(circuit));
    this.names = names;
  }

  step(step: Step): Step | null {
    switch (step.do) {
      case 'fit':
      case 'remove': {
        const ref = this.ref(step.ref);
        return ref === null ? null : { ...step, ref };
      }
      case 'add':
        return this.added(step);
      case 'lift': {
        const pin = this.pin(step.pin);
        return pin === null ? null : { ...step, pin };
      }
      case 'move': {
        const pin = this.pin(step.pin);
        return pin === null ? null : { ...step, pin, to: this.net(step.to) };
      }
      case 'cut': {
        const pins = step.pins.map((pin) => this.pin(pin));
        const net = this.net(step.net);
        return pins.some((pin) => pin === null)
          ? null
          : { ...step, net, pins: pins as string[], as: this.net(step.as) };
      }
      case 'join':
        return { ...step, net: this.net(step.net), to: this.net(step.to) };
    }
  }

  private added(step: Extract<Step, { do: 'add' }>): Step {
    const { part } = step;
    const letters = /^[A-Za-z]+/.exec(part.ref)?.[0] ?? 'X';
    const pins = Object.fromEntries(Object.entries(part.pins).map(([pin, net]) => [pin, this.net(net)]));
    const ref = this.names.ref(letters);
    this.refs.set(part.ref, ref);
    return { ...step, part: { ...part, ref, pins } as typeof part };
  }

  private ref(ref: string): string | null {
    const twin = this.refs.get(ref);
    if (twin === undefined) return null;
    this.hasCrossed = true;
    return twin;
  }

  /** A pin of the twin; a pin of what both channels have stays. */
  private pin(text: string): string | null {
    const at = readPin(this.circuit, text);
    const dot = text.lastIndexOf('.');
    const [ref, pin] = at.ok ? [at.ref, at.pin] : [text.slice(0, dot), text.slice(dot + 1)];
    const twin = this.ref(ref);
    return twin === null ? null : `${twin}.${pin}`;
  }

  private net(net: string): string {
    const twin = this.nets.get(net);
    if (twin !== undefined) {
      this.hasCrossed = true;
      return twin;
    }
    // What both channels have is what it is; what the steps bring in has its own in each.
    if (this.own.has(net) || net === this.circuit.ground) return net;
    const made = this.names.net(net);
    this.nets.set(net, made);
    return made;
  }
}
