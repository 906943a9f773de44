import type { Board, Hole } from '@zemble/contract';
import type { LayerCircuit } from '../circuit/circuit/index.ts';

/** Copper a second way: every hole by itself, painted from hole to neighbour until nothing changes. */
function painted({ style, columns, rows, cuts, links }: Board): (hole: Hole) => number {
  const at = ([c, r]: Hole) => r * columns + c;
  const isOn = ([c, r]: Hole) => c >= 0 && r >= 0 && c < columns && r < rows;
  const colour = Array.from({ length: columns * rows }, (_, i) => i);
  const gone = new Set(cuts.filter(isOn).map(at));
  const pairs: [number, number][] = links
    .filter((l) => isOn(l.from) && isOn(l.to))
    .map((l) => [at(l.from), at(l.to)]);
  if (style === 'strip')
    for (let r = 0; r < rows; r += 1)
      for (let c = 0; c + 1 < columns; c += 1) pairs.push([at([c, r]), at([c + 1, r])]);
  const live = pairs.filter(([a, b]) => !gone.has(a) && !gone.has(b));
  for (let changed = true; changed;) {
    changed = false;
    for (const [a, b] of live) {
      const low = Math.min(colour[a]!, colour[b]!);
      if (colour[a] !== low || colour[b] !== low) changed = true;
      colour[a] = low;
      colour[b] = low;
    }
  }
  return (hole) => (isOn(hole) && !gone.has(at(hole)) ? colour[at(hole)]! : -1);
}

/** Pins of a dual opamp in its package (data sheets, from memory). */
const DUAL_OPAMP: Readonly<Record<string, readonly [unit: string, pin: string]>> = {
  1: ['A', 'out'],
  2: ['A', 'minus'],
  3: ['A', 'plus'],
  4: ['A', 'vminus'],
  5: ['B', 'plus'],
  6: ['B', 'minus'],
  7: ['B', 'out'],
  8: ['A', 'vplus'],
};

/** The net of a pin of a place; undefined for one that nothing uses. */
function netAt({ parts }: LayerCircuit, ref: string, key: string): string | undefined {
  const part = parts.find((p) => p.ref === ref);
  if (part) return part.pins[key];
  const [unit, pin] = DUAL_OPAMP[key] ?? ['', ''];
  return parts.find((p) => p.ref === `${ref}${unit}`)?.pins[pin];
}

/** Nets that share a piece of copper, and nets on several, by the second way. */
export function secondLook(circuit: LayerCircuit, board: Board) {
  const colourAt = painted(board);
  const inPiece = new Map<number, Set<string>>();
  const ofNet = new Map<string, Set<number>>();
  const touch = (net: string | undefined, hole: Hole) => {
    const piece = colourAt(hole);
    if (piece < 0 || net === undefined) return;
    inPiece.set(piece, (inPiece.get(piece) ?? new Set()).add(net));
    ofNet.set(net, (ofNet.get(net) ?? new Set()).add(piece));
  };
  for (const { ref, holes } of board.places)
    for (const [pin, hole] of Object.entries(holes)) touch(netAt(circuit, ref, pin), hole);
  for (const { net, hole } of board.terminals) touch(net, hole);
  const words = (nets: Iterable<string>) => [...nets].sort().join(' ');
  return {
    shorts: [...inPiece.values()]
      .filter((n) => n.size > 1)
      .map(words)
      .sort(),
    opens: [...ofNet]
      .filter(([, p]) => p.size > 1)
      .map(([net]) => net)
      .sort(),
  };
}
