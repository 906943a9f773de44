import { UnionFind, type Circuit, type Part } from '../../circuit/circuit/index.ts';
import { isPType } from '../../circuit/models/index.ts';
import { companionsOf } from './companions.ts';
import { placeFlags, type Flag } from './flags.ts';
import { footprint, type RailMark } from './footprint.ts';
import { Placer } from './place.ts';
import { drawnClasses, type NetClass } from '../../circuit/figures/index.ts';
import { SymbolSheet } from './symbol-sheet.ts';
import { routeNets, type Terminal, type Wire } from './route.ts';
import {
  bodyAt,
  CHARACTER_WIDTH,
  labelsAt,
  pinsAt,
  TEXT_HEIGHT,
  type Box,
  type Label,
  type Placement,
  type Point,
  type SymbolPin,
} from './symbols.ts';

/** A symbol where it stands, with its text. */
export interface DrawnSymbol {
  readonly part: Part;
  readonly at: Placement;
  readonly pins: readonly SymbolPin[];
  readonly body: Box;
  readonly labels: readonly Label[];
}

/** A whole drawing in drawing units, y downwards. */
export interface Drawing {
  readonly symbols: readonly DrawnSymbol[];
  readonly marks: readonly RailMark[];
  readonly wires: readonly Wire[];
  readonly dots: readonly (Point & { net: string })[];
  /** Net names at pins that no wire could reach, and at the nets asked for. */
  readonly names: readonly Flag[];
  readonly crossings: number;
  readonly bounds: Box;
}

export interface LayoutOptions {
  /** Value text beside a symbol; the designator is always there. */
  readonly textOf?: (part: Part) => string;
  /** Symbols that the user moved: they stand where they were put. */
  readonly nudges?: Readonly<Record<string, Point>>;
  /** Where the symbols of an earlier drawing stand: they stay there, so that a small edit moves little. */
  readonly previous?: ReadonlyMap<string, Placement>;
  /** Nets whose names are written at their wires. */
  readonly nameNets?: readonly string[];
}

/**
 * Draws a circuit: places the symbols by following the signal from left to right, with supplies up and ground down as
 * local symbols, then routes the wires. Deterministic; the same circuit always gives the same drawing.
 */
export function layoutCircuit(circuit: Circuit, options: LayoutOptions = {}): Drawing {
  const classOf = drawnClasses(circuit);
  const textsOf = (part: Part): readonly [string, string] => [part.ref, options.textOf?.(part) ?? ''];
  const drawable: Circuit = { ...circuit, parts: drawableParts(circuit) };
  const companions = companionsOf(drawable);
  const sheet = new SymbolSheet(classOf, textsOf);
  const place = (parts: readonly Part[], on: SymbolSheet) =>
    new Placer({ ...drawable, parts }, classOf, companions, on).run();
  stackIslands(drawable, sheet, () => new SymbolSheet(classOf, textsOf), place, classOf);
  keepInPlace(drawable, sheet, options, classOf);

  const symbols: DrawnSymbol[] = [];
  const marks: RailMark[] = [];
  const obstacles: Box[] = [];
  const terminals: Terminal[] = [];
  for (const part of drawable.parts) {
    const at = sheet.at(part.ref);
    if (!at) continue;
    const print = footprint(part, at, textsOf(part), classOf);
    const pins = pinsAt(part, at);
    symbols.push({ part, at, pins, body: bodyAt(part, at), labels: labelsAt(part, at, textsOf(part)) });
    marks.push(...print.marks);
    obstacles.push(...print.boxes);
    for (const pin of pins) {
      const net = part.pins[pin.name];
      if (net !== undefined && classOf(net) === 'signal') terminals.push({ ...pin, net });
    }
  }
  const routing = routeNets(obstacles, terminals);
  const tags = nameFlags(routing.unrouted, options.nameNets ?? [], routing.wires, obstacles);
  const all = [...obstacles, ...routing.wires.map((w) => pointBox(w.from, w.to)), ...tags.map((t) => t.box)];
  return {
    symbols,
    marks,
    wires: routing.wires,
    dots: routing.dots,
    names: tags,
    crossings: routing.crossings,
    bounds: boundsOf(all),
  };
}

/** Where the symbols of a drawing stand, by designator. */
export const placementsOf = (drawing: Drawing): ReadonlyMap<string, Placement> =>
  new Map(drawing.symbols.map((s) => [s.part.ref, s.at]));

/** Flags with texts (voltages, say) for the nets of a drawing, where there is room. */
export function flagsFor(drawing: Drawing, texts: ReadonlyMap<string, string>): Flag[] {
  const obstacles = [
    ...drawing.symbols.flatMap((s) => [s.body, ...s.labels.map((l) => l.box)]),
    ...drawing.marks.map((m) => m.box),
    ...drawing.names.map((n) => n.box),
  ];
  return placeFlags(texts, [...drawing.wires, ...referenceStubs(drawing)], obstacles);
}

/** The stub of one mark of each reference: there its voltage is said, once. */
function referenceStubs({ marks }: Drawing): Wire[] {
  const first = new Map<string, RailMark>();
  for (const mark of marks) if (mark.kind === 'reference' && !first.has(mark.net)) first.set(mark.net, mark);
  return [...first.values()].map(({ net, from, x, y }) => ({ net, from, to: { x, y } }));
}

/**
 * Parts with a designator of their own; a second one of the same name would stand in its place. A transistor says its
 * polarity, its model's where it has none itself, since its symbol depends on it.
 */
