import type { Board, Wire } from '@zemble/contract';
import { netsOf, type LayerCircuit } from '../../circuit/circuit/index.ts';
import { findPin } from '../../circuit/pinout/index.ts';

/** An end of a wire: a lug of a part, a place on the board, or words for one whose net is not known yet. */
export type WireEnd =
  | { readonly on: 'lug'; readonly ref: string; readonly pin: string; readonly net: string }
  | { readonly on: 'board'; readonly name: string; readonly net: string | undefined }
  | { readonly on: 'words'; readonly words: string };

/** A wire with its ends as they are understood. */
export interface ReadWire {
  readonly wire: Wire;
  readonly ends: readonly [WireEnd, WireEnd];
}

const BOARD = /^board\.(.+)$/i;

/** An end as it is written. A name of the board is a terminal's, or a net's where no terminal has it. */
export function readEnd(text: string, circuit: LayerCircuit, boards: readonly Board[]): WireEnd {
  const [, name] = BOARD.exec(text.trim()) ?? [];
  if (name !== undefined) {
    const terminal = boards.flatMap((b) => b.terminals).find((t) => (t.name ?? t.net) === name);
    const net = terminal?.net ?? (netsOf(circuit).includes(name) ? name : undefined);
    return { on: 'board', name, net };
  }
  const found = text.includes('.') ? findPin(circuit.parts, text.trim()) : undefined;
  return found?.ok === true
    ? { on: 'lug', ref: found.ref, pin: found.pin, net: found.net }
    : { on: 'words', words: text.trim() };
}

export const readWires = (
  wires: readonly Wire[],
  circuit: LayerCircuit,
  boards: readonly Board[],
): readonly ReadWire[] =>
  wires.map((wire) => ({
    wire,
    ends: [readEnd(wire.from, circuit, boards), readEnd(wire.to, circuit, boards)],
  }));

/** The net of an end; undefined where it is not known. */
export const netOfEnd = (end: WireEnd): string | undefined => (end.on === 'words' ? undefined : end.net);

/** The same end has the same name, however it was written. */
export const keyOfEnd = (end: WireEnd): string => {
  switch (end.on) {
    case 'lug':
      return `${end.ref}.${end.pin}`;
    case 'board':
      return `board.${end.name}`;
    case 'words':
      return `"${end.words}"`;
  }
};

/** An end as it is written into a wire. */
export const writeEnd = (end: WireEnd): string => (end.on === 'words' ? end.words : keyOfEnd(end));

/** The net of a wire, as far as one of its ends or its own note tells it. */
export const netOfWire = ({ wire, ends: [a, b] }: ReadWire): string | undefined =>
  netOfEnd(a) ?? netOfEnd(b) ?? wire.net;

/** Where an end is looked for: the part of its lug, or the board. */
export const placesOfEnds = (ends: readonly WireEnd[]): ReadonlySet<string> =>
  new Set(ends.flatMap((e) => (e.on === 'lug' ? [e.ref] : e.on === 'board' ? ['the board'] : [])));
