import { touching, type Circuit, type Part } from '../../circuit/circuit/index.ts';
import { figuresOf, type Figure } from '../../circuit/figures/index.ts';
import { isPType } from '../../circuit/models/index.ts';
import { isTwoTerminal, type Placement } from './symbols.ts';

/** Where a part has been put; undefined where it has not. */
export type Placed = (ref: string) => Placement | undefined;

/** A part that stands in a fixed place beside another, as the trade draws their figure. */
export interface Companion {
  readonly ref: string;
  /** Where, beside the one it goes with and what was put before it, nearest first; the first that is free is taken. */
  readonly places: (leader: Placement, placed: Placed) => readonly Placement[];
}

/** Rows between an opamp and what is fed back over it, and how many are tried. */
const OVER = 11;
const OVER_TRIED = 12;
/** Columns between the two of a pair, and how many are tried. */
const APART = 10;
const APART_TRIED = 12;
/** Rows from an emitter's transistor to its resistor, between the two resistors, and on to the other transistor. */
const STACKED = 7;
const STACK_TRIED = 5;
/** Rows more where no resistors lie between. */
const BARE = 2;

/** Columns from an opamp back to what leads into it, and how many are tried. */
const BEFORE = 9;
const BEFORE_TRIED = 4;
/** Columns back, and rows down, to what stands under the lower input, and how many rows are tried. */
const UNDER = 7;
const UNDER_ROWS = 4;
const UNDER_TRIED = 10;
/** Columns between the net that a stage begins at and what leads into it. */
const ENTRY_ROOM = 7;
/** Columns that a device under the lower input takes, its control at its left. */
const DEVICE_ROOM = 10;

/** Columns from a transistor back to the divider at its base, rows up and down to its resistors, and room before them. */
const DIVIDER = 10;
const DIVIDER_ROWS = 4;
const DIVIDER_ROOM = 4;

/** A potentiometer lying with its first end to the left and its wiper up. */
const WIPER_UP = { turn: 1, isFlipped: true } as const;
/** Rows up and columns aside to the capacitors over a potentiometer, how many rows are tried, and room before it. */
const ARCH_ROWS = 8;
const ARCH_ASIDE = 5;
const ARCH_TRIED = 4;
const ARCH_ROOM = 9;
const KNOB_ROOM = 5;
/** Columns from a potentiometer to the capacitors before and behind it. */
const SIDE_COLUMNS = 9;

/** Columns between the halves of a bridge, rows between what is over and under in one, and room before it. */
const BRIDGE_COLUMNS = 12;
const BRIDGE_ROWS = 10;
const BRIDGE_ROOM = 6;

/** A part that is put when a net is reached which leads into its figure. */
export interface Entry {
  readonly ref: string;
  /** Columns from the net to it. */
  readonly room: number;
  /** How it lies, where it does not stand as usual. */
  readonly at?: Pick<Placement, 'turn' | 'isFlipped'>;
}

/** What stands beside what, and which figures begin at a net. */
export interface Companions {
  /** By the part that is put first. */
  readonly byLeader: ReadonlyMap<string, readonly Companion[]>;
  /** Parts that are put when a net is reached which leads into their figure by its other parts. */
  readonly entries: ReadonlyMap<string, readonly Entry[]>;
  /** Columns to the left of a part that are kept free for the wires of its figure. */
  readonly kept: ReadonlyMap<string, number>;
}

/**
 * What stands where beside what, by the figures of a circuit: feedback over its opamp and parallel to it, on the side of the
 * inverting input; equal stages in one shape; the two of a pair mirrored about their tail; complementary devices stacked with
 * their resistors between; dividers beside what they bias.
 */
export function companionsOf(circuit: Circuit): Companions {
  const composer = new Composer(circuit);
  for (const figure of figuresOf(circuit))
    SHAPES.get(figure.id)?.(new FigureParts(circuit, figure), composer);
  return composer;
}

/** The parts and nets of a figure. */
class FigureParts {
  private readonly parts: ReadonlyMap<string, Part>;
  private readonly figure: Figure;

  constructor(circuit: Circuit, figure: Figure) {
    this.figure = figure;
    this.parts = new Map(circuit.parts.filter((p) => figure.refs.includes(p.ref)).map((p) => [p.ref, p]));
  }

  /** A part that every figure of its kind has. */
  part(role: string): Part {
    return this.maybe(role)!;
  }

  maybe(role: string): Part | undefined {
    return this.parts.get(this.figure.roles.get(role) ?? '');
  }

  net(letter: string): string {
    return this.figure.nets.get(letter)!;
  }

