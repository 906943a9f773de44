import type { BlockData, Carries, PathData } from '@zemble/contract';
import { netsOf, type Circuit } from '../../circuit/circuit/index.ts';
import { problem, type Problem } from '../../base/errors/index.ts';
import { BLOCK_KINDS, blockKind, isBlockKind, type BlockKind } from './block-kinds.ts';

/** A block as the search uses it. */
export interface Block {
  readonly id: string;
  readonly name: string;
  readonly kind: BlockKind;
  /** Weight of its failing, before any evidence. */
  readonly weight: number;
  readonly minutes: number;
  readonly parts: readonly string[];
}

export interface Link {
  readonly from: number;
  readonly to: number;
  readonly carries: Carries;
}

/** A place where something can be seen or heard: on a link, or at the output of a block. */
export interface TestPoint {
  readonly id: string;
  readonly name: string;
  /** Block whose output it shows. */
  readonly block: number;
  readonly link: Link | null;
  readonly carries: Carries;
  readonly net?: string;
  readonly minutes: number;
}

const USUAL_MINUTES = 1;

/** Left or right: which of two equal branches. */
export type Channel = 'left' | 'right';

/** The channel of a block by its name, or by its place in a pair of twins: the left one stands first. */
function channelOf({ id, name }: Block, twins: readonly (readonly [string, string])[]): Channel | undefined {
  const [word] = /\b(?:left|right)\b/i.exec(name) ?? [];
  if (word !== undefined) return word.toLowerCase() === 'left' ? 'left' : 'right';
  if (twins.some(([left]) => left === id)) return 'left';
  return twins.some(([, right]) => right === id) ? 'right' : undefined;
}

/** How a point is listened at. */
export interface Listening {
  /** Block that a tone goes into. */
  readonly injectedAt?: number | undefined;
  readonly channel?: Channel | undefined;
  /** The link that is looked at; all outputs of the block otherwise. */
  readonly on?: Link | null;
  /** What comes back round a ring counts as well. */
  readonly withRings?: boolean;
}

/** What is heard at a point: blocks by their index, and links. */
export interface Heard {
  readonly blocks: Uint8Array;
  readonly links: ReadonlySet<Link>;
}

/** Blocks, links and points with the questions the search asks of them. Blocks are known by their index. */
export class Path {
  readonly blocks: readonly Block[];
  readonly links: readonly Link[];
  readonly points: readonly TestPoint[];
  readonly twins: readonly (readonly [string, string])[];
  /** The channel each block belongs to alone; undefined for what both share. */
  private readonly channels: readonly (Channel | undefined)[];
  private readonly index: ReadonlyMap<string, number>;
  private readonly into: readonly (readonly Link[])[];
  private readonly outOf: readonly (readonly Link[])[];
  /** Links that close a ring: what they bring back is not needed for what went out first. */
  private readonly closing: ReadonlySet<Link>;
  private readonly audioAfter = new Map<number, ReadonlySet<number>>();
  private readonly netPoints = new Map<string, TestPoint>();

  constructor(data: PathData, circuit?: Circuit) {
    this.blocks = data.blocks.map((b): Block => ({
      id: b.id,
      name: b.name ?? b.id,
      kind: blockKind(b.kind, b.name),
      weight: b.prior ?? blockKind(b.kind).weight,
      minutes: b.minutes ?? USUAL_MINUTES,
      parts: b.parts ?? [],
    }));
    this.index = new Map(this.blocks.map((b, i) => [b.id, i]));
    this.links = data.links.flatMap((l): Link[] => {
      const [from, to] = [this.index.get(l.from), this.index.get(l.to)];
      return from === undefined || to === undefined ? [] : [{ from, to, carries: l.carries }];
    });
    this.into = this.blocks.map((_, i) => this.links.filter((l) => l.to === i));
    this.outOf = this.blocks.map((_, i) => this.links.filter((l) => l.from === i));
    this.closing = closingLinks(this.blocks.length, this.outOf);
    this.points = data.testPoints ? this.pointsFrom(data, circuit) : this.links.map((l) => this.linkPoint(l));
    this.twins = data.twins ?? [];
    this.channels = this.blocks.map((b) => channelOf(b, this.twins));
    for (const p of this.points) if (p.net !== undefined) this.netPoints.set(p.net, p);
    if (circuit) this.addNetPoints(circuit);
  }

