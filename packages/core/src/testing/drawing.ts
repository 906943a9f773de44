import type { Circuit } from '../circuit/circuit/index.ts';
import type { Box, Drawing, Point, Wire } from '../sheet/draw/index.ts';

export const overlaps = (a: Box, b: Box) =>
  a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom;

/** Does a wire pass through the inside of a box? */
export function passes(wire: Wire, box: Box): boolean {
  const [left, right] = [Math.min(wire.from.x, wire.to.x), Math.max(wire.from.x, wire.to.x)];
  const [top, bottom] = [Math.min(wire.from.y, wire.to.y), Math.max(wire.from.y, wire.to.y)];
  return left < box.right && right > box.left && top < box.bottom && bottom > box.top;
}

/** Everything that may not touch anything else, with a name to say what did. */
export function pieces(drawing: Drawing): { owner: string; what: string; box: Box }[] {
  return [
    ...drawing.symbols.flatMap((s) => [
      { owner: s.part.ref, what: 'body', box: s.body },
      ...s.labels.map((l) => ({ owner: s.part.ref, what: `label ${l.text}`, box: l.box })),
    ]),
    ...drawing.marks.map((m) => ({ owner: `mark ${m.from.x},${m.from.y}`, what: m.kind, box: m.box })),
  ];
}

/** What touches what it may not, a line each. */
export function faults(drawing: Drawing): string[] {
  const found: string[] = [];
  const all = pieces(drawing);
  for (let i = 0; i < all.length; i += 1) {
    for (let j = i + 1; j < all.length; j += 1) {
      const [a, b] = [all[i]!, all[j]!];
      const isOwnMark = a.owner.startsWith('mark') || b.owner.startsWith('mark');
      if (
        a.owner === b.owner ||
        (isOwnMark && (a.what === 'body' || b.what === 'body') && touchesPin(drawing, a, b))
      )
        continue;
      if (overlaps(a.box, b.box)) found.push(`${a.owner} ${a.what} overlaps ${b.owner} ${b.what}`);
    }
  }
  for (const wire of drawing.wires) {
    for (const piece of all)
      if (passes(wire, piece.box)) found.push(`net ${wire.net} runs through ${piece.owner} ${piece.what}`);
  }
  return found;
}

/** A rail mark begins at its own symbol's pin. */
function touchesPin(drawing: Drawing, a: { owner: string }, b: { owner: string }): boolean {
  const symbol = drawing.symbols.find((s) => s.part.ref === a.owner || s.part.ref === b.owner);
  return (
    symbol?.pins.some((p) => a.owner === `mark ${p.x},${p.y}` || b.owner === `mark ${p.x},${p.y}`) ?? false
  );
}

/** Two nets never share a piece of wire, and every pin of a net is joined to the others. */
export function wiringFaults(circuit: Circuit, drawing: Drawing): string[] {
  const found: string[] = [];
  const owner = new Map<string, string>();
  const joined = new Map<string, Set<string>>();
  for (const { net, from, to } of drawing.wires) {
    const steps = Math.abs(from.x - to.x) + Math.abs(from.y - to.y);
    for (let i = 0; i < steps; i += 1) {
      const at = (k: number) =>
        `${from.x + Math.sign(to.x - from.x) * k},${from.y + Math.sign(to.y - from.y) * k}`;
      const step = [at(i), at(i + 1)].sort().join(' ');
      if (owner.has(step) && owner.get(step) !== net)
        found.push(`nets ${owner.get(step)} and ${net} share ${step}`);
      owner.set(step, net);
      for (const [a, b] of [
        [at(i), at(i + 1)],
        [at(i + 1), at(i)],
      ] as const)
        joined.set(`${net} ${a}`, (joined.get(`${net} ${a}`) ?? new Set()).add(b));
    }
  }
  const marked = new Set(drawing.marks.map((m) => m.net));
  const nets = new Set(circuit.parts.flatMap((p) => Object.values(p.pins)));
  for (const net of [...nets].filter((n) => !marked.has(n))) {
    const pins = drawing.symbols.flatMap((s) =>
      s.pins.filter((p) => s.part.pins[p.name] === net).map((p) => `${p.x},${p.y}`),
    );
    if (pins.length < 2) continue;
    const reached = new Set<string>();
    const open = [pins[0]!];
    for (let at = open.pop(); at !== undefined; at = open.pop()) {
      if (reached.has(at)) continue;
      reached.add(at);
      open.push(...(joined.get(`${net} ${at}`) ?? []));
    }
    const named = new Set(
      drawing.names.filter((n) => n.net === net).flatMap(({ at }) => pins.filter((p) => isNear(p, at))),
    );
    const apart = pins.filter((p) => !reached.has(p));
    // What no wire reaches has its net's name beside it, and so has something that a wire does.
    if (apart.some((p) => !named.has(p)))
      found.push(`net ${net} is not joined, and ${apart.join(' ')} has no name`);
  }
  const drawn = new Set(drawing.symbols.map((s) => s.part.ref));
  for (const { ref } of circuit.parts) if (!drawn.has(ref)) found.push(`${ref} is not drawn`);
  return found;
}

/** Whether a point lies at a pin or one step out of it. */
function isNear(pin: string, at: Point): boolean {
  const [x, y] = pin.split(',').map(Number) as [number, number];
  return Math.abs(at.x - x) + Math.abs(at.y - y) <= 1;
}

/** Corners of the wires of a drawing: points at which just one lying and one standing piece of a net end. */
export function bends({ wires }: Drawing): number {
  const ends = new Map<string, { lying: number; standing: number }>();
  for (const { net, from, to } of wires)
    for (const { x, y } of [from, to]) {
      const key = `${net} ${x},${y}`;
      const at = ends.get(key) ?? { lying: 0, standing: 0 };
      at[from.y === to.y ? 'lying' : 'standing'] += 1;
      ends.set(key, at);
    }
  return [...ends.values()].filter(({ lying, standing }) => lying === 1 && standing === 1).length;
}
