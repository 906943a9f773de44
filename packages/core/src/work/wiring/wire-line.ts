import { wireSchema, type Wire } from '@zemble/contract';
import { whyNotKept } from '../../base/text/index.ts';
import { WIRE_COLOURS, wireColour } from './colours.ts';

/** What was read of a line of the wiring sheet. */
export type WireLine =
  { readonly ok: true; readonly wire: Omit<Wire, 'id'> } | { readonly ok: false; readonly why: string };

/**
 * A wire as it is typed: colour, from, to, and how long it is: `green P1.2 board.in 120mm`; a word in quotes is an old wire whose net
 * is not known yet; a dash behind two colours makes one of them: `green-yellow`.
 */
export function parseWireLine(line: string): WireLine {
  const words = [...line.matchAll(/"([^"]*)"|(\S+)/g)].map((m) => m[1] ?? m[2]!);
  const isColour = (word: string) => wireColour(word) !== undefined;
  const isLength = (word: string) => /^\d+(?:[.,]\d+)?(?:mm|cm|m)$/i.test(word);
  const colour = words.find(isColour);
  const length = words.find(isLength);
  const ends = words.filter((w) => w !== colour && w !== length && !/^(?:to|->|→|-)$/i.test(w));
  const [first = ''] = ends;
  if (ends.length === 3 && /^[a-z/-]+$/i.test(first))
    return {
      ok: false,
      why: `"${first}" is no colour that is known: ${WIRE_COLOURS.join(', ')}, or two of them with a dash.`,
    };
  if (ends.length !== 2)
    return {
      ok: false,
      why: `A wire has two ends, and ${ends.length === 0 ? 'none was' : `${ends.length} ${ends.length === 1 ? 'was' : 'were'}`} read: green P1.2 board.in`,
    };
  const wire = {
    ...(colour === undefined ? {} : { colour: wireColour(colour)! }),
    from: ends[0]!,
    to: ends[1]!,
    ...(length === undefined ? {} : { length }),
  };
  const why = whyNotKept(wire, wireSchema, { id: 'w' });
  return why === undefined ? { ok: true, wire } : { ok: false, why };
}