  indexOf(id: string): number | undefined {
    return this.index.get(id);
  }

  private linkPoint(link: Link): TestPoint {
    const [from, to] = [this.blocks[link.from]!, this.blocks[link.to]!];
    return {
      id: `${from.id}->${to.id}`,
      name: `${from.name} to ${to.name}`,
      block: link.from,
      link,
      carries: link.carries,
      minutes: USUAL_MINUTES,
    };
  }

  private pointsFrom(data: PathData, circuit: Circuit | undefined): TestPoint[] {
    return (data.testPoints ?? []).flatMap((t): TestPoint[] => {
      const link = t.link && this.linkBetween(t.link[0], t.link[1]);
      const block = link?.from ?? (t.net === undefined ? undefined : this.blockAtNet(t.net, circuit));
      if (block === undefined) return [];
      return [
        {
          id: t.id,
          name: t.name ?? t.id,
          block,
          link: link ?? null,
          carries: link?.carries ?? this.outOf[block]![0]?.carries ?? 'audio',
          ...(t.net === undefined ? {} : { net: t.net }),
          minutes: t.minutes ?? USUAL_MINUTES,
        },
      ];
    });
  }

  /** The link a name is written for: `a->b`, `a > b`, `a-b`; names of blocks may have hyphens of their own. */
  private linkNamed(name: string): Link | undefined {
    for (const arrow of name.matchAll(/\s*(?:->|>|-|→)\s*/g)) {
      const link = this.linkBetween(name.slice(0, arrow.index), name.slice(arrow.index + arrow[0].length));
      if (link) return link;
    }
    return undefined;
  }

  private linkBetween(from: string, to: string): Link | undefined {
    const [a, b] = [this.index.get(from), this.index.get(to)];
    return this.links.find((l) => l.from === a && l.to === b);
  }

  /** The block whose output a net is: of the blocks with a part on it, the one that feeds the others. */
  private blockAtNet(net: string, circuit: Circuit | undefined): number | undefined {
    if (!circuit || net === circuit.ground) return undefined;
    const refs = new Set(circuit.parts.filter((p) => Object.values(p.pins).includes(net)).map((p) => p.ref));
    const touching = this.blocks.flatMap((b, i) => (b.parts.some((ref) => refs.has(ref)) ? [i] : []));
    return touching.find((a) => touching.every((b) => a === b || this.isFeeding(a, b))) ?? touching[0];
  }

  private isFeeding(a: number, b: number): boolean {
    return this.outOf[a]!.some((l) => l.to === b);
  }

  private addNetPoints(circuit: Circuit): void {
    for (const net of netsOf(circuit)) {
      if (this.netPoints.has(net)) continue;
      const block = this.blockAtNet(net, circuit);
      if (block === undefined) continue;
      const carries = this.outOf[block]![0]?.carries ?? 'audio';
      const point = { id: net, name: `net ${net}`, block, link: null, carries, net, minutes: USUAL_MINUTES };
      this.netPoints.set(net, point);
    }
  }

  /** The output of a block as a point. */
  outputOf(block: number): TestPoint {
    const { id, name } = this.blocks[block]!;
    const carries = this.outOf[block]![0]?.carries ?? 'audio';
    return { id, name: `output of ${name}`, block, link: null, carries, minutes: USUAL_MINUTES };
  }

  /** The point a name stands for: a test point, a link written `a->b`, a net, or a block for its output. */
  pointNamed(name: string): TestPoint | undefined {
    const own = this.points.find((p) => p.id === name);
    if (own) return own;
    const link = this.linkNamed(name);
    if (link) return this.linkPoint(link);
    const net = this.netPoints.get(name);
    if (net) return net;
    const block = this.index.get(name);
    return block === undefined ? undefined : this.outputOf(block);
  }