  /** How a part lies with its end at a net to the left. */
  lying(part: Part, letter: string): Placement['turn'] {
    return this.isFirst(part, letter) ? 1 : 3;
  }

  /** How a part stands with its end at a net up. */
  standing(part: Part, letter: string): Placement['turn'] {
    return this.isFirst(part, letter) ? 0 : 2;
  }

  private isFirst({ pins }: Part, letter: string): boolean {
    return Object.values(pins)[0] === this.net(letter);
  }
}

/** Gathers what stands beside what. */
class Composer implements Companions {
  readonly byLeader = new Map<string, Companion[]>();
  readonly entries = new Map<string, Entry[]>();
  readonly kept = new Map<string, number>();
  readonly circuit: Circuit;

  constructor(circuit: Circuit) {
    this.circuit = circuit;
  }

  /** So many places for a part beside its leader, nearest first. */
  put(
    leader: Part,
    { ref }: Part,
    tried: number,
    place: (leader: Placement, i: number, placed: Placed) => Placement | undefined,
  ): void {
    const companion: Companion = {
      ref,
      places: (at, placed) => Array.from({ length: tried }, (_, i) => place(at, i, placed) ?? []).flat(),
    };
    this.byLeader.set(leader.ref, [...(this.byLeader.get(leader.ref) ?? []), companion]);
  }

  enter(net: string, entry: Entry): void {
    this.entries.set(net, [...(this.entries.get(net) ?? []), entry]);
  }
}

type Shape = (figure: FigureParts, composer: Composer) => void;

/** Lying over an opamp, on the side of its inverting input, the end at that input to the left. */
const feedback =
  (...roles: readonly string[]): Shape =>
  (figure, composer) => {
    for (const role of roles) {
      const part = figure.maybe(role);
      if (!part) continue;
      const turn = figure.lying(part, 'm');
      composer.put(figure.part('U'), part, OVER_TRIED, ({ x, y, isFlipped }, i) => ({
        x,
        y: y + (isFlipped ? 1 : -1) * (OVER + i),
        turn,
        isFlipped: false,
      }));
    }
  };

/** Both resistors in one line over the opamp, the capacitor in line with its other input, what goes down from there under it. */
const allPass: Shape = (figure, composer) => {
  feedback('R2')(figure, composer);
  const chip = figure.part('U');
  const [foot, device] = [figure.maybe('R3'), figure.maybe('J')];
  const back = device ? BEFORE + DEVICE_ROOM : BEFORE;
  composer.enter(figure.net('in'), { ref: chip.ref, room: back + ENTRY_ROOM });
  composer.kept.set(chip.ref, back);
  for (const [role, rows] of [
    ['R1', -OVER],
    ['C', 1],
  ] as const) {
    const part = figure.part(role);
    const turn = figure.lying(part, 'in');
    composer.put(chip, part, BEFORE_TRIED, ({ x, y }, i) => ({
      x: x - back - i,
      y: y + rows,
      turn,
      isFlipped: false,
    }));
  }
  const under = (part: Part, columns: number, turn: Placement['turn']) =>
    composer.put(chip, part, UNDER_TRIED, ({ x, y }, i) => ({
      x: x - columns,
      y: y + 1 + UNDER_ROWS + i,
      turn,
      isFlipped: false,
    }));
  if (foot) under(foot, UNDER, figure.standing(foot, 'p'));
  if (device) under(device, UNDER + DEVICE_ROOM, 0);
};

/** The track along the signal, a capacitor over each of its halves. */
const bassControl: Shape = (figure, composer) => {
  const knob = figure.part('P');
  composer.enter(figure.net('a'), { ref: knob.ref, room: ARCH_ROOM, at: WIPER_UP });
  for (const [role, side, left] of [
    ['C1', -1, 'a'],
    ['C2', 1, 'w'],
  ] as const) {
    const part = figure.part(role);
    const turn = figure.lying(part, left);
    composer.put(knob, part, ARCH_TRIED, ({ x, y }, i) => ({
      x: x + side * ARCH_ASIDE,
      y: y - ARCH_ROWS - i,
      turn,
      isFlipped: false,
    }));
  }
};

/** The track along the signal, a capacitor before it and one behind. */
const trebleControl: Shape = (figure, composer) => {
  const knob = figure.part('P');
  composer.enter(figure.net('in'), { ref: knob.ref, room: SIDE_COLUMNS + KNOB_ROOM, at: WIPER_UP });
  for (const [role, side, left] of [
    ['C1', -1, 'in'],
    ['C2', 1, 'b'],
  ] as const) {
    const part = figure.part(role);
    const turn = figure.lying(part, left);
    composer.put(knob, part, ARCH_TRIED, ({ x, y }, i) => ({
      x: x + side * (SIDE_COLUMNS + i),
      y,
      turn,
      isFlipped: false,
    }));
  }
};

