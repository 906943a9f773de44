import { netsOf, touching, type Circuit, type Part } from '../../circuit/circuit/index.ts';
import type { Companions, Entry } from './companions.ts';
import { FigurePlaces } from './figure-places.ts';
import type { NetClass } from '../../circuit/figures/index.ts';
import { shortestPlace, straightRuns } from './shortest-place.ts';
import { MARGIN, type SymbolSheet } from './symbol-sheet.ts';
import { CONTROL_PINS, isTwoTerminal, pinsAt, type Placement, type Point } from './symbols.ts';

/** Units between a pin and the trunk of its net. */
const STUB = 2;
const SYMBOL_HALF = 2;

/** Columns along a net in which there is looked for room to hang a part, and those before an input. */
const ALONG = 80;
const BEFORE_INPUT = 16;

/** Rows beside a net's own on which a part may lie, and what each row costs, in columns. */
const SHELVES = [0, 6, -6, 12, -12, 18, -18];
const SHELF_COST = 1.5;
/** The same for a part that stands at the end of its control's net: it leaves the row only where the row is full. */
const ACTIVE_ROWS = [0, 4, -4, 8, -8, 12, -12, 16, -16];
const ACTIVE_ROW_COST = 60;
/** A whole figure would go far where it is kept on the row. */
const FIGURE_ROW_COST = 3;
/** Columns in which room is looked for. */
const COLUMNS = 60;

/** Where supplies stand: left of the first source. */
const SUPPLY_COLUMN = -10;
/**
 * Places the symbols of a circuit by following the signal: from each source along its net, what goes to a rail hangs
 * above, what goes to ground below, what goes on lies to the right; a transistor stands at the end of its control
 * net and hands on its other two. What closes a loop is put where its wires are shortest. No two footprints touch.
 */
export class Placer {
  private readonly circuit: Circuit;
  private readonly classOf: (net: string) => NetClass;
  private readonly companions: Companions;
  private readonly sheet: SymbolSheet;
  private readonly figures: FigurePlaces;
  private readonly byNet: Map<string, Part[]>;
  private readonly byRef: Map<string, Part>;
  private readonly anchors = new Map<string, Point>();
  /** Nets that were first reached where a pin looks to the left. */
  private readonly inputs = new Set<string>();
  private readonly done = new Set<string>();
  private queue: string[] = [];

  constructor(
    circuit: Circuit,
    classOf: (net: string) => NetClass,
    companions: Companions,
    sheet: SymbolSheet,
  ) {
    this.circuit = circuit;
    this.companions = companions;
    this.classOf = classOf;
    this.sheet = sheet;
    this.byNet = touching(circuit);
    this.byRef = new Map(circuit.parts.map((p) => [p.ref, p]));
    this.figures = new FigurePlaces(companions, this.byRef, sheet);
  }

  run(): void {
    for (const part of this.sources()) this.startAt(part);
    for (const net of this.remainingNets()) {
      if (this.anchors.has(net) || !this.unplacedAt(net).length) continue;
      this.anchor(net, { x: 0, y: this.nextBand() });
      this.walk();
    }
    this.placeSupplies();
  }

  /** Signal sources and capsules first: there the signal begins. */
  private sources(): Part[] {
    const order = ['signal', 'capsule'];
    return this.circuit.parts
      .filter((p) => order.includes(p.kind))
      .sort((a, b) => order.indexOf(a.kind) - order.indexOf(b.kind));
  }

  private remainingNets(): string[] {
    const rank = (net: string) => (this.unplacedAt(net).some((p) => this.controlNet(p) === net) ? 0 : 1);
    const nets = netsOf(this.circuit).filter((n) => this.classOf(n) === 'signal');
    return nets
      .map((net, i) => ({ net, i }))
      .sort((a, b) => rank(a.net) - rank(b.net) || a.i - b.i)
      .map((n) => n.net);
  }

  private nextBand(): number {
    return this.sheet.size === 0 ? 0 : this.sheet.bounds.bottom + 10;
  }

  private startAt(part: Part): void {
    if (this.sheet.at(part.ref) !== undefined) return;
    const nets = Object.values(part.pins).filter((n) => this.classOf(n) === 'signal');
    const net = nets[0];
    if (net === undefined || nets.length > 1) return;
    if (!this.anchors.has(net)) this.anchor(net, { x: 0, y: this.nextBand() });
    this.walk();
  }

  private walk(): void {
    for (;;) {
      this.hangFresh();
      const net = this.queue.shift();
      if (net !== undefined) this.follow(net);
      else if (!this.closeLoop()) return;
    }
  }

  private anchor(net: string, at: Point, isInput = false): void {
    if (this.classOf(net) !== 'signal' || this.anchors.has(net)) return;
    if (isInput) this.inputs.add(net);
    this.anchors.set(net, at);
    this.queue.push(net);
    this.fresh.push(net);
  }

