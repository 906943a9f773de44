import type { Part } from '../../circuit/circuit/index.ts';
import type { NetClass } from '../../circuit/figures/index.ts';
import {
  bodyAt,
  CHARACTER_WIDTH,
  labelsAt,
  pinsAt,
  type Box,
  type Placement,
  type SymbolPin,
} from './symbols.ts';

/** A local ground or rail symbol at a pin. */
export interface RailMark {
  readonly net: string;
  readonly kind: Exclude<NetClass, 'signal'>;
  /** The pin it belongs to. */
  readonly from: { readonly x: number; readonly y: number };
  /** Where the symbol itself begins, after the stub. */
  readonly x: number;
  readonly y: number;
  /** Down for ground and negative rails, up for positive ones. */
  readonly way: 'up' | 'down';
  readonly box: Box;
}

/** Room of a ground symbol and of a rail's bar with its name. */
const MARK_DEPTH = 2;

/** A pin that looks the other way has its mark this far beside it, on the side without text. */
const OPPOSED_OFFSET = 3;

/** The mark of a rail pin: straight on when the pin looks that way, after a bend otherwise. */
export function railMark(pin: SymbolPin, net: string, kind: Exclude<NetClass, 'signal'>): RailMark {
  const way = kind === 'positive rail' ? 'up' : 'down';
  const sign = way === 'up' ? -1 : 1;
  const x = pin.x + pin.dx;
  const y = pin.dy === 0 ? pin.y + sign : pin.y + (pin.dy === sign ? pin.dy : 0);
  const isOpposed = pin.dy === -sign;
  const at = isOpposed ? { x: pin.x - OPPOSED_OFFSET, y: pin.y } : { x, y };
  const half = kind === 'ground' ? 1 : Math.max(1, (net.length * CHARACTER_WIDTH) / 2);
  const top = way === 'up' ? at.y - MARK_DEPTH : Math.min(at.y, pin.y);
  const bottom = way === 'up' ? Math.max(at.y, pin.y) : at.y + MARK_DEPTH;
  const box = {
    left: Math.min(at.x - half, pin.x),
    right: Math.max(at.x + half, pin.x),
    top: isOpposed ? top - 1 : top,
    bottom: isOpposed ? bottom + 1 : bottom,
  };
  return { net, kind, from: { x: pin.x, y: pin.y }, x: at.x, y: at.y, way, box };
}

/** All that a symbol takes of the sheet: its body, its text and its rail marks. */
export function footprint(
  part: Part,
  at: Placement,
  texts: readonly [string, string],
  classOf: (net: string) => NetClass,
): { boxes: Box[]; marks: RailMark[] } {
  const marks = pinsAt(part, at).flatMap((pin) => {
    const net = part.pins[pin.name];
    const kind = net === undefined ? 'signal' : classOf(net);
    return net === undefined || kind === 'signal' ? [] : [railMark(pin, net, kind)];
  });
  const labels = labelsAt(part, at, texts).map((l) => l.box);
  return { boxes: [bodyAt(part, at), ...labels, ...marks.map((m) => m.box)], marks };
}
