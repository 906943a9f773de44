import type { BlockData, LinkData, PartKind, PathData } from '@zemble/contract';
import { KINDS, markedNumber, netsOf, type Circuit, type Part } from '../../circuit/circuit/index.ts';
import { figuresOf, type Figure } from '../../circuit/figures/index.ts';
import { blockKind } from './block-kinds.ts';

const ACTIVE: readonly PartKind[] = ['bjt', 'jfet', 'mosfet', 'triode', 'pentode', 'opamp', 'timer555'];
const SOURCES: readonly PartKind[] = ['signal', 'capsule'];

/** A capacitor of this size to ground holds a net still for all that is heard, F (common practice). */
const HOLDING_F = 4.7e-6;

/**
 * Nets that stand still: the ground, what supplies hold, and what a large capacitor holds with nothing active on it but an
 * opamp's input, as a bias or a filtered supply; a signal does not pass through them.
 */
function railsOf(circuit: Circuit): ReadonlySet<string> {
  const rails = new Set([circuit.ground]);
  for (const p of circuit.parts)
    if (p.kind === 'supply') for (const net of Object.values(p.pins)) rails.add(net);
  const isHeld = (net: string) =>
    circuit.parts.some(
      (p) =>
        p.kind === 'capacitor' &&
        (markedNumber(p) ?? 0) >= HOLDING_F &&
        Object.values(p.pins).includes(net) &&
        Object.values(p.pins).some((n) => n !== net && rails.has(n)),
    );
  const isPassive = (net: string) =>
    circuit.parts.every((p) => {
      if (!Object.values(p.pins).includes(net)) return true;
      if (p.kind === 'opamp') return p.pins.out !== net;
      return p.kind === 'capacitor' || p.kind === 'resistor' || p.kind === 'zener';
    });
  const held = netsOf(circuit).filter((net) => !rails.has(net) && isHeld(net) && isPassive(net));
  return new Set([...rails, ...held]);
}

/**
 * A path from a circuit: each active device with the parts around it is a stage, coupling capacitors and controls
 * between stages are blocks of their own, sources, outputs and supplies as well. A signal goes from the control pin of
 * a device to its output; what is joined by parts to a stage's own nets belongs to it.
 */
export function proposePath(circuit: Circuit): PathData {
  const rails = railsOf(circuit);
  const islands = islandsOf(circuit, rails);
  const builder = new PathBuilder(circuit, rails, islands);
  return builder.build();
}

/**
 * Nets joined by parts that are neither coupling capacitors nor active devices, each with its number: the wiring of one
 * stage hangs together, and coupling capacitors divide the stages. What leads from an opamp's output back to its own input
 * joins nothing: it is of the stage, and the signal comes out at the output alone.
 */
function islandsOf(circuit: Circuit, rails: ReadonlySet<string>): ReadonlyMap<string, number> {
  const joining = circuit.parts.filter(
    (p) => !ACTIVE.includes(p.kind) && !isCoupling(p, rails) && p.kind !== 'potentiometer',
  );
  const opamps = circuit.parts.filter((p) => p.kind === 'opamp');
  const outs = new Set(opamps.flatMap((p) => (p.pins.out === undefined ? [] : [p.pins.out])));
  const before = joinedBy(
    circuit,
    rails,
    joining.filter((p) => !Object.values(p.pins).some((n) => outs.has(n))),
  );
  const isFeedback = (p: Part) =>
    opamps.some(({ pins }) => {
      const nets = Object.values(p.pins);
      if (pins.out === undefined || !nets.includes(pins.out)) return false;
      const ends = [pins.plus, pins.minus].filter((n) => n !== undefined && n !== pins.out);
      return nets.some(
        (n) =>
          n !== pins.out &&
          ends.some((end) => before.get(n) !== undefined && before.get(n) === before.get(end!)),
      );
    });
  return joinedBy(
    circuit,
    rails,
    joining.filter((p) => !isFeedback(p)),
  );
}