  /** Nets anchored since the last time their shunts were hung. */
  private fresh: string[] = [];

  private hangFresh(): void {
    for (let net = this.fresh.shift(); net !== undefined; net = this.fresh.shift()) this.hangShunts(net);
  }

  private unplacedAt(net: string): Part[] {
    return (this.byNet.get(net) ?? []).filter((p) => !this.sheet.at(p.ref));
  }

  private controlNet(part: Part): string | undefined {
    const pin = CONTROL_PINS.find(
      (p) => part.pins[p] !== undefined && this.classOf(part.pins[p]) === 'signal',
    );
    return isTwoTerminal(part) || pin === undefined ? undefined : part.pins[pin];
  }

  private otherNet(part: Part, net: string): string {
    return Object.values(part.pins).find((n) => n !== net) ?? net;
  }

  /** Does a chain from this net lead only to one kind of rail, so that it stands rather than lies? */
  private leadsTo(net: string, from: Part): NetClass {
    const others = (this.byNet.get(net) ?? []).filter((p) => p !== from);
    const far = new Set<NetClass>();
    for (const part of others) {
      // Where a signal comes in, nothing ends.
      if (!isTwoTerminal(part) || part.kind === 'signal') return 'signal';
      const other = this.otherNet(part, net);
      if (Object.values(from.pins).includes(other)) continue;
      far.add(this.classOf(other));
    }
    return far.size === 1 ? [...far][0]! : 'signal';
  }

  /** From a source, an output or along a row into a net where more than one part meets it: a filter or a clipper that goes on, and no divider. */
  private feedsOn(net: string, other: string, part: Part): boolean {
    const isLying = (p: Part) => isTwoTerminal(p) && (this.sheet.at(p.ref)?.turn ?? 0) % 2 === 1;
    const drives = (p: Part) =>
      p.kind === 'signal' || p.kind === 'capsule' || p.pins.out === net || isLying(p);
    const met = (this.byNet.get(other) ?? []).filter(
      (p) => p !== part && !Object.values(part.pins).every((n) => Object.values(p.pins).includes(n)),
    );
    return met.length > 1 && (this.byNet.get(net) ?? []).some(drives);
  }

  /** Hangs what goes from a net to a rail, as soon as the net has its place. */
  private hangShunts(net: string): void {
    const at = this.anchors.get(net)!;
    for (const part of this.unplacedAt(net)) {
      if (!isTwoTerminal(part) || this.figures.waits(part) || this.placeBesideTwin(part)) continue;
      const other = this.otherNet(part, net);
      const isRail = this.classOf(other) !== 'signal';
      // A capacitor into a net that only a resistor holds to ground couples a signal: it lies.
      const kind = isRail
        ? this.classOf(other)
        : part.kind === 'capacitor'
          ? 'signal'
          : this.feedsOn(net, other, part)
            ? 'signal'
            : this.leadsTo(other, part);
      if (kind !== 'signal') this.hang(part, net, at, kind === 'positive rail' ? -1 : 1);
    }
  }

  private follow(net: string): void {
    if (this.done.has(net)) return;
    this.done.add(net);
    const at = this.anchors.get(net)!;
    for (const { ref, room, at: lying } of this.companions.entries.get(net) ?? []) {
      const part = this.byRef.get(ref);
      if (part && !this.sheet.at(ref)) this.standActive(part, net, at, room, lying);
    }
    const open = this.unplacedAt(net);
    const isLed = (part: Part) => [net, undefined].includes(this.controlNet(part));
    const actives = open.filter((p) => !isTwoTerminal(p) && isLed(p) && !this.figures.waits(p));
    for (const part of actives) if (!this.sheet.at(part.ref)) this.standActive(part, net, at);
    for (const part of open) {
      if (
        this.sheet.at(part.ref) !== undefined ||
        !isTwoTerminal(part) ||
        this.figures.waits(part) ||
        this.placeBesideTwin(part)
      )
        continue;
      this.lay(part, net, at);
    }
  }

  /** Two parts across the same two nets stand side by side. */
  private placeBesideTwin(part: Part): boolean {
    if (!isTwoTerminal(part)) return false;
    const nets = Object.values(part.pins);
    const twin = [...(this.byNet.get(nets[0]!) ?? [])].find(
      (p) =>
        p !== part &&
        isTwoTerminal(p) &&
        this.sheet.at(p.ref) !== undefined &&
        nets.every((n) => Object.values(p.pins).includes(n)),
    );
    if (!twin) return false;
    const at = this.sheet.at(twin.ref)!;
    const isSame = Object.values(twin.pins)[0] === nets[0];
    const turn = (isSame ? at.turn : (at.turn + 2) % 4) as Placement['turn'];
    const isLying = at.turn % 2 === 1;
    const steps = Array.from({ length: 14 }, (_, i) => i + 5);
    const offsets = isLying
      ? steps.flatMap((d) => [
          [0, d],
          [0, -d],
        ])
      : steps.map((d) => [d, 0]);
    for (const [dx, dy] of offsets) {
      if (this.tryPut(part, { x: at.x + dx!, y: at.y + dy!, turn, isFlipped: false })) return true;
    }
    return false;
  }

