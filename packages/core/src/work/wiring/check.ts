import type { Board, Wire } from '@zemble/contract';
import { UnionFind, type LayerCircuit, type LayerPart } from '../../circuit/circuit/index.ts';
import {
  keyOfEnd,
  netOfEnd,
  netOfWire,
  placesOfEnds,
  readWires,
  type ReadWire,
  type WireEnd,
} from './ends.ts';
import { ALWAYS_WIRED, OUTSIDE, refsOnBoards } from './off-board.ts';

/** What is wrong with the wires of a unit. */
export type WiringCode =
  'unknown-end' | 'joins-nets' | 'wrong-net' | 'missing-wire' | 'forgotten-lug' | 'alike' | 'both-ends-one';

export interface WiringProblem {
  readonly code: WiringCode;
  readonly message: string;
  readonly wires?: readonly string[];
  readonly refs?: readonly string[];
  readonly nets?: readonly string[];
}

export interface WiringReport {
  readonly ok: boolean;
  readonly problems: readonly WiringProblem[];
  readonly wires: readonly ReadWire[];
}

const list = (words: readonly string[]): string =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)!}`;
const nameOf = ({ id, colour }: Wire): string =>
  colour === undefined || colour === '' ? `Wire ${id}` : `The ${colour} wire ${id}`;

/**
 * Checks the wires between parts off the board and the board: no wire joins two nets, no net that leaves the board is without
 * its wire, no lug of a net is forgotten, and no two wires of one colour can be taken for one another.
 */
export function checkWiring(
  circuit: LayerCircuit,
  wires: readonly Wire[],
  boards: readonly Board[],
): WiringReport {
  const read = readWires(wires, circuit, boards);
  const problems = [
    ...unknownEnds(read, circuit),
    ...joins(read),
    ...missing(circuit, read, boards),
    ...alike(read),
  ];
  return { ok: problems.length === 0, problems, wires: read };
}

/** Ends that look like a lug or a terminal, and are none. */
function unknownEnds(read: readonly ReadWire[], { parts }: LayerCircuit): WiringProblem[] {
  return read.flatMap(({ wire, ends }): WiringProblem[] => {
    const [a, b] = ends;
    const same: WiringProblem[] =
      keyOfEnd(a) === keyOfEnd(b)
        ? [
            {
              code: 'both-ends-one',
              message: `${nameOf(wire)} has both ends at ${keyOfEnd(a)}.`,
              wires: [wire.id],
            },
          ]
        : [];
    return [
      ...same,
      ...ends.flatMap((end): WiringProblem[] => {
        if (end.on === 'board' && end.net === undefined)
          return [
            {
              code: 'unknown-end',
              message: `${nameOf(wire)} goes to board.${end.name}, and the board has no terminal and the circuit no net of that name.`,
              wires: [wire.id],
            },
          ];
        const part = end.on === 'words' ? partIn(parts, end.words) : undefined;
        if (end.on !== 'words' || !part) return [];
        return [
          {
            code: 'unknown-end',
            message: `${nameOf(wire)} goes to ${end.words}, and ${part.ref} has the lugs ${Object.keys(part.pins).join(', ')}.`,
            wires: [wire.id],
            refs: [part.ref],
          },
        ];
      }),
    ];
  });
}

/** The part whose designator stands before the dot of an end. */
const partIn = (parts: readonly LayerPart[], words: string): LayerPart | undefined =>
  parts.find((p) => words.toUpperCase().startsWith(`${p.ref.toUpperCase()}.`));

function joins(read: readonly ReadWire[]): WiringProblem[] {
  return read.flatMap(({ wire, ends }): WiringProblem[] => {
    const [a, b] = ends.map(netOfEnd);
    if (a !== undefined && b !== undefined && a !== b)
      return [
        {
          code: 'joins-nets',
          message: `${nameOf(wire)} joins ${a} at ${keyOfEnd(ends[0])} to ${b} at ${keyOfEnd(ends[1])}.`,
          wires: [wire.id],
          nets: [a, b],
        },
      ];
    const known = a ?? b;
    return wire.net !== undefined && known !== undefined && wire.net !== known
      ? [
          {
            code: 'wrong-net',
            message: `${nameOf(wire)} is said to be of ${wire.net}, and its ends are on ${known}.`,
            wires: [wire.id],
            nets: [wire.net, known],
          },
        ]
      : [];
  });
}

/** Lugs that are not tied to the rest of their net, and nets that lead off the board without a wire. */
function missing(
  circuit: LayerCircuit,
  read: readonly ReadWire[],
  boards: readonly Board[],
): WiringProblem[] {
  const onBoard = refsOnBoards(circuit, boards);
  const reached = new Set(read.flatMap(({ ends }) => ends.flatMap((e) => (e.on === 'lug' ? [e.ref] : []))));
  const isOff = (p: LayerPart) =>
    !OUTSIDE.has(p.kind) && !onBoard.has(p.ref) && (reached.has(p.ref) || ALWAYS_WIRED.has(p.kind));
  const off = circuit.parts.filter(isOff);
  const isLaid = (p: LayerPart) => !isOff(p) && !OUTSIDE.has(p.kind);
  const tied = new UnionFind();
  for (const { ends } of read) tied.join(...(ends.map(keyFor) as [string, string]));
  const nets = [...new Set(off.flatMap((p) => Object.values(p.pins)))];
  return nets.flatMap((net): WiringProblem[] => {
    const lugs = off.flatMap((p) =>
      Object.entries(p.pins).flatMap(([pin, at]) =>
        at === net ? [{ ref: p.ref, key: `${p.ref}.${pin}` }] : [],
      ),
    );
    const board = circuit.parts.some((p) => isLaid(p) && Object.values(p.pins).includes(net))
      ? [`board ${net}`]
      : [];
    const points = [...board, ...lugs.map((l) => l.key)];
    if (points.length < 2) return [];
    const groups = new Map<string, string[]>();
    for (const point of points) {
      const root = tied.find(point);
      groups.set(root, [...(groups.get(root) ?? []), point]);
    }
    if (groups.size === 1) return [];
    if (lugs.every((l) => isLoose(read, l.key)) && board.length > 0)
      return [
        {
          code: 'missing-wire',
          message: `${net} leaves the board to ${list(lugs.map((l) => l.key))}, and no wire carries it.`,
          refs: lugs.map((l) => l.ref),
          nets: [net],
        },
      ];
    const main = board.length > 0 ? tied.find(board[0]!) : largest(groups);
    const left = points.filter((p) => tied.find(p) !== main);
    const forgotten = left.filter((p) => isLoose(read, p));
    const apart = left.filter((p) => !forgotten.includes(p));
    return [
      ...forgotten.map((key): WiringProblem => ({
        code: 'forgotten-lug',
        message: `${key} is a lug of ${net}, and no wire reaches it.`,
        refs: [key.slice(0, key.lastIndexOf('.'))],
        nets: [net],
      })),
      ...(apart.length > 0
        ? [
            {
              code: 'missing-wire' as const,
              message: `${list(apart)} of ${net} are wired to one another, and not to the rest of it.`,
              refs: [...new Set(apart.map((key) => key.slice(0, key.lastIndexOf('.'))))],
              nets: [net],
            },
          ]
        : []),
    ];
  });
}

/** Terminals of one net are one on the board. */
const keyFor = (end: WireEnd): string =>
  end.on === 'board' && end.net !== undefined ? `board ${end.net}` : keyOfEnd(end);

const isLoose = (read: readonly ReadWire[], key: string): boolean =>
  !read.some(({ ends }) => ends.some((e) => keyFor(e) === key));

const largest = (groups: ReadonlyMap<string, readonly string[]>): string =>
  [...groups].reduce((best, group) => (group[1].length > best[1].length ? group : best))[0];

/** Wires of one colour on two nets that end at one part, or both at the board, where one can be taken for the other. */
function alike(read: readonly ReadWire[]): WiringProblem[] {
  const coloured = read.filter(({ wire }) => (wire.colour ?? '').trim() !== '');
  return coloured.flatMap((one, i) =>
    coloured.slice(i + 1).flatMap((other): WiringProblem[] => {
      if (one.wire.colour!.trim().toLowerCase() !== other.wire.colour!.trim().toLowerCase()) return [];
      const [a, b] = [netOfWire(one), netOfWire(other)];
      if (a === undefined || b === undefined || a === b) return [];
      const at = [...placesOfEnds(one.ends)].filter((p) => placesOfEnds(other.ends).has(p));
      if (at.length === 0) return [];
      return [
        {
          code: 'alike',
          message: `Wires ${one.wire.id} and ${other.wire.id} are both ${one.wire.colour!.trim()} and both end at ${list(at)}, on ${a} and ${b}: mark one of them.`,
          wires: [one.wire.id, other.wire.id],
          nets: [a, b],
        },
      ];
    }),
  );
}