/** The number of each net's island, where some parts join nets. */
function joinedBy(
  circuit: Circuit,
  rails: ReadonlySet<string>,
  joining: readonly Part[],
): ReadonlyMap<string, number> {
  const parent = new Map<string, string>();
  const root = (net: string): string => {
    const above = parent.get(net) ?? net;
    return above === net ? net : root(above);
  };
  const own = (p: Part) => Object.values(p.pins).filter((n) => !rails.has(n));
  for (const p of circuit.parts) for (const net of own(p)) parent.set(net, net);
  for (const p of joining) {
    const [first, ...others] = own(p);
    for (const net of others) parent.set(root(net), root(first!));
  }
  const numbers = new Map<string, number>();
  const found = new Map<string, number>();
  for (const net of parent.keys()) {
    const top = root(net);
    if (!numbers.has(top)) numbers.set(top, numbers.size);
    found.set(net, numbers.get(top)!);
  }
  return found;
}

const isCoupling = (p: Part, rails: ReadonlySet<string>) =>
  p.kind === 'capacitor' && Object.values(p.pins).every((n) => !rails.has(n));

/** Pins of a device at which a signal goes in, and at which it comes out. */
function portsOf(p: Part): { into: string[]; out: string[] } {
  const { pins } = p;
  const nets = (...names: string[]) => names.flatMap((n) => (pins[n] === undefined ? [] : [pins[n]]));
  switch (p.kind) {
    case 'bjt':
      return { into: nets('b'), out: nets('c', 'e') };
    case 'jfet':
    case 'mosfet':
      return { into: nets('g'), out: nets('d', 's') };
    case 'triode':
    case 'pentode':
      return { into: nets('g'), out: nets('a', 'k') };
    case 'opamp':
      return { into: nets('plus', 'minus'), out: nets('out') };
    case 'timer555':
      return { into: nets('trig', 'thr', 'ctrl', 'reset'), out: nets('out', 'dis') };
    default:
      return { into: Object.values(pins), out: Object.values(pins) };
  }
}

/** How nets are called where a signal comes in and goes out (common practice). */
const IS_INPUT = /^(?:in(?:put|l|r)?|mic|aux|phono|pickup|line ?in)(?:$|[\d_.\s-]|l$|r$|left|right)/i;
const IS_OUTPUT =
  /^(?:out(?:put|l|r)?|phones|headphones?|line ?out|rec|send|spk|speaker)(?:$|[\d_.\s-]|l$|r$|left|right)/i;
const IS_END = new RegExp(`${IS_INPUT.source}|${IS_OUTPUT.source}`, 'i');
/** A resistor to ground from here on keeps an open end at rest; a smaller one is part of a network (common practice). */
const REST_OHM = 10_000;

/** Whether a signal goes out of a part to an island. */
const leavesTo = (part: Part, islandOf: (net: string) => number | undefined, island: number): boolean =>
  portsOf(part).out.some((n) => islandOf(n) === island);

class PathBuilder {
  private readonly circuit: Circuit;
  private readonly rails: ReadonlySet<string>;
  private readonly islands: ReadonlyMap<string, number>;
  private readonly figures: readonly Figure[];
  private readonly blocks: BlockData[] = [];
  private readonly links: LinkData[] = [];
  private readonly owner = new Map<string, string>();
  /** Where a signal comes in or goes out that no source and no loudspeaker stands for: blocks with their nets. */
  private readonly inputs = new Map<string, string>();
  private readonly outputs = new Map<string, string>();

  constructor(circuit: Circuit, rails: ReadonlySet<string>, islands: ReadonlyMap<string, number>) {
    this.circuit = circuit;
    this.rails = rails;
    this.islands = islands;
    this.figures = figuresOf(circuit);
  }

  build(): PathData {
    for (const p of this.circuit.parts) this.addBlockFor(p);
    for (const p of this.circuit.parts) if (!this.owner.has(p.ref)) this.giveToNearest(p);
    this.addEnds();
    this.addSignalLinks();
    this.addSupplyLinks();
    const testPoints = this.links
      .filter((l) => l.carries === 'audio')
      .flatMap((l) => {
        const net = this.netBetween(l.from, l.to);
        const [from, to] = [l.from, l.to];
        return [
          {
            id: `${from}->${to}`,
            name: net === undefined ? `${from} to ${to}` : `${from} to ${to}, net ${net}`,
            link: [from, to] as [string, string],
            ...(net === undefined ? {} : { net }),
          },
        ];
      });
    return { blocks: this.blocks, links: this.links, testPoints };
  }

  private add(part: Part, kind: string, name: string): void {
    const { minutes } = blockKind(kind);
    this.blocks.push({ id: part.ref, name, kind, parts: [part.ref], minutes });
    this.owner.set(part.ref, part.ref);
  }

