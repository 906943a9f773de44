import { CHARACTER_WIDTH, TEXT_HEIGHT, type Box, type Point } from './symbols.ts';
import { BoxIndex } from './box-index.ts';
import type { Wire } from './route.ts';

/** A small flag at a net: its voltage, or its name. */
export interface Flag {
  readonly net: string;
  readonly text: string;
  readonly box: Box;
  /** The point of the net it belongs to. */
  readonly at: Point;
}

const PADDING = 0.35;

/** The strip of paper that a wire takes. */
const wireBox = (w: Wire): Box => ({
  left: Math.min(w.from.x, w.to.x) - 0.15,
  right: Math.max(w.from.x, w.to.x) + 0.15,
  top: Math.min(w.from.y, w.to.y) - 0.15,
  bottom: Math.max(w.from.y, w.to.y) + 0.15,
});

/**
 * Finds room for one flag a net, touching its wire and overlapping nothing: symbols, text, wires or other flags. A net
 * without room gets none.
 */
export function placeFlags(
  texts: ReadonlyMap<string, string>,
  wires: readonly Wire[],
  obstacles: readonly Box[],
): Flag[] {
  const taken = new BoxIndex([...obstacles, ...wires.map(wireBox)]);
  const byNet = new Map<string, Wire[]>();
  for (const wire of wires) byNet.set(wire.net, [...(byNet.get(wire.net) ?? []), wire]);
  const flags: Flag[] = [];
  for (const [net, text] of texts) {
    const flag = placeFlag(net, text, byNet.get(net) ?? [], taken);
    if (!flag) continue;
    flags.push(flag);
    taken.add(flag.box);
  }
  return flags;
}

function placeFlag(net: string, text: string, wires: readonly Wire[], taken: BoxIndex): Flag | undefined {
  const width = text.length * CHARACTER_WIDTH + 2 * PADDING;
  const height = TEXT_HEIGHT + PADDING;
  const gap = 0.3;
  const longestFirst = [...wires].sort((a, b) => length(b) - length(a));
  for (const wire of longestFirst) {
    for (const at of pointsAlong(wire)) {
      const isHorizontal = wire.from.y === wire.to.y;
      const boxes: Box[] = isHorizontal
        ? [-1, 1].flatMap((side) =>
            [0, -width / 2, -width].map((shift) => {
              const top = side < 0 ? at.y - gap - height : at.y + gap;
              return { left: at.x + shift, right: at.x + shift + width, top, bottom: top + height };
            }),
          )
        : [1, -1].flatMap((side) =>
            [-height / 2, -height, 0].map((shift) => {
              const left = side > 0 ? at.x + gap : at.x - gap - width;
              return { left, right: left + width, top: at.y + shift, bottom: at.y + shift + height };
            }),
          );
      const free = boxes.find((box) => taken.isFree(box));
      if (free) return { net, text, box: free, at };
    }
  }
  return undefined;
}

const length = (w: Wire) => Math.abs(w.from.x - w.to.x) + Math.abs(w.from.y - w.to.y);

function pointsAlong(wire: Wire): Point[] {
  const steps = length(wire);
  const order = Array.from({ length: steps + 1 }, (_, i) => i).sort(
    (a, b) => Math.abs(a - steps / 2) - Math.abs(b - steps / 2),
  );
  return order.map((i) => ({
    x: wire.from.x + Math.sign(wire.to.x - wire.from.x) * i,
    y: wire.from.y + Math.sign(wire.to.y - wire.from.y) * i,
  }));
}
