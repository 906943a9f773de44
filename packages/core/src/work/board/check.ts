import type { Board, Hole, Wire } from '@zemble/contract';
import { areInTheWay, bodiesMeet, boxesMeet, boxOf, PITCH_MM, whyNotOn } from '../bodies/index.ts';
import type { LayerCircuit } from '../../circuit/circuit/index.ts';
import { Copper } from './copper.ts';
import { belongsOnBoard, readPlaces, wiredRefs, type PlacedBody } from './placed.ts';

/** What is wrong with a board. */
export type BoardCode =
  'short' | 'open' | 'unplaced' | 'shared-hole' | 'off-board' | 'cut-under-pin' | 'overlap' | 'wrong-pins';

export interface BoardProblem {
  readonly code: BoardCode;
  readonly message: string;
  readonly refs?: readonly string[];
  readonly nets?: readonly string[];
  readonly at?: readonly Hole[];
}

/** A board as it compares with its circuit. */
export interface BoardReport {
  readonly ok: boolean;
  readonly problems: readonly BoardProblem[];
  /** Holes whose copper is a net's, by the net; a hole of two nets is a short. */
  readonly nets: ReadonlyMap<string, readonly Hole[]>;
  readonly bodies: readonly PlacedBody[];
  /** What is missing, as the shortest straight lines that would join each net. */
  readonly missing: readonly AirLine[];
}

/** Two holes of a net that nothing joins. */
export interface AirLine {
  readonly net: string;
  readonly from: Hole;
  readonly to: Hole;
}

/** Something in a hole: a pin, an end of a link, a terminal. */
interface Occupant {
  readonly what: string;
  readonly hole: Hole;
  readonly ref?: string;
  readonly net?: string | undefined;
  readonly kind: 'pin' | 'link' | 'terminal';
}

/** A hole in words. */
export const holeWords = ([column, row]: Hole): string => `column ${column}, row ${row}`;

/**
 * Compares a board with the circuit of a layer: every net on one piece of copper, no two nets on one, every part in holes of
 * its own, no body across another. Parts that stand beside the board, and those that a wire reaches, need not be on it.
 *
 * @param wires wires of the wiring map
 */
export function checkBoard(circuit: LayerCircuit, board: Board, wires: readonly Wire[] = []): BoardReport {
  const copper = new Copper(board);
  const { bodies, misread } = readPlaces(circuit, board);
  const occupants = occupantsOf(board, bodies);
  const problems: BoardProblem[] = [
    ...misread.map(({ ref, why, holes }): BoardProblem => ({
      code: 'wrong-pins',
      message: `${why}.`,
      refs: [ref],
      at: holes,
    })),
    ...unknownTerminals(circuit, board),
    ...misfits(bodies),
    ...unplaced(circuit, bodies, wires, new Set(misread.map((m) => m.ref))),
    ...offBoard(copper, board, occupants),
    ...sharedHoles(board, occupants),
    ...cutsUnderPins(copper, occupants),
    ...electrical(copper, occupants),
    ...overlaps(bodies),
  ];
  return {
    ok: problems.length === 0,
    problems,
    nets: netHoles(copper, occupants),
    bodies,
    missing: airLines(copper, occupants),
  };
}

function occupantsOf(board: Board, bodies: readonly PlacedBody[]): readonly Occupant[] {
  const pins = bodies.flatMap((b) =>
    b.pins.map(({ ref, pin, net, hole }): Occupant => ({
      what: `${ref}.${pin}`,
      hole,
      ref,
      net,
      kind: 'pin',
    })),
  );
  const links = board.links.flatMap(({ from, to }) =>
    [from, to].map((hole): Occupant => ({
      what: `the link from ${holeWords(from)}, to ${holeWords(to)}`,
      hole,
      kind: 'link',
    })),
  );
  const terminals = board.terminals.map(({ net, hole, name }): Occupant => ({
    what: `the terminal ${name ?? net}`,
    hole,
    net,
    kind: 'terminal',
  }));
  return [...pins, ...links, ...terminals];
}

const unknownTerminals = (circuit: LayerCircuit, board: Board): BoardProblem[] => {
  const nets = new Set([circuit.ground, ...circuit.parts.flatMap((p) => Object.values(p.pins))]);
  return board.terminals
    .filter(({ net }) => !nets.has(net))
    .map(({ net, hole }) => ({
      code: 'wrong-pins',
      message: `A terminal is of net ${net}, and the circuit has no such net.`,
      nets: [net],
      at: [hole],
    }));
};