  /** What the trade calls a stage, where it is a figure: "Common-emitter stage Q1", "Q2 of long-tailed pair Q1 Q2". */
  private stageName({ ref }: Part): string {
    const figure = this.figures.find((f) => f.title.split(' ').includes(ref));
    if (!figure) return `Stage around ${ref}`;
    const isAlone = figure.title === `${figure.name} ${ref}`;
    return isAlone ? capital(figure.title) : `${ref} of ${figure.title}`;
  }

  private addBlockFor(p: Part): void {
    if (ACTIVE.includes(p.kind)) {
      const kind =
        p.kind === 'opamp'
          ? 'opamp stage'
          : p.kind === 'triode' || p.kind === 'pentode'
            ? 'valve stage'
            : 'stage';
      this.add(p, kind, this.stageName(p));
    } else if (SOURCES.includes(p.kind))
      this.add(p, p.kind === 'capsule' ? 'microphone' : 'source', `Source ${p.ref}`);
    else if (p.kind === 'supply') this.add(p, 'supply', `Supply ${p.ref}`);
    else if (p.kind === 'speaker' || p.kind === 'headphone')
      this.add(p, 'speaker', `${capital(KINDS[p.kind].words)} ${p.ref}`);
    else if (p.kind === 'potentiometer') this.add(p, 'control', `Control ${p.ref}`);
    else if (p.kind === 'transformer') this.add(p, 'stage', `Transformer ${p.ref}`);
    else if (isCoupling(p, this.rails) && this.joinsIslands(p))
      this.add(p, 'coupling capacitor', `Coupling capacitor ${p.ref}`);
  }

  private joinsIslands(p: Part): boolean {
    const numbers = Object.values(p.pins).map((n) => this.islands.get(n));
    return new Set(numbers).size > 1;
  }

  /** A part belongs to the block that it shares the most nets with; the one with a device on its wiring is preferred. */
  private giveToNearest(p: Part): void {
    const own = new Set(Object.values(p.pins).filter((n) => !this.rails.has(n)));
    const score = (b: BlockData) => {
      const centre = this.isEnd(b) ? undefined : this.circuit.parts.find((q) => q.ref === b.id);
      if (!centre) return 0;
      const nets = Object.values(centre.pins).filter((n) => !this.rails.has(n));
      const shared = nets.filter((n) => own.has(n)).length * 4;
      const near = nets.filter((n) =>
        [...own].some((o) => this.islands.get(o) === this.islands.get(n)),
      ).length;
      const isCentre = ACTIVE.includes(centre.kind) ? 2 : 0;
      return shared + near > 0 ? shared + near + isCentre : 0;
    };
    const scored = this.blocks.map((b) => ({ b, s: score(b) })).sort((x, y) => y.s - x.s);
    const best = scored[0];
    if (!best) return;
    const target = best.s > 0 ? best.b : this.blocks.find((b) => b.kind === 'supply');
    if (!target) return;
    target.parts!.push(p.ref);
    this.owner.set(p.ref, target.id);
  }

  /** The island of a net; none for what stands still. */
  private islandOf(net: string): number | undefined {
    return this.rails.has(net) ? undefined : this.islands.get(net);
  }

  /** Parts that blocks are built around, without the supplies. */
  private centres(): Map<string, Part> {
    return new Map(
      this.blocks.flatMap((b) => {
        // An end may be called as a part is, its jack among them: it is built around none.
        const part = this.isEnd(b) ? undefined : this.circuit.parts.find((p) => p.ref === b.id);
        return part && b.kind !== 'supply' ? [[b.id, part] as const] : [];
      }),
    );
  }

