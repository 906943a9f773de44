import type { BlockData, LinkData, PartKind, PathData } from '@zemble/contract';
import { KINDS, type Circuit, type Part } from '../../circuit/circuit/index.ts';
import { figuresOf, type Figure } from '../../circuit/figures/index.ts';
import { blockKind } from './block-kinds.ts';

const ACTIVE: readonly PartKind[] = ['bjt', 'jfet', 'mosfet', 'triode', 'pentode', 'opamp', 'timer555'];
const SOURCES: readonly PartKind[] = ['signal', 'capsule'];

/** Nets that stand still: the ground and what supplies hold; a signal does not pass through them. */
function railsOf(circuit: Circuit): ReadonlySet<string> {
  const rails = new Set([circuit.ground]);
  for (const p of circuit.parts)
    if (p.kind === 'supply') for (const net of Object.values(p.pins)) rails.add(net);
  return rails;
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
 * stage hangs together, and coupling capacitors divide the stages.
 */
function islandsOf(circuit: Circuit, rails: ReadonlySet<string>): ReadonlyMap<string, number> {
  const parent = new Map<string, string>();
  const root = (net: string): string => {
    const above = parent.get(net) ?? net;
    return above === net ? net : root(above);
  };
  for (const p of circuit.parts) {
    const nets = Object.values(p.pins).filter((n) => !rails.has(n));
    for (const net of nets) if (!parent.has(net)) parent.set(net, net);
    if (ACTIVE.includes(p.kind) || isCoupling(p, rails) || p.kind === 'potentiometer') continue;
    for (const net of nets.slice(1)) parent.set(root(net), root(nets[0]!));
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

class PathBuilder {
  private readonly circuit: Circuit;
  private readonly rails: ReadonlySet<string>;
  private readonly islands: ReadonlyMap<string, number>;
  private readonly figures: readonly Figure[];
  private readonly blocks: BlockData[] = [];
  private readonly links: LinkData[] = [];
  private readonly owner = new Map<string, string>();

  constructor(circuit: Circuit, rails: ReadonlySet<string>, islands: ReadonlyMap<string, number>) {
    this.circuit = circuit;
    this.rails = rails;
    this.islands = islands;
    this.figures = figuresOf(circuit);
  }

  build(): PathData {
    for (const p of this.circuit.parts) this.addBlockFor(p);
    for (const p of this.circuit.parts) if (!this.owner.has(p.ref)) this.giveToNearest(p);
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
      const centre = this.circuit.parts.find((q) => q.ref === b.id)!;
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

  /** Signals go from sources outward: each block reached by a net passes it on at its outputs. */
  private addSignalLinks(): void {
    const centres = new Map(
      this.blocks
        .filter((b) => b.kind !== 'supply')
        .map((b) => [b.id, this.circuit.parts.find((p) => p.ref === b.id)!]),
    );
    const isIsland = (net: string) => (this.rails.has(net) ? undefined : this.islands.get(net));
    const enters = (part: Part, island: number) => portsOf(part).into.some((n) => isIsland(n) === island);
    const leaves = (part: Part) =>
      [...new Set(portsOf(part).out.map(isIsland))].filter((i) => i !== undefined);
    const walk = (start: readonly Part[]) => {
      let front = start.flatMap((p) => leaves(p).map((island) => ({ from: p.ref, island })));
      for (const p of start) seen.add(p.ref);
      while (front.length > 0) {
        const reached = new Map<string, Part>();
        for (const { from, island } of front) {
          for (const [ref, part] of centres) {
            if (ref === from || seen.has(ref) || !enters(part, island)) continue;
            this.link(from, ref);
            reached.set(ref, part);
          }
        }
        for (const ref of reached.keys()) seen.add(ref);
        front = [...reached].flatMap(([from, p]) => leaves(p).map((island) => ({ from, island })));
      }
    };
    const seen = new Set<string>();
    const sources = [...centres.values()].filter((p) => SOURCES.includes(p.kind));
    walk(sources);
    // What no source drives makes its own signal: an oscillator.
    for (const part of centres.values()) if (!seen.has(part.ref) && part.kind === 'opamp') walk([part]);
    for (const part of centres.values()) if (!seen.has(part.ref) && ACTIVE.includes(part.kind)) walk([part]);
    // A device that hangs on a source's wiring with its output shunts it.
    for (const source of sources) {
      if (this.links.some((l) => l.from === source.ref)) continue;
      for (const [ref, part] of centres)
        if (part !== source && leaves(part).some((island) => leaves(source).includes(island)))
          this.link(source.ref, ref);
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