function misfits(bodies: readonly PlacedBody[]): BoardProblem[] {
  return bodies.flatMap(({ name, refs, body, pins, misfit }): BoardProblem[] => {
    const at = pins.map((p) => p.hole);
    if (misfit !== undefined)
      return [
        {
          code: 'wrong-pins',
          message:
            misfit === 'mirrored'
              ? `${name} lies as if it were seen from the copper side: its pins go round the wrong way.`
              : `${name} is a dual in-line package, and its pins are not in two rows of their pitch.`,
          refs,
          at,
        },
      ];
    if (body.mounting === 'none') return [];
    const why = whyNotOn(
      body,
      at.map(([c, r]) => ({ x: c * PITCH_MM, y: r * PITCH_MM })),
    );
    return why === undefined ? [] : [{ code: 'wrong-pins', message: `${name} ${why}.`, refs, at }];
  });
}

function unplaced(
  circuit: LayerCircuit,
  bodies: readonly PlacedBody[],
  wires: readonly Wire[],
  misread: ReadonlySet<string>,
): BoardProblem[] {
  const placed = new Set(bodies.flatMap((b) => b.refs));
  const wired = wiredRefs(circuit, wires);
  return circuit.parts
    .filter((p) => belongsOnBoard(p, wired) && !placed.has(p.ref) && !misread.has(p.ref))
    .map(({ ref }) => ({ code: 'unplaced', message: `${ref} is not on the board yet.`, refs: [ref] }));
}

function offBoard(copper: Copper, board: Board, occupants: readonly Occupant[]): BoardProblem[] {
  const size = `which has ${copper.columns} columns and ${copper.rows} rows`;
  const outside = occupants
    .filter((o) => !copper.isOn(o.hole))
    .map(({ what, hole, ref, net }): BoardProblem => ({
      code: 'off-board',
      message: `${sentence(what)} is at ${holeWords(hole)}, outside the board, ${size}.`,
      ...(ref === undefined ? {} : { refs: [ref] }),
      ...(net === undefined ? {} : { nets: [net] }),
      at: [hole],
    }));
  const cuts = board.cuts
    .filter((hole) => !copper.isOn(hole))
    .map((hole): BoardProblem => ({
      code: 'off-board',
      message: `A cut is at ${holeWords(hole)}, outside the board, ${size}.`,
      at: [hole],
    }));
  return [...outside, ...cuts];
}

const sentence = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);
const refsOf = (occupants: readonly Occupant[]): string[] => [
  ...new Set(occupants.flatMap((o) => (o.ref === undefined ? [] : [o.ref]))),
];
const netsIn = (occupants: readonly Occupant[]): string[] => [
  ...new Set(occupants.flatMap((o) => (o.net === undefined ? [] : [o.net]))),
];
const list = (words: readonly string[]): string =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)!}`;

/** A hole takes one lead; at a pad of its own the wires that do the joining are soldered to the pin that is there. */
function sharedHoles(board: Board, occupants: readonly Occupant[]): BoardProblem[] {
  const counted = board.style === 'pads' ? occupants.filter((o) => o.kind === 'pin') : occupants;
  const byHole = new Map<string, Occupant[]>();
  for (const o of counted) byHole.set(o.hole.join(), [...(byHole.get(o.hole.join()) ?? []), o]);
  return [...byHole.values()]
    .filter((all) => all.length > 1)
    .map((all) => ({
      code: 'shared-hole',
      message: `${sentence(list(all.map((o) => o.what)))} are in one hole, ${holeWords(all[0]!.hole)}.`,
      refs: refsOf(all),
      nets: netsIn(all),
      at: [all[0]!.hole],
    }));
}

const cutsUnderPins = (copper: Copper, occupants: readonly Occupant[]): BoardProblem[] =>
  occupants
    .filter(({ hole }) => copper.isOn(hole) && copper.isCut(hole))
    .map(({ what, hole, ref, net }) => ({
      code: 'cut-under-pin',
      message: `${sentence(what)} is at the cut at ${holeWords(hole)}: there is no copper to solder it to.`,
      ...(ref === undefined ? {} : { refs: [ref] }),
      ...(net === undefined ? {} : { nets: [net] }),
      at: [hole],
    }));

/** Shorts and opens: pins and terminals by the copper that they are on. */
function electrical(copper: Copper, occupants: readonly Occupant[]): BoardProblem[] {
  const onPiece = new Map<string, Occupant[]>();
  const piecesOf = new Map<string, Map<string, Occupant[]>>();
  for (const o of occupants) {
    const piece = copper.pieceAt(o.hole);
    if (o.net === undefined || piece === null) continue;
    onPiece.set(piece, [...(onPiece.get(piece) ?? []), o]);
    const pieces = piecesOf.get(o.net) ?? new Map<string, Occupant[]>();
    pieces.set(piece, [...(pieces.get(piece) ?? []), o]);
    piecesOf.set(o.net, pieces);
  }
  const shorts = [...onPiece.values()]
    .filter((all) => netsIn(all).length > 1)
    .map((all): BoardProblem => {
      const nets = netsIn(all);
      const one = nets.map((net) => nearest(all, net));
      return {
        code: 'short',
        message: `${list(nets)} are on one piece of copper: ${list(one.map((o) => `${o.what} at ${holeWords(o.hole)}`))}.`,
        refs: refsOf(all),
        nets,
        at: one.map((o) => o.hole),
      };
    });
  const opens = [...piecesOf]
    .filter(([, pieces]) => pieces.size > 1)
    .map(([net, pieces]): BoardProblem => {
      const groups = [...pieces.values()];
      return {
        code: 'open',
        message: `${net} is on ${pieces.size} pieces of copper that nothing joins: ${groups.map((g) => list(g.map((o) => o.what))).join('; ')}.`,
        refs: refsOf(groups.flat()),
        nets: [net],
        at: groups.map((g) => g[0]!.hole),
      };
    });
  return [...shorts, ...opens];
}

/** Of a net on a piece, what lies nearest to another net's: there the cut is missing. */
function nearest(all: readonly Occupant[], net: string): Occupant {
  const own = all.filter((o) => o.net === net);
  const others = all.filter((o) => o.net !== net);
  const far = ({ hole: [c, r] }: Occupant) =>
    Math.min(...others.map(({ hole }) => Math.abs(hole[0] - c) + Math.abs(hole[1] - r)));
  return own.reduce((best, o) => (far(o) < far(best) ? o : best));
}

function overlaps(bodies: readonly PlacedBody[]): BoardProblem[] {
  const found: BoardProblem[] = [];
  const boxes = bodies.map((b) => boxOf(b.stance));
  for (let i = 0; i < bodies.length; i += 1)
    for (let j = 0; j < i; j += 1) {
      const [one, other] = [bodies[j]!, bodies[i]!];
      if (!boxesMeet(boxes[j]!, boxes[i]!) || !clash(one, other)) continue;
      found.push({
        code: 'overlap',
        message: `${one.name} and ${other.name} are in one another's way.`,
        refs: [...one.refs, ...other.refs],
        at: [one.pins[0]!.hole, other.pins[0]!.hole],
      });
    }
  return found;
}