  /**
   * Sockets where the signal comes in and goes out: nets that are named so, and those that lie beyond a coupling capacitor
   * with nothing on them but what keeps their rest at ground.
   */
  private addEnds(): void {
    const centres = [...this.centres().values()];
    const ends = new Map<number, string>();
    for (const net of netsOf(this.circuit)) {
      const island = this.islandOf(net);
      if (island === undefined) continue;
      const known = ends.get(island);
      if (known === undefined || (!IS_END.test(known) && IS_END.test(net))) ends.set(island, net);
    }
    for (const [island, net] of ends) {
      const on = centres.filter((p) => Object.values(p.pins).some((n) => this.islandOf(n) === island));
      const isDriven = on.some((p) => SOURCES.includes(p.kind) || this.isActiveAt(p, 'out', island));
      const isHeard = on.some((p) => p.kind === 'speaker' || p.kind === 'headphone');
      const couplings = on.filter((p) => p.kind === 'capacitor');
      const isBeyond = couplings.length === 1 && on.length === 1 && this.restsAlone(island);
      if (!isDriven && (IS_INPUT.test(net) || (isBeyond && this.leadsIn(couplings[0]!, island))))
        this.addEnd(this.inputs, net, 'Input');
      else if (!isHeard && (IS_OUTPUT.test(net) || (isBeyond && this.leadsOut(couplings[0]!, island))))
        this.addEnd(this.outputs, net, 'Output');
    }
  }

  private isActiveAt(p: Part, port: 'into' | 'out', island: number): boolean {
    return ACTIVE.includes(p.kind) && portsOf(p)[port].some((n) => this.islandOf(n) === island);
  }

  /** Whether what hangs on an island beside a coupling keeps its rest and no more: resistors to ground of ten kilohms or above. */
  private restsAlone(island: number): boolean {
    return this.circuit.parts.every((p) => {
      if (!Object.values(p.pins).some((n) => this.islandOf(n) === island)) return true;
      if (isCoupling(p, this.rails) || p.kind === 'jack' || p.kind === 'load') return true;
      return p.kind === 'resistor' && (markedNumber(p) ?? REST_OHM) >= REST_OHM;
    });
  }

  /** What a coupling has at its other end: what takes a signal in, and what gives one out. */
  private leadsIn = (coupling: Part, from: number): boolean =>
    !this.leadsOut(coupling, from) && this.isBeside(coupling, from, 'into');
  private leadsOut = (coupling: Part, from: number): boolean => this.isBeside(coupling, from, 'out');

  private isBeside(coupling: Part, from: number, port: 'into' | 'out'): boolean {
    const others = Object.values(coupling.pins).flatMap((n) => {
      const island = this.islandOf(n);
      return island === undefined || island === from ? [] : [island];
    });
    return [...this.centres().values()].some((p) => {
      if (p.kind === 'potentiometer')
        return others.some((island) => leavesTo(p, (n) => this.islandOf(n), island));
      return others.some((island) => this.isActiveAt(p, port, island));
    });
  }

  private isEnd = ({ id }: BlockData): boolean => this.inputs.has(id) || this.outputs.has(id);

  private addEnd(ends: Map<string, string>, net: string, word: string): void {
    const jack = this.circuit.parts.find((p) => p.kind === 'jack' && Object.values(p.pins).includes(net));
    let id = jack?.ref ?? net;
    while (this.blocks.some((b) => b.id === id)) id = `${id}-${word.toLowerCase()}`;
    // A jack with several contacts belongs to the first end that it has.
    const isFree =
      jack !== undefined && !this.blocks.some((b) => this.isEnd(b) && b.parts!.includes(jack.ref));
    const parts = isFree ? [jack.ref] : [];
    for (const b of this.blocks) b.parts = b.parts!.filter((ref) => !parts.includes(ref));
    this.blocks.push({
      id,
      name: `${word} ${jack ? jack.ref : net}`,
      kind: 'socket',
      parts,
      minutes: blockKind('socket').minutes,
    });
    if (isFree) this.owner.set(jack.ref, id);
    ends.set(id, net);
  }

