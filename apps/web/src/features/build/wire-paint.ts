import { BAND_PAINT } from '../../ui/band-paint.ts';

/** Paint of wires by the words for their colours; as of bands, with the few that wires have beside (IEC 60757). */
const WIRE_PAINT: ReadonlyMap<string, string> = new Map([
  ...Object.entries(BAND_PAINT),
  ['turquoise', '#2aa7a0'],
  ['clear', '#dfe6ea'],
  ['bare', '#b9bcc0'],
  ['screen', '#8b8d90'],
]);

/** Paint of a wire: its colour, and that of its stripe where it has two. */
export function paintsOf(colour: string | undefined): readonly [string, string | undefined] {
  const [first, second] = (colour ?? '')
    .toLowerCase()
    .split(/[-/]/)
    .flatMap((word) => WIRE_PAINT.get(word) ?? []);
  return [first ?? WIRE_PAINT.get('bare')!, second];
}