  /** The corresponding point of the twin channel: paired itself, or on the link between the twins of its blocks. */
  twinOf(point: TestPoint): TestPoint | undefined {
    const other = (id: string): string | undefined => {
      const pair = this.twins.find((t) => t.includes(id));
      return pair && (pair[0] === id ? pair[1] : pair[0]);
    };
    const paired = other(point.id);
    if (paired !== undefined) return this.pointNamed(paired);
    const from = other(this.blocks[point.block]!.id);
    if (from === undefined) return undefined;
    const to = point.link && this.blocks[point.link.to]!.id;
    if (to === null) return this.pointNamed(from);
    const link = this.linkBetween(from, other(to) ?? to);
    return link && (this.points.find((p) => p.link === link) ?? this.linkPoint(link));
  }

  /** Blocks that get audio or data from a block, the block itself included. */
  private downstream(block: number): ReadonlySet<number> {
    const known = this.audioAfter.get(block);
    if (known) return known;
    const reached = new Set([block]);
    for (const at of reached)
      for (const l of this.outOf[at]!) if (l.carries === 'audio' || l.carries === 'data') reached.add(l.to);
    this.audioAfter.set(block, reached);
    return reached;
  }

  /** The channel a point is in, by its block, or by the block that it leads to. */
  channelOf({ block, link }: TestPoint): Channel | undefined {
    return this.channels[block] ?? (link ? this.channels[link.to] : undefined);
  }

  /**
   * Blocks whose failing shows at the output of a block: all that it gets, directly or through others. What belongs to
   * the other channel sends nothing here, though both go through one block, as a selector. With a tone injected, only the
   * audio path from there on counts, with what that path depends on; null when the tone cannot get there.
   */
  relevant(at: number, how: Listening = {}): Uint8Array | null {
    return this.heard(at, how)?.blocks ?? null;
  }

  /**
   * Blocks and links whose failing shows at the output of a block, or on one link out of it. What comes back round a ring
   * is left out, unless it is asked for: pulses go on without it, though not what they say.
   */
  heard(
    at: number,
    { injectedAt, channel = this.channels[at], on = null, withRings = false }: Listening = {},
  ): Heard | null {
    const relevant = new Uint8Array(this.blocks.length);
    const links = new Set<Link>(on ? [on] : this.outOf[at]);
    const isOther = (block: number) => {
      const own = this.channels[block];
      return channel !== undefined && own !== undefined && own !== channel;
    };
    if (injectedAt !== undefined && isOther(injectedAt)) return null;
    const tone = injectedAt === undefined ? undefined : this.downstream(injectedAt);
    if (tone && !tone.has(at)) return null;
    const open = [at];
    relevant[at] = 1;
    for (let next = open.pop(); next !== undefined; next = open.pop()) {
      for (const link of this.into[next]!) {
        const isAudio = link.carries === 'audio';
        if (isAudio && isOther(link.from)) continue;
        const isSignal = isAudio || (link.carries === 'data' && tone?.has(next) === true);
        if (tone && isSignal && tone.has(next) && (next === injectedAt || !tone.has(link.from))) continue;
        if (this.closing.has(link) && !withRings) continue;
        links.add(link);
        if (relevant[link.from] === 1) continue;
        relevant[link.from] = 1;
        open.push(link.from);
      }
    }
    return { blocks: relevant, links };
  }

  /** The ways out of a block that can fail one by one: all that are no supply; none where there is only one. */
  outputsOf(block: number): readonly Link[] {
    const outputs = this.outOf[block]!.filter((l) => l.carries !== 'supply');
    return outputs.length > 1 ? outputs : [];
  }

  /** Whether a path has a ring. */
  get hasRing(): boolean {
    return this.closing.size > 0;
  }

  /** A block and the supplies that it hangs on: what makes a driven pin float. */
  drivingAt(block: number): Uint8Array {
    const driving = new Uint8Array(this.blocks.length);
    const open = [block];
    driving[block] = 1;
    for (let next = open.pop(); next !== undefined; next = open.pop())
      for (const feeder of this.feeders(next)) {
        if (driving[feeder] === 1) continue;
        driving[feeder] = 1;
        open.push(feeder);
      }
    return driving;
  }

  /** Blocks that feed a block: those it could drag down. */
  feeders(block: number): number[] {
    return this.into[block]!.filter((l) => l.carries === 'supply').map((l) => l.from);
  }

  /** Blocks that hang directly on a block's supply. */
  loadsOf(block: number): number[] {
    return this.outOf[block]!.filter((l) => l.carries === 'supply').map((l) => l.to);
  }