  /** A part from a trunk to a rail: straight above or below, or further right along the trunk. */
  private hang(part: Part, net: string, at: Point, way: 1 | -1): void {
    const isFirst = Object.values(part.pins)[0] === net;
    const turn = (way === 1) === isFirst ? 0 : 2;
    const y = at.y + way * (STUB + SYMBOL_HALF);
    const straight = [0, 1, 2].map((dy) => ({ x: at.x, y: y + way * dy }));
    // Before a device whose control the net is, a few columns to the left are nearer than what is beyond it.
    const before = this.inputs.has(net) ? along(-1, BEFORE_INPUT) : [];
    const beside = [...before, ...along(1, ALONG)].map((dx) => ({ x: at.x + dx, y }));
    const put = [...straight, ...beside].some((place) =>
      this.tryPut(part, { ...place, turn, isFlipped: false }),
    );
    if (!put) this.putAnywhere(part, at);
  }

  /** A part along the signal, lying to the right of its net. */
  private lay(part: Part, net: string, at: Point): void {
    const other = this.otherNet(part, net);
    const isHandedOn = (this.byNet.get(other) ?? []).some(
      (p) => !this.sheet.at(p.ref) && !isTwoTerminal(p) && this.controlNet(p) !== other && p.kind !== 'box',
    );
    // A figure that begins at the other end goes on from there.
    const begins = this.companions.entries.has(other);
    if (this.anchors.has(other) || (isHandedOn && !begins)) return;
    const turn = Object.values(part.pins)[0] === net ? 1 : 3;
    const shelf = cheapest(SHELVES, MARGIN + SYMBOL_HALF, SHELF_COST, (dx, dy) => {
      const place: Placement = { x: at.x + dx, y: at.y + dy, turn, isFlipped: false };
      return this.sheet.isFree(part, place) ? place : undefined;
    });
    if (shelf) this.put(part, shelf);
    else this.putAnywhere(part, at);
    this.hangFresh();
  }

  /** A potentiometer stands with its grounded end down and its end at a supply up; others stand as they are drawn. */
  private uprightTurn(part: Part): Placement['turn'] {
    if (part.kind !== 'potentiometer') return 0;
    const [lower, upper] = [this.classOf(part.pins[1] ?? ''), this.classOf(part.pins[3] ?? '')];
    const isUpsideDown = (upper !== 'signal' && upper !== 'positive rail') || lower === 'positive rail';
    return isUpsideDown ? 2 : 0;
  }

  /** An active part with its control pin on the net's row, to the right of all that hangs there. */
  private standActive(part: Part, net: string, at: Point, room: number = MARGIN, lying?: Entry['at']): void {
    const isFlipped = lying?.isFlipped ?? (part.kind === 'opamp' && part.pins.plus === net);
    const turn = lying?.turn ?? this.uprightTurn(part);
    const pin = pinsAt(part, { x: 0, y: 0, turn, isFlipped }).find((p) => part.pins[p.name] === net);
    // The net's row is where the pin's wire begins.
    const offset = pin ? { x: pin.x, y: pin.y + pin.dy } : { x: 0, y: 0 };
    const isFigure = room > MARGIN;
    const rowCost = isFigure || part.kind === 'opamp' ? FIGURE_ROW_COST : ACTIVE_ROW_COST;
    const placement = cheapest(ACTIVE_ROWS, room, rowCost, (dx, dy) => {
      const place: Placement = { x: at.x + dx - offset.x, y: at.y + dy - offset.y, turn, isFlipped };
      if (isFigure && !this.figures.hasRoom(part, place)) return undefined;
      return this.hasRoomAround(part, place) && this.sheet.isFree(part, place) ? place : undefined;
    });
    if (!placement) return this.putAnywhere(part, at);
    this.put(part, placement);
    this.figures.bring(part, placement, (other, place) => this.put(other, place));
    this.hangFresh();
  }

  /** Leaves room above and below a transistor for what its other two nets will hang there. */
  private hasRoomAround(part: Part, at: Placement): boolean {
    return pinsAt(part, at).every((p) => {
      const net = part.pins[p.name];
      if (net === undefined || p.dy === 0 || this.classOf(net) !== 'signal') return true;
      const near = p.y + p.dy * 2;
      const far = p.y + p.dy * 7;
      const [top, bottom] = [Math.min(near, far), Math.max(near, far)];
      return this.sheet.isBare({ left: p.x - 1, right: p.x + 1, top, bottom });
    });
  }

