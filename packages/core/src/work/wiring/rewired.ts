import type { Wire } from '@zemble/contract';
import type { LayerCircuit } from '../../circuit/circuit/index.ts';
import { readEnd } from './ends.ts';

/** A wire whose lug is on another net after the work. */
export interface RewiredEnd {
  readonly wire: Wire;
  /** The lug, as "P1.2". */
  readonly lug: string;
  readonly before: string;
  readonly after: string;
  /** What takes it back, a sentence. */
  readonly back: string;
}

/** Wires that the work moves: which colour goes where before it and after it, and the way back. */
export function rewiredEnds(wires: readonly Wire[], before: LayerCircuit, after: LayerCircuit): RewiredEnd[] {
  return wires.flatMap((wire) =>
    [wire.from, wire.to].flatMap((text): RewiredEnd[] => {
      const [was, is] = [readEnd(text, before, []), readEnd(text, after, [])];
      if (was.on !== 'lug' || is.on !== 'lug' || was.net === is.net) return [];
      const lug = `${was.ref}.${was.pin}`;
      const colour = wire.colour === undefined ? `wire ${wire.id}` : `${wire.colour} wire ${wire.id}`;
      return [
        {
          wire,
          lug,
          before: was.net,
          after: is.net,
          back: `Back to stock: the ${colour} at ${lug} goes to ${was.net} again.`,
        },
      ];
    }),
  );
}