/** Whether a part would be in the way of any of some. */
export const isInTheWay = (one: PlacedBody, others: readonly PlacedBody[]): boolean => {
  const box = boxOf(one.stance);
  return others.some((other) => boxesMeet(box, boxOf(other.stance)) && clash(one, other));
};

/** Whether one part is in the way of another. Leads that share a hole meet there, which is told already. */
const clash = (one: PlacedBody, other: PlacedBody): boolean =>
  sharesHole(one, other) ? bodiesMeet(one.stance, other.stance) : areInTheWay(one.stance, other.stance);

const sharesHole = (one: PlacedBody, other: PlacedBody): boolean =>
  one.pins.some((p) => other.pins.some((q) => p.hole[0] === q.hole[0] && p.hole[1] === q.hole[1]));

function netHoles(copper: Copper, occupants: readonly Occupant[]): ReadonlyMap<string, readonly Hole[]> {
  const holes = copper.holesByPiece();
  const pieces = new Map<string, Set<string>>();
  for (const { net, hole } of occupants) {
    const piece = copper.pieceAt(hole);
    if (net === undefined || piece === null) continue;
    pieces.set(net, (pieces.get(net) ?? new Set()).add(piece));
  }
  return new Map([...pieces].map(([net, own]) => [net, [...own].flatMap((piece) => holes.get(piece) ?? [])]));
}

/** The shortest straight lines that would join the pieces of each net. */
function airLines(copper: Copper, occupants: readonly Occupant[]): AirLine[] {
  const groups = new Map<string, Map<string, Hole[]>>();
  for (const { net, hole } of occupants) {
    const piece = copper.pieceAt(hole);
    if (net === undefined || piece === null) continue;
    const pieces = groups.get(net) ?? new Map<string, Hole[]>();
    groups.set(net, pieces.set(piece, [...(pieces.get(piece) ?? []), hole]));
  }
  return [...groups].flatMap(([net, pieces]) => {
    const [first = [], ...rest] = [...pieces.values()];
    const joined = [...first];
    const open = [...rest];
    const lines: AirLine[] = [];
    while (open.length > 0) {
      let best:
        { readonly from: Hole; readonly to: Hole; readonly group: Hole[]; readonly far: number } | undefined;
      for (const group of open)
        for (const to of group)
          for (const from of joined) {
            const far = Math.hypot(from[0] - to[0], from[1] - to[1]);
            if (!best || far < best.far) best = { from, to, group, far };
          }
      lines.push({ net, from: best!.from, to: best!.to });
      joined.push(...best!.group);
      open.splice(open.indexOf(best!.group), 1);
    }
    return lines;
  });
}
