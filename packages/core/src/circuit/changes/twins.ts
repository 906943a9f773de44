import type { Step } from '@zemble/contract';
import { netsOf, type Circuit, type LayerCircuit, type LayerPart } from '../circuit/index.ts';
import { twinsOf } from '../continuity/index.ts';
import { FreeNames } from './free-names.ts';
import { buildLayer } from './layer.ts';
import { readPin } from './pin.ts';

/** What mirrors what in two equal channels: parts by their designators, and nets. */
export interface ChannelTwins {
  readonly parts: ReadonlyMap<string, string>;
  readonly nets: ReadonlyMap<string, string>;
}

/** How the names of nets of two channels tell them apart (common practice): left and right, L and R, 1 and 2. */
const SIDES: readonly (readonly [RegExp, string])[] = [
  [/left/i, 'right'],
  [/right/i, 'left'],
  [/(?<=[a-z_.-])l(?=\d*$)|^l(?=\d*$)/i, 'r'],
  [/(?<=[a-z_.-])r(?=\d*$)|^r(?=\d*$)/i, 'l'],
  [/1$/, '2'],
  [/2$/, '1'],
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

const areAlike = (a: LayerPart, b: LayerPart): boolean =>
  a.kind === b.kind && a.value === b.value && a.model === b.model;

/**
 * The two channels of a circuit: parts that mirror one another by their designators, or are alike between nets that mirror one
 * another; nets that parts which do so are at in the same way, or that are called so. Neighbours in one channel are no twins.
 */
export function channelTwins(circuit: Pick<LayerCircuit, 'parts' | 'ground'>): ChannelTwins {
  return new TwinSearch(circuit).run();
}

class TwinSearch {
  private readonly byRef: ReadonlyMap<string, LayerPart>;
  private readonly circuit: Pick<LayerCircuit, 'parts' | 'ground'>;
  private readonly parts = new Map<string, string>();
  private readonly nets = new Map<string, string>();

  constructor(circuit: Pick<LayerCircuit, 'parts' | 'ground'>) {
    this.circuit = circuit;
    this.byRef = new Map(circuit.parts.map((p) => [p.ref, p]));
  }

  run(): ChannelTwins {
    for (const [a, b] of twinsOf(this.circuit.parts))
      if (a < b) this.pair(this.byRef.get(a)!, this.byRef.get(b)!);
    this.extend();
    const all = new Set(netsOf(this.circuit));
    for (const net of all) {
      const twin = this.nets.has(net) ? undefined : namedTwin(net, all);
      if (twin !== undefined && !this.nets.has(twin)) this.join(net, twin);
    }
    this.extend();
    return {
      parts: this.parts,
      nets: new Map([...this.nets].filter(([net, twin]) => net !== twin)),
    };
  }

  private join(a: string, b: string): boolean {
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
        areAlike(part, p) &&
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
  const twins = channelTwins(planned);
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