  /** Blocks that hang on a block's supply, directly or behind others. */
  fedBy(block: number): ReadonlySet<number> {
    const fed = new Set<number>();
    const open = [block];
    for (let next = open.pop(); next !== undefined; next = open.pop())
      for (const { to, carries } of this.outOf[next]!)
        if (carries === 'supply' && !fed.has(to)) {
          fed.add(to);
          open.push(to);
        }
    return fed;
  }

  /** Blocks that pass audio to no other: where it is heard. */
  sinks(): number[] {
    const isAudio = (l: Link) => l.carries === 'audio';
    return this.blocks.flatMap((_, i) =>
      this.into[i]!.some(isAudio) && !this.outOf[i]!.some(isAudio) ? [i] : [],
    );
  }

  /** Blocks that a tone can be put into. */
  injectable(): number[] {
    return this.blocks.flatMap((_, i) => (this.into[i]!.some((l) => l.carries === 'audio') ? [i] : []));
  }
}

/**
 * Links that lead back to where the search in depth came from, begun at what nothing feeds, then in the order of the blocks:
 * without them there is no ring (Tarjan 1972).
 */
function closingLinks(count: number, outOf: readonly (readonly Link[])[]): ReadonlySet<Link> {
  const closing = new Set<Link>();
  const isFed = new Set(outOf.flatMap((links) => links.map((l) => l.to)));
  const blocks = Array.from({ length: count }, (_, i) => i);
  const starts = [...blocks.filter((b) => !isFed.has(b)), ...blocks];
  const state = new Uint8Array(count);
  const [ON_THE_WAY, DONE] = [1, 2];
  for (const start of starts) {
    if (state[start] !== 0) continue;
    const way = [{ block: start, next: 0 }];
    state[start] = ON_THE_WAY;
    for (let top = way.at(-1); top !== undefined; top = way.at(-1)) {
      const link = outOf[top.block]![top.next];
      top.next += 1;
      if (link === undefined) {
        state[top.block] = DONE;
        way.pop();
      } else if (state[link.to] === ON_THE_WAY) closing.add(link);
      else if (state[link.to] === 0) {
        state[link.to] = ON_THE_WAY;
        way.push({ block: link.to, next: 0 });
      }
    }
  }
  return closing;
}

/** A path ready to be searched. Links to blocks that are not there are left out; `checkPath` names them. */
export const preparePath = (data: PathData, circuit?: Circuit): Path => new Path(data, circuit);

/** What is wrong with a path: names used twice, links and points that lead nowhere, rings of audio. */
export function checkPath(data: PathData, circuit?: Circuit): Problem[] {
  const problems: Problem[] = [];
  const say = (where: string, detail: string) => problems.push(problem('path/invalid', { where, detail }));
  const ids = new Set<string>();
  for (const b of data.blocks) {
    if (ids.has(b.id)) say(`block ${b.id}`, 'the name is used twice');
    ids.add(b.id);
    if (b.kind !== undefined && !isBlockKind(b.kind))
      say(
        `block ${b.id}`,
        `"${b.kind}" is no kind of block; the kinds are ${BLOCK_KINDS.map((k) => k.name).join(', ')}`,
      );
    missingParts(b, circuit).forEach((ref) => say(`block ${b.id}`, `there is no part ${ref}`));
  }
  for (const { from, to } of data.links) {
    for (const end of [from, to]) if (!ids.has(end)) say(`link ${from} to ${to}`, `there is no block ${end}`);
    if (from === to) say(`link ${from} to ${to}`, 'a block does not feed itself');
  }
  for (const t of data.testPoints ?? []) {
    const isLinked = t.link && data.links.some((l) => l.from === t.link![0] && l.to === t.link![1]);
    if (t.link && !isLinked) say(`test point ${t.id}`, `there is no link ${t.link[0]} to ${t.link[1]}`);
    if (!t.link && t.net === undefined) say(`test point ${t.id}`, 'it is on no link and no net');
  }
  return problems;
}

function missingParts(block: BlockData, circuit: Circuit | undefined): string[] {
  if (!circuit) return [];
  const refs = new Set(circuit.parts.map((p) => p.ref));
  return (block.parts ?? []).filter((ref) => !refs.has(ref));
}