  private tryPut(part: Part, at: Placement): boolean {
    if (!this.sheet.isFree(part, at)) return false;
    this.put(part, at);
    return true;
  }

  private put(part: Part, at: Placement): void {
    this.sheet.put(part, at);
    // What comes out leads on: a net of a follower's input and output goes on from its output.
    const pins = [...pinsAt(part, at)].sort((a, b) => Number(b.name === 'out') - Number(a.name === 'out'));
    for (const p of pins) {
      const net = part.pins[p.name];
      if (net !== undefined)
        this.anchor(net, { x: p.x + p.dx * (p.dy === 0 ? 2 : 0), y: p.y + p.dy }, p.dx < 0);
    }
  }

  /** Puts a part at the free place nearest to a wished one. */
  private putNear(part: Part, wish: Placement): void {
    const at = this.sheet.nearestFree(part, wish);
    if (at) this.put(part, at);
  }

  private putAnywhere(part: Part, at: Point): void {
    this.putNear(part, { x: at.x + 6, y: at.y + 6, turn: this.uprightTurn(part), isFlipped: false });
  }

  /**
   * One part that is left between nets already reached, or leads on from one: put where its wires are shortest.
   * False when none is left.
   */
  private closeLoop(): boolean {
    const reached = (p: Part) => Object.values(p.pins).filter((n) => this.anchors.has(n)).length;
    const signalPins = (p: Part) => Object.values(p.pins).filter((n) => this.classOf(n) === 'signal').length;
    const open = this.circuit.parts.filter((p) => !this.sheet.at(p.ref) && reached(p) > 0);
    const ready = open.filter((p) => !this.figures.waits(p));
    const isWhole = (p: Part) => reached(p) === signalPins(p);
    const part = ready.find(isWhole) ?? ready[0] ?? open.find(isWhole) ?? open[0];
    if (!part) return false;
    if (this.placeBesideTwin(part)) return true;
    const ends = pinsAt(part, { x: 0, y: 0, turn: 0, isFlipped: false }).flatMap((p) => {
      const net = part.pins[p.name];
      return net !== undefined && this.anchors.has(net) ? [{ pin: p.name, points: this.pointsOf(net) }] : [];
    });
    const turns: Placement['turn'][] = isTwoTerminal(part) ? [1, 3, 0, 2] : [this.uprightTurn(part)];
    const runs = [...this.anchors.keys()].flatMap((net) => straightRuns(this.pointsOf(net)));
    const at = shortestPlace(part, ends, turns, runs, this.sheet);
    if (at) this.put(part, at);
    else this.putAnywhere(part, ends[0]!.points[0]!);
    return true;
  }

  /** Pins of a net that stand already, and its anchor. */
  private pointsOf(net: string): Point[] {
    const points: Point[] = [this.anchors.get(net)!];
    for (const part of this.byNet.get(net) ?? []) {
      const at = this.sheet.at(part.ref);
      if (!at) continue;
      for (const p of pinsAt(part, at))
        if (part.pins[p.name] === net) points.push({ x: p.x + p.dx, y: p.y + p.dy });
    }
    return points;
  }

  /** What stands between rails only, in a column left of the rest. */
  private placeSupplies(): void {
    const rest = this.circuit.parts.filter((p) => !this.sheet.at(p.ref));
    const isEmpty = this.sheet.size === 0;
    let y = 0;
    const x = isEmpty ? 0 : SUPPLY_COLUMN;
    for (const part of rest) {
      const first = Object.values(part.pins)[0];
      const isUpright = first === undefined || this.classOf(first) !== 'ground';
      const placement: Placement = {
        x,
        y,
        turn: isUpright || !isTwoTerminal(part) ? 0 : 2,
        isFlipped: false,
      };
      this.putNear(part, placement);
      y = (this.sheet.at(part.ref)?.y ?? y) + 12;
    }
  }
}

/** Steps away from a place, the nearest first. */
const along = (way: 1 | -1, count: number): readonly number[] =>
  Array.from({ length: count }, (_, i) => way * (i + 1));

/**
 * The place on one of several rows that costs least: a column each, and more for rows farther away.
 *
 * @param place what stands there; undefined where there is no room
 */
function cheapest(
  rows: readonly number[],
  first: number,
  rowCost: number,
  place: (dx: number, dy: number) => Placement | undefined,
): Placement | undefined {
  let best: { readonly at: Placement; readonly cost: number } | undefined;
  for (const dy of rows)
    for (let dx = first; dx < COLUMNS; dx += 1) {
      const cost = dx + rowCost * Math.abs(dy);
      if (best && cost >= best.cost) break;
      const at = place(dx, dy);
      if (at) best = { at, cost };
    }
  return best?.at;
}