function drawableParts(circuit: Circuit): Part[] {
  const seen = new Set<string>();
  return circuit.parts
    .filter((p) => !seen.has(p.ref) && seen.add(p.ref) && Object.keys(p.pins).length > 0)
    .map((p) => (isPType(p, circuit.models) ? pType(p) : p));
}

function pType(part: Part): Part {
  if (part.kind === 'bjt') return { ...part, polarity: 'pnp' };
  return part.kind === 'jfet' || part.kind === 'mosfet' ? { ...part, polarity: 'p' } : part;
}

/** Free units between two islands of the drawing. */
const ISLAND_GAP = 4;

/**
 * Places each part of the circuit that hangs together by signal nets (a channel, say) on its own, so that equal
 * channels look alike, and stacks them from top to bottom; supplies stand left of all.
 */
function stackIslands(
  circuit: Circuit,
  sheet: SymbolSheet,
  newSheet: () => SymbolSheet,
  place: (parts: readonly Part[], on: SymbolSheet) => void,
  classOf: (net: string) => NetClass,
): void {
  const joined = new UnionFind();
  const signalNets = (part: Part) => Object.values(part.pins).filter((net) => classOf(net) === 'signal');
  for (const part of circuit.parts) {
    const nets = signalNets(part);
    for (const net of nets) joined.join(nets[0]!, net);
  }
  const islands = new Map<string, Part[]>();
  for (const part of circuit.parts) {
    const net = signalNets(part)[0];
    if (net === undefined) continue;
    const root = joined.find(net);
    islands.set(root, [...(islands.get(root) ?? []), part]);
  }
  let bottom = 0;
  for (const parts of islands.values()) {
    const island = newSheet();
    place(parts, island);
    const shift = bottom - island.bounds.top + (bottom > 0 ? ISLAND_GAP : 0);
    for (const part of parts) {
      const at = island.at(part.ref);
      if (at) sheet.put(part, { ...at, y: at.y + shift });
    }
    bottom = island.bounds.bottom + shift;
  }
  // What hangs together by no signal: supplies, and parts of one.
  place(circuit.parts, sheet);
}

/** Puts moved symbols where the user wants them and the others where they were, making way in that order. */
function keepInPlace(
  circuit: Circuit,
  sheet: SymbolSheet,
  options: LayoutOptions,
  classOf: (net: string) => NetClass,
): void {
  const wishes = new Map<string, Placement>();
  for (const part of circuit.parts) {
    const now = sheet.at(part.ref);
    const nudge = options.nudges?.[part.ref];
    const earlier = options.previous?.get(part.ref);
    if (!now) continue;
    if (nudge) wishes.set(part.ref, { ...(earlier ?? now), ...nudge });
    else if (earlier) wishes.set(part.ref, earlier);
  }
  if (wishes.size === 0) return;
  const isNudged = (part: Part) => options.nudges?.[part.ref] !== undefined;
  // A net that has become a named symbol needs room at each of its parts: those make way, and no others.
  const isNamed = (part: Part) => Object.values(part.pins).some((net) => classOf(net) === 'reference');
  const order = [...circuit.parts].sort((a, b) => rank(a) - rank(b));
  function rank(part: Part): number {
    if (isNudged(part)) return 0;
    return wishes.has(part.ref) ? (isNamed(part) ? 2 : 1) : 3;
  }
  const own = new Map(circuit.parts.map((p) => [p.ref, sheet.lift(p)]));
  for (const part of order) {
    const wish = wishes.get(part.ref) ?? own.get(part.ref);
    const at = wish && sheet.nearestFree(part, wish);
    if (at) sheet.put(part, at);
  }
}

function nameFlags(
  unrouted: readonly Terminal[],
  names: readonly string[],
  wires: readonly Wire[],
  obstacles: readonly Box[],
): Flag[] {
  const stubs = unrouted.map((t): Wire => ({
    net: `${t.net}\u0000${t.x},${t.y}`,
    from: t,
    to: { x: t.x + t.dx, y: t.y + t.dy },
  }));
  const texts = new Map<string, string>(names.map((n) => [n, n]));
  for (const stub of stubs) texts.set(stub.net, stub.net.split('\u0000')[0]!);
  const placed = placeFlags(texts, [...wires, ...stubs], obstacles);
  const hasOne = new Set(placed.map((f) => f.net));
  // A pin without a wire and without a name would be a lie: its name stands there, room or none.
  const squeezed = stubs.filter((s) => !hasOne.has(s.net)).map((s) => nameAt(s, texts.get(s.net)!));
  return [...placed, ...squeezed].map((f) => ({ ...f, net: f.net.split('\u0000')[0]! }));
}

const nameAt = ({ net, to }: Wire, text: string): Flag => ({
  net,
  text,
  at: to,
  box: { left: to.x, right: to.x + text.length * CHARACTER_WIDTH, top: to.y - TEXT_HEIGHT, bottom: to.y },
});

const pointBox = (a: Point, b: Point): Box => ({
  left: Math.min(a.x, b.x),
  right: Math.max(a.x, b.x),
  top: Math.min(a.y, b.y),
  bottom: Math.max(a.y, b.y),
});

function boundsOf(boxes: readonly Box[]): Box {
  if (boxes.length === 0) return { left: 0, top: 0, right: 1, bottom: 1 };
  return boxes.reduce((all, b) => ({
    left: Math.min(all.left, b.left),
    top: Math.min(all.top, b.top),
    right: Math.max(all.right, b.right),
    bottom: Math.max(all.bottom, b.bottom),
  }));
}
