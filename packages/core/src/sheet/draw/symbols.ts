import { KINDS, type Part } from '../../circuit/circuit/index.ts';

/** Drawing units: one is a tenth of an inch of paper at full size; text is 1.2 units tall. */
export interface Point {
  readonly x: number;
  readonly y: number;
}

/** Edges included. */
export interface Box {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** Where a symbol stands. `turn` counts quarter turns against the clock; `isFlipped` mirrors it top to bottom before that. */
export interface Placement {
  readonly x: number;
  readonly y: number;
  readonly turn: 0 | 1 | 2 | 3;
  readonly isFlipped: boolean;
}

export interface SymbolPin extends Point {
  readonly name: string;
  /** Where a wire leaves: one unit in this direction. */
  readonly dx: number;
  readonly dy: number;
}

interface Shape {
  readonly pins: readonly SymbolPin[];
  readonly body: Box;
}

const pin = (name: string, x: number, y: number, dx: number, dy: number): SymbolPin => ({
  name,
  x,
  y,
  dx,
  dy,
});
const box = (left: number, top: number, right: number, bottom: number): Box => ({ left, top, right, bottom });

const twoTerminal = (first: string, second: string): Shape => ({
  pins: [pin(first, 0, -2, 0, -1), pin(second, 0, 2, 0, 1)],
  body: box(-1, -2, 1, 2),
});

const controlled = (control: string, upper: string, lower: string): Shape => ({
  pins: [pin(upper, 1, -2, 0, -1), pin(control, -2, 0, -1, 0), pin(lower, 1, 2, 0, 1)],
  body: box(-2, -2, 2, 2),
});

/** A rectangle with its pins on both sides, for chips and boxes. */
function block(left: readonly string[], right: readonly string[]): Shape {
  const rows = Math.max(left.length, right.length, 1);
  const top = -(rows - 1);
  const side = (names: readonly string[], x: number, dx: number) =>
    names.map((name, i) => pin(name, x, top + 2 * i, dx, 0));
  return { pins: [...side(left, -4, -1), ...side(right, 4, 1)], body: box(-4, top - 1, 4, rows) };
}

const OPAMP: Shape = {
  pins: [
    pin('plus', -3, 1, -1, 0),
    pin('minus', -3, -1, -1, 0),
    pin('out', 3, 0, 1, 0),
    pin('vplus', 0, -2, 0, -1),
    pin('vminus', 0, 2, 0, 1),
  ],
  body: box(-3, -2, 3, 2),
};
const POTENTIOMETER: Shape = {
  pins: [pin('1', 0, 2, 0, 1), pin('2', 2, 0, 1, 0), pin('3', 0, -2, 0, -1)],
  body: box(-1, -2, 2, 2),
};
const TRANSFORMER: Shape = {
  pins: [pin('p1', -2, -2, -1, 0), pin('p2', -2, 2, -1, 0), pin('s1', 2, -2, 1, 0), pin('s2', 2, 2, 1, 0)],
  body: box(-2, -3, 2, 3),
};
const PENTODE: Shape = {
  pins: [pin('a', 1, -2, 0, -1), pin('g2', -2, -1, -1, 0), pin('g', -2, 1, -1, 0), pin('k', 1, 2, 0, 1)],
  body: box(-2, -2, 2, 2),
};

const REGULATOR: Shape = {
  pins: [pin('in', -4, 0, -1, 0), pin('out', 4, 0, 1, 0), pin('gnd', 0, 2, 0, 1)],
  body: box(-4, -1, 4, 2),
};
const CHANGEOVER: Shape = {
  pins: [pin('com', -2, 0, -1, 0), pin('a', 2, -1, 1, 0), pin('b', 2, 1, 1, 0)],
  body: box(-2, -2, 2, 2),
};

/** Pins of the left side of a chip or box that has an order of its own; the rest of its pins are on the right. */
const LEFT_PINS: Partial<Record<Part['kind'], readonly string[]>> = {
  timer555: ['reset', 'trig', 'thr', 'ctrl'],
  relay: ['coilA', 'coilB'],
  jack: ['sleeve'],
};
/** Right side, where the order from top to bottom is not that of the definition. */
const RIGHT_PINS: Partial<Record<Part['kind'], readonly string[]>> = {
  timer555: ['vcc', 'out', 'dis', 'gnd'],
  relay: ['nc', 'com', 'no'],
  jack: ['tip', 'tipSwitch', 'ring', 'ringSwitch'],
};

export interface BlockPins {
  readonly left: readonly string[];
  readonly right: readonly string[];
}

/** Connected pins of a part that is drawn as a rectangle, each side from the top down; undefined for other symbols. */
export function blockPins(part: Part): BlockPins | undefined {
  const names = Object.keys(part.pins);
  if (part.kind === 'box' || part.kind === 'clock') {
    const half = Math.ceil(names.length / 2);
    return { left: names.slice(0, half), right: names.slice(half) };
  }
  const [left, right] = [LEFT_PINS[part.kind], RIGHT_PINS[part.kind]];
  if (!left || !right) return undefined;
  const isThere = (name: string) => names.includes(name);
  return { left: left.filter(isThere), right: right.filter(isThere) };
}

/** A flipped amplifier has its inputs exchanged; its supply pins stay up and down. */
const OPAMP_PLUS_UP: Shape = {
  ...OPAMP,
  pins: OPAMP.pins.map((p) => (p.name === 'plus' || p.name === 'minus' ? { ...p, y: -p.y } : p)),
};

function shapeOf(part: Part, isFlipped: boolean): Shape {
  const rectangle = blockPins(part);
  if (rectangle) return block(rectangle.left, rectangle.right);
  const pins = KINDS[part.kind].pins;
  switch (part.kind) {
    case 'bjt':
      // A pnp stands with its emitter up, where its supply is.
      return part.polarity === 'pnp' ? controlled('b', 'e', 'c') : controlled('b', 'c', 'e');
    case 'jfet':
    case 'mosfet':
      return part.polarity === 'p' ? controlled('g', 's', 'd') : controlled('g', 'd', 's');
    case 'triode':
      return controlled('g', 'a', 'k');
    case 'pentode':
      return PENTODE;
    case 'opamp': {
      const { pins, body } = isFlipped ? OPAMP_PLUS_UP : OPAMP;
      return { pins: pins.filter((p) => p.name in part.pins), body };
    }
    case 'potentiometer':
      return POTENTIOMETER;
    case 'transformer':
      return TRANSFORMER;
    case 'regulator':
      return REGULATOR;
    case 'changeover':
      return CHANGEOVER;
    default:
      return twoTerminal(pins[0]!, pins[1]!);
  }
}

/** True for symbols with two ends that can lie or stand. */
export const isTwoTerminal = (part: Part): boolean => !blockPins(part) && KINDS[part.kind].pins.length === 2;

/** The pin that steers an active part, and so stands on its left. */
export const CONTROL_PINS: readonly string[] = [
  'b',
  'g',
  'plus',
  'minus',
  'trig',
  'thr',
  'in',
  'com',
  'coilA',
];

const turned = (x: number, y: number, turn: number): Point => {
  if (turn === 1) return { x: y, y: -x };
  if (turn === 2) return { x: -x, y: -y };
  return turn === 3 ? { x: -y, y: x } : { x, y };
};

function place(x: number, y: number, at: Placement): Point {
  return turned(x, at.isFlipped ? -y : y, at.turn);
}

/** The placement that geometry is turned by: an amplifier's flip is in its shape already. */
const frameOf = (part: Part, at: Placement): Placement =>
  part.kind === 'opamp' ? { ...at, isFlipped: false } : at;

/** Pins of a part's symbol where it stands. */
export function pinsAt(part: Part, at: Placement): SymbolPin[] {
  const frame = frameOf(part, at);
  return shapeOf(part, at.isFlipped).pins.map((p) => {
    const to = place(p.x, p.y, frame);
    const way = place(p.dx, p.dy, frame);
    return { name: p.name, x: at.x + to.x, y: at.y + to.y, dx: way.x + 0, dy: way.y + 0 };
  });
}

/** The symbol's own box where it stands, without its text. */
export function bodyAt(part: Part, at: Placement): Box {
  const { body } = shapeOf(part, at.isFlipped);
  const a = place(body.left, body.top, at);
  const b = place(body.right, body.bottom, at);
  return {
    left: at.x + Math.min(a.x, b.x),
    right: at.x + Math.max(a.x, b.x),
    top: at.y + Math.min(a.y, b.y),
    bottom: at.y + Math.max(a.y, b.y),
  };
}

/** Height and width of a character of label text, in drawing units: a fixed-pitch face of 1.2 units. */
export const TEXT_HEIGHT = 1.2;
export const CHARACTER_WIDTH = 0.72;
/** Room kept for a label, in characters, so that another value or layer does not move the drawing. */
const LEAST_CHARACTERS = 4;

export interface Label {
  readonly text: string;
  readonly x: number;
  /** Baseline. */
  readonly y: number;
  readonly anchor: 'start' | 'middle' | 'end';
  readonly box: Box;
}

/** Symbols with pins on both sides: their text stands above. */
const LABELLED_ABOVE: ReadonlySet<Part['kind']> = new Set([
  'opamp',
  'transformer',
  'regulator',
  'changeover',
]);

/** Designator and value beside a symbol: to the right of a standing one, above and below a lying one. */
export function labelsAt(part: Part, at: Placement, texts: readonly [ref: string, value: string]): Label[] {
  const body = bodyAt(part, at);
  const isLying = isTwoTerminal(part) && at.turn % 2 === 1;
  const isBlock = LABELLED_ABOVE.has(part.kind) || blockPins(part) !== undefined;
  const width = (text: string) => Math.max(LEAST_CHARACTERS, text.length) * CHARACTER_WIDTH;
  const label = (text: string, x: number, y: number, anchor: Label['anchor']): Label => {
    const w = width(text);
    const left = anchor === 'start' ? x : anchor === 'middle' ? x - w / 2 : x - w;
    return { text, x, y, anchor, box: { left, right: left + w, top: y - TEXT_HEIGHT, bottom: y + 0.25 } };
  };
  const [ref, value] = texts;
  if (isLying) {
    return [
      label(ref, at.x, body.top - 0.3, 'middle'),
      label(value, at.x, body.bottom + TEXT_HEIGHT + 0.1, 'middle'),
    ];
  }
  if (isBlock) {
    const x = part.kind === 'opamp' ? at.x + 2.4 : body.left;
    const y = part.kind === 'opamp' ? body.bottom + 0.2 : body.top - 1.75;
    const isOpamp = part.kind === 'opamp';
    return [
      label(ref, x, isOpamp ? body.top + 0.2 : y, 'start'),
      label(value, x, isOpamp ? y + TEXT_HEIGHT : y + 1.3, 'start'),
    ];
  }
  if (part.kind === 'potentiometer' && at.turn % 2 === 1) {
    // Lying: on the side where the wiper is not.
    const isWiperUp = pinsAt(part, at).some((p) => p.dy < 0);
    const y = isWiperUp ? body.bottom + TEXT_HEIGHT + 0.1 : body.top - 0.4 - TEXT_HEIGHT;
    return [label(ref, at.x, y, 'middle'), label(value, at.x, y + TEXT_HEIGHT + 0.1, 'middle')];
  }
  if (part.kind === 'potentiometer') {
    const isWiperRight = !at.isFlipped && at.turn === 0;
    const x = isWiperRight ? body.left - 0.4 : body.right + 0.4;
    const anchor = isWiperRight ? 'end' : 'start';
    return [label(ref, x, at.y - 0.3, anchor), label(value, x, at.y + 1.1, anchor)];
  }
  // Where a wire leaves to the right, as from the base of one that is mirrored, the text stands at the left.
  const isTurned = !isTwoTerminal(part) && pinsAt(part, at).some((p) => p.dx > 0);
  const [x, anchor] = isTurned ? ([body.left - 0.4, 'end'] as const) : ([body.right + 0.4, 'start'] as const);
  return [label(ref, x, at.y - 0.2, anchor), label(value, x, at.y + 1.2, anchor)];
}
