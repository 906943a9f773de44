import type { Circuit, Part } from '../circuit/index.ts';
import { figuresOf, type Figure } from '../figures/index.ts';
import { isPType } from '../models/index.ts';
import type { Placement } from './symbols.ts';

/** A part that stands in a fixed place beside another, as the trade draws their figure. */
export interface Companion {
  readonly ref: string;
  /** Where, beside the one it goes with, nearest first; the first that is free is taken. */
  readonly places: (leader: Placement) => readonly Placement[];
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

/** Columns from an opamp back to what leads into it, and how many are tried. */
const BEFORE = 13;
const BEFORE_TRIED = 4;
/** Columns back, and rows down, to what stands under the lower input, and how many rows are tried. */
const UNDER = 8;
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

const FEEDBACK: readonly (readonly [figure: string, roles: readonly string[]])[] = [
  ['inverting', ['RF', 'CF']],
  ['non-inverting', ['RF', 'CF']],
  ['integrator', ['C']],
  ['all-pass', ['R2']],
];

/**
 * What stands where beside what, by the figures of a circuit: feedback over its opamp and parallel to it, on the side of the
 * inverting input; the two of a pair mirrored about their tail; complementary devices stacked with their resistors between.
 *
 */
export function companionsOf(circuit: Circuit): Companions {
  const parts = new Map(circuit.parts.map((p) => [p.ref, p]));
  const found = new Map<string, Companion[]>();
  const kept = new Map<string, number>();
  const entries = new Map<string, Entry[]>();
  const add = (leader: string, companion: Companion) => {
    const known = found.get(leader);
    if (known) known.push(companion);
    else found.set(leader, [companion]);
  };
  for (const figure of figuresOf(circuit)) {
    const role = (name: string) => parts.get(figure.roles.get(name) ?? '');
    const fed = FEEDBACK.find(([id]) => id === figure.id)?.[1] ?? [];
    const chip = role('U');
    if (chip)
      for (const name of fed) {
        const part = role(name);
        if (part) add(chip.ref, over(part, figure));
      }
    if (figure.id === 'all-pass' && chip) {
      const input = figure.nets.get('in')!;
      const [foot, device] = [role('R3'), role('J')];
      const back = device ? BEFORE + DEVICE_ROOM : BEFORE;
      entries.set(input, [...(entries.get(input) ?? []), { ref: chip.ref, room: back + ENTRY_ROOM }]);
      kept.set(chip.ref, back);
      add(chip.ref, before(role('R1')!, input, back, -OVER));
      add(chip.ref, before(role('C')!, input, back, 1));
      if (foot)
        add(chip.ref, below(foot, UNDER, Object.values(foot.pins)[0] === figure.nets.get('p') ? 0 : 2));
      if (device) add(chip.ref, below(device, UNDER + DEVICE_ROOM, 0));
    }
    if (figure.id === 'bass-control' || figure.id === 'treble-control') {
      const isBass = figure.id === 'bass-control';
      const knob = role('P')!;
      const entry = { ref: knob.ref, room: isBass ? ARCH_ROOM : KNOB_ROOM, at: WIPER_UP };
      const net = figure.nets.get('a')!;
      entries.set(net, [...(entries.get(net) ?? []), entry]);
      if (isBass) {
        add(knob.ref, arched(role('C1')!, -1, figure.nets.get('a')!));
        add(knob.ref, arched(role('C2')!, 1, figure.nets.get('w')!));
      }
    }
    if (figure.id === 'vbe-multiplier') {
      const [device, upper, lower] = [role('Q')!, role('R1')!, role('R2')!];
      for (const letter of ['top', 'low']) {
        const net = figure.nets.get(letter)!;
        entries.set(net, [...(entries.get(net) ?? []), { ref: device.ref, room: DIVIDER + DIVIDER_ROOM }]);
      }
      const base = figure.nets.get('b');
      add(device.ref, beside(upper, -DIVIDER_ROWS, upper.pins.b === base));
      add(device.ref, beside(lower, DIVIDER_ROWS, lower.pins.a === base));
    }
    if (figure.id === 'long-tailed-pair') {
      const [one, other] = [role('Q1')!, role('Q2')!];
      add(one.ref, mirrored(other));
      add(other.ref, mirrored(one));
    }
    if (figure.id === 'complementary-output' || figure.id === 'complementary-drivers')
      for (const [leader, companion] of stacked(circuit, figure, role)) add(leader, companion);
  }
  return { byLeader: found, entries, kept };
}

/** Lying so many columns to the left of an opamp, its end at the input on the left, so many rows below its middle. */
const before = (part: Part, input: string, columns: number, rows: number): Companion => ({
  ref: part.ref,
  places: ({ x, y }) =>
    Array.from({ length: BEFORE_TRIED }, (_, i) => ({
      x: x - columns - i,
      y: y + rows,
      turn: Object.values(part.pins)[0] === input ? 1 : 3,
      isFlipped: false,
    })),
});

/** Standing under what leads into an opamp's other input, so many columns to the left of it. */
const below = ({ ref }: Part, columns: number, turn: Placement['turn']): Companion => ({
  ref,
  places: ({ x, y }) =>
    Array.from({ length: UNDER_TRIED }, (_, i) => ({
      x: x - columns,
      y: y + 1 + UNDER_ROWS + i,
      turn,
      isFlipped: false,
    })),
});

/** Standing to the left of a transistor, above or below the row of its base. */
const beside = ({ ref }: Part, rows: number, isUpright: boolean): Companion => ({
  ref,
  places: ({ x, y }) =>
    Array.from({ length: BEFORE_TRIED }, (_, i) => ({
      x: x - DIVIDER - i,
      y: y + rows,
      turn: isUpright ? 0 : 2,
      isFlipped: false,
    })),
});

/** Lying over one half of a potentiometer, the end at a net to the left. */
const arched = (part: Part, side: 1 | -1, left: string): Companion => ({
  ref: part.ref,
  places: ({ x, y }) =>
    Array.from({ length: ARCH_TRIED }, (_, i) => ({
      x: x + side * ARCH_ASIDE,
      y: y - ARCH_ROWS - i,
      turn: Object.values(part.pins)[0] === left ? 1 : 3,
      isFlipped: false,
    })),
});

/** Lying over an opamp, on the side of its inverting input, its end at that input to the left. */
function over(part: Part, { nets }: Figure): Companion {
  const turn = Object.values(part.pins)[0] === nets.get('m') ? 1 : 3;
  return {
    ref: part.ref,
    places: ({ x, y, isFlipped }) =>
      Array.from({ length: OVER_TRIED }, (_, i) => ({
        x,
        y: y + (isFlipped ? 1 : -1) * (OVER + i),
        turn,
        isFlipped: false,
      })),
  };
}

/** On the same row, the other way round. */
const mirrored = ({ ref }: Part): Companion => ({
  ref,
  places: ({ x, y, turn }) =>
    Array.from({ length: APART_TRIED }, (_, i) =>
      turn === 0
        ? { x: x + APART + i, y, turn: 2, isFlipped: true }
        : { x: x - APART - i, y, turn: 0, isFlipped: false },
    ),
});

/** Below or above one another: the transistor that is put first, its resistor, the other resistor, the other transistor. */
function* stacked(
  circuit: Circuit,
  { nets }: Figure,
  role: (name: string) => Part | undefined,
): Generator<readonly [string, Companion]> {
  const [high, low] = [role('QN')!, role('QP')!];
  const resistors = [role('RN'), role('RP')].filter((p) => p !== undefined);
  // Two of one polarity, one of them turned about by its driver, have their emitters on the same side.
  if (isPType(high, circuit.models) || !isPType(low, circuit.models)) return;
  for (const [leader, way] of [
    [high, 1],
    [low, -1],
  ] as const) {
    const inOrder = way === 1 ? resistors : [...resistors].reverse();
    const chain = [...inOrder, leader === high ? low : high];
    for (const [i, part] of chain.entries()) {
      const isResistor = part.kind === 'resistor';
      const isUpright =
        part === role('RN') ? part.pins.a === nets.get('en') : part.pins.a === nets.get('out');
      yield [
        leader.ref,
        {
          ref: part.ref,
          places: ({ x, y }) =>
            Array.from({ length: STACK_TRIED }, (_, slack) => ({
              x: isResistor ? x + 1 : x,
              y: y + way * ((i + 1) * STACKED + (resistors.length === 0 ? 2 : 0) + slack),
              turn: isResistor && !isUpright ? 2 : 0,
              isFlipped: false,
            })),
        },
      ];
    }
  }
}