/** The divider stands to the left, one resistor over the row of the base and one under. */
const vbeMultiplier: Shape = (figure, composer) => {
  const device = figure.part('Q');
  for (const letter of ['top', 'low'])
    composer.enter(figure.net(letter), { ref: device.ref, room: DIVIDER + DIVIDER_ROOM });
  for (const [role, rows, up] of [
    ['R1', -DIVIDER_ROWS, 'top'],
    ['R2', DIVIDER_ROWS, 'b'],
  ] as const) {
    const part = figure.part(role);
    const turn = figure.standing(part, up);
    composer.put(device, part, BEFORE_TRIED, ({ x, y }, i) => ({
      x: x - DIVIDER - i,
      y: y + rows,
      turn,
      isFlipped: false,
    }));
  }
};

/** Two on one row, the second the other way round, whichever is put first. */
const pair: Shape = (figure, composer) => {
  const [one, other] = [figure.part('Q1'), figure.part('Q2')];
  for (const [leader, companion] of [
    [one, other],
    [other, one],
  ] as const)
    composer.put(leader, companion, APART_TRIED, ({ x, y, turn }, i) =>
      turn === 0
        ? { x: x + APART + i, y, turn: 2, isFlipped: true }
        : { x: x - APART - i, y, turn: 0, isFlipped: false },
    );
};

/** Columns from a transistor to the one over it that faces the other way, so that their collectors are in line. */
const FACING = 2;

/** A mirror that loads a pair: over it, each in line with its own, on one row, the bases towards each other. */
const mirror: Shape = (figure, composer) => {
  const [one, other] = [figure.part('Q1'), figure.part('Q2')];
  const { parts, models } = composer.circuit;
  const loadedBy = (net: string) =>
    parts.find((p) => p.kind === 'bjt' && p !== one && p !== other && p.pins.c === net);
  const [first, second] = [loadedBy(figure.net('b')), loadedBy(figure.net('out'))];
  if (!first || !second) return;
  const way = isPType(one, models) ? -1 : 1;
  const facing = ({ x, turn }: Placement, y: number): Placement => ({
    x: turn === 0 ? x + FACING : x - FACING,
    y,
    turn: turn === 0 ? 2 : 0,
    isFlipped: turn === 0,
  });
  for (const [leader, own, beside, its] of [
    [first, one, second, other],
    [second, other, first, one],
  ] as const) {
    composer.put(leader, own, STACK_TRIED, (at, i) => facing(at, at.y + way * (STACKED + BARE + i)));
    composer.put(leader, its, 1, (_, __, placed) => {
      const [under, row] = [placed(beside.ref), placed(own.ref)];
      return under && row && facing(under, row.y);
    });
  }
};

/** Both resistors of a load in line over the collector that they feed. */
const bootstrap: Shape = (figure, composer) => {
  const { parts, models } = composer.circuit;
  const device = parts.find((p) => p.kind === 'bjt' && p.pins.c === figure.net('x'));
  if (!device || isPType(device, models)) return;
  const chain = [
    [figure.part('R2'), 'm'],
    [figure.part('R1'), 'rail'],
  ] as const;
  for (const [k, [part, up]] of chain.entries()) {
    const turn = figure.standing(part, up);
    composer.put(device, part, STACK_TRIED, ({ x, y, turn: stands }, i) =>
      stands === 0 ? { x: x + 1, y: y - (k + 1) * STACKED - i, turn, isFlipped: false } : undefined,
    );
  }
};

/** The second straight over the first, collector to emitter; of the other polarity it is under it. */
const cascode: Shape = (figure, composer) => {
  const [lower, upper] = [figure.part('Q1'), figure.part('Q2')];
  const way = isPType(lower, composer.circuit.models) ? 1 : -1;
  for (const [leader, companion, direction] of [
    [lower, upper, way],
    [upper, lower, -way],
  ] as const)
    composer.put(leader, companion, STACK_TRIED, ({ x, y, turn, isFlipped }, slack) => ({
      x,
      y: y + direction * (STACKED + BARE + slack),
      turn,
      isFlipped,
    }));
};

