import {
  CARRIES,
  type BlockData,
  type Carries,
  type LinkData,
  type PathData,
  type TestPointData,
} from '@zemble/contract';
import { problem, type Problem } from '../../base/errors/index.ts';
import type { Circuit } from '../../circuit/circuit/index.ts';
import { BLOCK_KINDS, blockKind, isBlockKind } from './block-kinds.ts';

export type PathLineResult =
  | { readonly ok: true; readonly path: PathData; readonly words: string }
  | { readonly ok: false; readonly problem: Problem };

const EMPTY: PathData = { blocks: [], links: [], testPoints: [] };

/**
 * Adds one typed line to a path. `Microphone > Talk key > First stage` links blocks one after the other, making those
 * that are not there yet; `supply: Adapter > First stage, Driver` says what the links carry, with several blocks at one
 * station; `Driver, stage` adds a block of a kind. Every new link gets a test point, named as the others are, with its net
 * where the parts of both blocks share one.
 */
export function addPathLine(path: PathData | null, line: string, circuit?: Circuit): PathLineResult {
  const text = line.trim();
  const carrying = /^([a-z]+)\s*:\s*(.*)$/i.exec(text);
  const word = carrying?.[1]?.toLowerCase();
  const carries = CARRIES.find((c) => c === word);
  if (carrying && !carries)
    return bad(`"${carrying[1]}" is not what a link carries; it is one of ${CARRIES.join(', ')}.`);
  const rest = carries ? carrying![2]! : text;
  if (rest === '') return bad('The line is empty.');
  const editor = new PathEditor(path ?? EMPTY, circuit);
  if (/>|→/.test(rest)) return editor.chain(rest, carries ?? 'audio');
  if (carries) return bad('A link has two ends, with ">" between them.');
  return editor.single(rest);
}

const bad = (detail: string): PathLineResult => ({
  ok: false,
  problem: problem('path/invalid', { where: 'the line', detail: detail.replace(/\.$/, '') }),
});

/** The path without a block, its links and their test points. */
export function withoutBlock(path: PathData, id: string): PathData {
  return {
    ...path,
    blocks: path.blocks.filter((b) => b.id !== id),
    links: path.links.filter((l) => l.from !== id && l.to !== id),
    testPoints: path.testPoints?.filter((t) => !t.link?.includes(id)),
    ...(path.twins ? { twins: path.twins.filter((pair) => !pair.includes(id)) } : {}),
  };
}

/** The path without a link and its test points. */
export function withoutLink(path: PathData, link: LinkData): PathData {
  return {
    ...path,
    links: path.links.filter((l) => l.from !== link.from || l.to !== link.to || l.carries !== link.carries),
    testPoints: path.testPoints?.filter((t) => t.link?.[0] !== link.from || t.link[1] !== link.to),
  };
}

class PathEditor {
  private readonly path: PathData;
  private readonly blocks: BlockData[];
  private readonly links: LinkData[];
  private readonly points: TestPointData[];
  private readonly circuit: Circuit | undefined;

  constructor(path: PathData, circuit: Circuit | undefined) {
    this.path = path;
    this.circuit = circuit;
    this.blocks = [...path.blocks];
    this.links = [...path.links];
    this.points = [...(path.testPoints ?? path.links.map((l, i) => this.pointFor(l.from, l.to, i + 1)))];
  }

  single(text: string): PathLineResult {
    const [name, kind, ...more] = text.split(',').map((w) => w.trim());
    if (!name || more.length > 0) return bad('A block is its name, then its kind after a comma');
    if (kind !== undefined && !isBlockKind(kind))
      return bad(`"${kind}" is no kind of block; the kinds are ${BLOCK_KINDS.map((k) => k.name).join(', ')}`);
    const known = this.find(name);
    if (known && kind === undefined) return bad(`there is a block ${known.name ?? known.id} already`);
    if (known) this.blocks[this.blocks.indexOf(known)] = { ...known, kind: kind! };
    else this.make(name, kind);
    const told = blockKind(kind ?? guessKind(name)).name;
    return this.done(known ? `${known.name ?? known.id} is a ${kind!}` : `adds ${name}, ${told}`);
  }