  /** Signals go from sources and inputs outward: each block reached by a net passes it on at its outputs, to the ends. */
  private addSignalLinks(): void {
    const centres = this.centres();
    const enters = (part: Part, island: number) =>
      portsOf(part).into.some((n) => this.islandOf(n) === island);
    const leaves = (part: Part) =>
      [...new Set(portsOf(part).out.map((n) => this.islandOf(n)))].filter((i) => i !== undefined);
    const seen = new Set<string>();
    const sources = [...centres.values()].filter((p) => SOURCES.includes(p.kind));
    // What couples a source or an input in is entered from there alone.
    const begins = new Map<string, readonly number[]>([
      ...sources.map((p) => [p.ref, leaves(p)] as const),
      ...[...this.inputs].map(([id, net]) => [id, [this.islandOf(net)!]] as const),
    ]);
    const isOther = (part: Part, from: string) =>
      part.kind === 'capacitor' &&
      [...begins].some(
        ([id, islands]) => id !== from && !begins.has(from) && islands.some((i) => enters(part, i)),
      );
    const walk = (start: readonly { readonly from: string; readonly islands: readonly number[] }[]) => {
      const own = new Set(start.map((s) => s.from));
      let front = start.flatMap(({ from, islands }) => islands.map((island) => ({ from, island })));
      while (front.length > 0) {
        const reached = new Map<string, Part>();
        for (const { from, island } of front)
          for (const [ref, part] of centres) {
            if (ref === from || own.has(ref) || !enters(part, island)) continue;
            if (isOther(part, from) || this.isBefore(ref, from)) continue;
            this.link(from, ref);
            reached.set(ref, part);
          }
        for (const ref of reached.keys()) own.add(ref);
        front = [...reached].flatMap(([from, p]) => leaves(p).map((island) => ({ from, island })));
      }
      for (const ref of own) seen.add(ref);
    };
    const from = (part: Part) => ({ from: part.ref, islands: leaves(part) });
    for (const [id, islands] of begins) walk([{ from: id, islands }]);
    // What no source drives makes its own signal: an oscillator.
    for (const part of centres.values()) if (!seen.has(part.ref) && part.kind === 'opamp') walk([from(part)]);
    for (const part of centres.values())
      if (!seen.has(part.ref) && ACTIVE.includes(part.kind)) walk([from(part)]);
    // A device that hangs on a source's wiring with its output shunts it.
    for (const source of sources) {
      if (this.links.some((l) => l.from === source.ref)) continue;
      for (const [ref, part] of centres)
        if (part !== source && leaves(part).some((island) => leaves(source).includes(island)))
          this.link(source.ref, ref);
    }
    for (const [id, net] of this.outputs)
      for (const [ref, part] of centres)
        if (leavesTo(part, (n) => this.islandOf(n), this.islandOf(net)!)) this.link(ref, id);
    this.dropLoneEnds();
  }

  /** Whether a block stands before another, by the links so far: a link back would close a ring. */
  private isBefore(first: string, later: string): boolean {
    const reached = new Set([first]);
    for (const at of reached) for (const l of this.links) if (l.from === at) reached.add(l.to);
    return reached.has(later);
  }

  /** An end to which nothing leads is none. */
  private dropLoneEnds(): void {
    for (const id of [...this.inputs.keys(), ...this.outputs.keys()]) {
      const block = this.blocks.findIndex((b) => b.id === id);
      if (this.links.some((l) => l.from === id || l.to === id)) continue;
      const [lone] = this.blocks.splice(block, 1);
      for (const ref of lone!.parts ?? []) this.giveToNearest(this.circuit.parts.find((p) => p.ref === ref)!);
    }
  }

  private link(from: string, to: string): void {
    if (!this.links.some((l) => l.from === from && l.to === to))
      this.links.push({ from, to, carries: 'audio' });
  }

  private addSupplyLinks(): void {
    for (const supply of this.circuit.parts.filter((p) => p.kind === 'supply')) {
      const rails = Object.values(supply.pins).filter((n) => n !== this.circuit.ground);
      for (const b of this.blocks) {
        if (b.id === supply.ref || b.kind === 'supply') continue;
        const parts = this.circuit.parts.filter((p) => b.parts!.includes(p.ref));
        if (parts.some((p) => Object.values(p.pins).some((n) => rails.includes(n))))
          this.links.push({ from: supply.ref, to: b.id, carries: 'supply' });
      }
    }
  }

  /** A net that the output of one block and the input of another share, for the name of a test point. */
  private netBetween(from: string, to: string): string | undefined {
    const end = this.inputs.get(from) ?? this.outputs.get(to);
    if (end !== undefined) return end;
    const part = (ref: string) => this.circuit.parts.find((p) => p.ref === ref)!;
    const out = portsOf(part(from)).out.filter((n) => !this.rails.has(n));
    const into = portsOf(part(to)).into.filter((n) => !this.rails.has(n));
    return (
      out.find((n) => into.includes(n)) ??
      into.find((n) => out.some((o) => this.islands.get(o) === this.islands.get(n)))
    );
  }
}

const capital = (word: string) => word.charAt(0).toUpperCase() + word.slice(1);