/** Below or above one another: the transistor that is put first, its resistor, the other resistor, the other transistor. */
const stack: Shape = (figure, composer) => {
  const [high, low] = [figure.part('QN'), figure.part('QP')];
  const { models } = composer.circuit;
  // Two of one polarity, one of them turned about by its driver, have their emitters on the same side.
  if (isPType(high, models) || !isPType(low, models)) return;
  const [upper, lower] = [figure.maybe('RN'), figure.maybe('RP')];
  const between = upper && lower ? [upper, lower] : [];
  const turns = new Map([
    ...(upper ? [[upper, figure.standing(upper, 'en')] as const] : []),
    ...(lower ? [[lower, figure.standing(lower, 'out')] as const] : []),
  ]);
  const first = between.length === 0 ? STACKED + BARE : STACKED;
  for (const [leader, way, chain] of [
    [high, 1, [...between, low]],
    [low, -1, [...[...between].reverse(), high]],
  ] as const)
    chain.forEach((part, k) => {
      const turn = turns.get(part);
      composer.put(leader, part, STACK_TRIED, ({ x, y }, slack) => ({
        x: turn === undefined ? x : x + 1,
        y: y + way * (first + k * STACKED + slack),
        turn: turn ?? 0,
        isFlipped: false,
      }));
    });
};

/** The last of an amplifier: what it drives stands beside it, in the row of the lower device's resistor, and not where its net was first reached. */
const output: Shape = (figure, composer) => {
  stack(figure, composer);
  const { circuit } = composer;
  const out = figure.net('out');
  const hasResistors = figure.maybe('RN') !== undefined && figure.maybe('RP') !== undefined;
  for (const [leader, rows] of [
    [figure.part('QN'), hasResistors ? 2 * STACKED : STACKED],
    [figure.part('QP'), hasResistors ? -STACKED : -BARE],
  ] as const)
    loadsAt(circuit, out).forEach((part, k) => {
      const turn = Object.values(part.pins)[0] === out ? 0 : 2;
      composer.put(leader, part, APART_TRIED, ({ x, y }, i) => ({
        x: x + (k + 1) * LOAD_COLUMNS + i,
        y: y + rows,
        turn,
        isFlipped: false,
      }));
    });
};

/** Columns from an output to what it drives, and from one of those to the next. */
const LOAD_COLUMNS = 12;

/** What goes from a net to ground, by itself or through one more part: a loudspeaker, the resistor of a Zobel network. */
function loadsAt(circuit: Circuit, net: string): readonly Part[] {
  const byNet = touching(circuit);
  const far = (part: Part, from: string) => Object.values(part.pins).find((n) => n !== from);
  return (byNet.get(net) ?? []).filter((part) => {
    if (!isTwoTerminal(part)) return false;
    const other = far(part, net);
    if (other === circuit.ground) return true;
    const beyond = other === undefined ? [] : (byNet.get(other) ?? []).filter((p) => p !== part);
    return beyond.length === 1 && isTwoTerminal(beyond[0]!) && far(beyond[0]!, other!) === circuit.ground;
  });
}

/**
 * Two half-bridges side by side, what rectifies to the upper net over what rectifies to the lower; the reservoir to the
 * right of them, between both.
 */
const bridge: Shape = (figure, composer) => {
  const leader = figure.part('D1');
  const turn = figure.standing(leader, 'top');
  composer.enter(figure.net('x'), { ref: leader.ref, room: BRIDGE_ROOM, at: { turn, isFlipped: false } });
  for (const [role, column, row, up] of [
    ['D3', 0, 1, 'x'],
    ['D2', 1, 0, 'top'],
    ['D4', 1, 1, 'y'],
    ['C', 2, 0.5, 'top'],
  ] as const) {
    const part = figure.maybe(role);
    if (!part) continue;
    const stands = figure.standing(part, up);
    composer.put(leader, part, APART_TRIED, ({ x, y }, i) => ({
      x: x + column * BRIDGE_COLUMNS + (column > 0 ? i : 0),
      y: y + row * BRIDGE_ROWS + (column > 0 ? 0 : i),
      turn: stands,
      isFlipped: false,
    }));
  }
};

/** How figures are drawn; those that are not here are placed by following the signal. */
const SHAPES: ReadonlyMap<string, Shape> = new Map([
  ['inverting', feedback('RF', 'CF')],
  ['non-inverting', feedback('RF', 'CF')],
  ['integrator', feedback('C')],
  ['all-pass', allPass],
  ['bass-control', bassControl],
  ['treble-control', trebleControl],
  ['vbe-multiplier', vbeMultiplier],
  ['long-tailed-pair', pair],
  ['current-mirror', mirror],
  ['cascode', cascode],
  ['bootstrap', bootstrap],
  ['complementary-output', output],
  ['complementary-drivers', stack],
  ['bridge-rectifier', bridge],
]);