  chain(text: string, carries: Carries): PathLineResult {
    const stations = text.split(/>|→/).map((s) =>
      s
        .split(',')
        .map((w) => w.trim())
        .filter(Boolean),
    );
    if (stations.some((s) => s.length === 0)) return bad('an end of the chain is missing');
    const before = this.blocks.length;
    const named = stations.map((s) => s.map((w) => this.find(w) ?? this.make(w)));
    let count = 0;
    named.slice(1).forEach((to, i) => {
      for (const a of named[i]!) for (const b of to) count += this.link(a.id, b.id, carries) ? 1 : 0;
    });
    if (count === 0) return bad('these links are there already');
    const made = this.blocks.slice(before).map((b) => b.name);
    return this.done(
      `${count} ${count === 1 ? 'link' : 'links'} of ${carries}${made.length > 0 ? `; new: ${made.join(', ')}` : ''}`,
    );
  }

  private done(words: string): PathLineResult {
    return {
      ok: true,
      words,
      path: { ...this.path, blocks: this.blocks, links: this.links, testPoints: this.points },
    };
  }

  private find(word: string): BlockData | undefined {
    const wanted = word.toLowerCase();
    return this.blocks.find((b) => b.id.toLowerCase() === wanted || b.name?.toLowerCase() === wanted);
  }

  private make(name: string, kind?: string): BlockData {
    const base =
      name
        .toLowerCase()
        .replace(/[^a-z0-9]+/g, '-')
        .replace(/^-|-$/g, '') || 'block';
    let id = base;
    for (let n = 2; this.blocks.some((b) => b.id === id); n += 1) id = `${base}-${n}`;
    const known = kind ?? guessKind(name);
    const block: BlockData = {
      id,
      name,
      ...(known ? { kind: known } : {}),
      minutes: blockKind(known).minutes,
    };
    this.blocks.push(block);
    return block;
  }

  private link(from: string, to: string, carries: Carries): boolean {
    if (from === to || this.links.some((l) => l.from === from && l.to === to && l.carries === carries))
      return false;
    this.links.push({ from, to, carries });
    if (!this.points.some((t) => t.link?.[0] === from && t.link[1] === to))
      this.points.push(this.pointFor(from, to, this.points.length + 1));
    return true;
  }

  private pointFor(from: string, to: string, number: number): TestPointData {
    const block = (id: string) => this.blocks.find((b) => b.id === id);
    const known = this.points ?? [];
    const isByBlocks = known.length > 0 && known.every((t) => t.id.includes('->'));
    let id = isByBlocks ? `${from}->${to}` : `TP${number}`;
    for (let n = number + 1; known.some((t) => t.id === id); n += 1) id = `TP${n}`;
    const minutes = Math.max(block(from)?.minutes ?? 1, block(to)?.minutes ?? 1);
    const net = this.netBetween(block(from), block(to));
    const words = `${block(from)?.name ?? from} to ${block(to)?.name ?? to}`;
    return {
      id,
      name: net === undefined ? words : `${words}, net ${net}`,
      link: [from, to],
      ...(net === undefined ? {} : { net }),
      minutes,
    };
  }

  /** The one net that the parts of two blocks share beside ground and supplies. */
  private netBetween(from: BlockData | undefined, to: BlockData | undefined): string | undefined {
    if (!this.circuit || !from || !to) return undefined;
    const { parts, ground } = this.circuit;
    const still = new Set([
      ground,
      ...parts.flatMap((p) => (p.kind === 'supply' ? Object.values(p.pins) : [])),
    ]);
    const netsOfBlock = (b: BlockData) =>
      new Set(parts.filter((p) => b.parts?.includes(p.ref)).flatMap((p) => Object.values(p.pins)));
    const others = netsOfBlock(to);
    const shared = [...netsOfBlock(from)].filter((n) => others.has(n) && !still.has(n));
    return shared.length === 1 ? shared[0] : undefined;
  }
}

/** What follows one of these says more of the thing that stands before it. */
const MORE = /\s+(?:with|of|for|to|from|in|and|at|on)\s.*$/;

/**
 * The kind that a name speaks of, by its last words, as names are made: "Input socket" is a socket, "Controller supply" a
 * supply, "Headphone socket with switch" a socket.
 */
function guessKind(name: string): string | undefined {
  const words = name
    .toLowerCase()
    .replace(MORE, '')
    .split(/[^a-z-]+/)
    .filter(Boolean);
  for (let end = words.length; end > 0; end -= 1)
    for (let from = 0; from < end; from += 1) {
      const { name: kind } = blockKind(words.slice(from, end).join(' '));
      if (kind !== 'block') return kind;
    }
  return undefined;
}
