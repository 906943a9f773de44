import type { LayerPart } from '../../../circuit/circuit/index.ts';
import type { Place } from './place.ts';
import type { ReadoutSpec } from './way.ts';

/**
 * The rate that a part may time: of the clock whose resistor it is, of a timer that it hangs on, of a ring of stages around
 * it. What is found by its nets is only a guess; whether the rate follows is computed when a way is made.
 */
export function rateAt(place: Place, part: LayerPart): ReadoutSpec | null {
  const nets = Object.values(part.pins).filter((net) => net !== place.ground);
  const clock = place.circuit.parts.find((p) => p.kind === 'clock' && nets.includes(p.pins.rset!));
  if (clock) return { kind: 'rate', part: clock.ref };
  const timer = place.circuit.parts.find(
    (p) => p.kind === 'timer555' && isAstable(p) && nets.some((net) => timing(p).includes(net)),
  );
  if (timer) return { kind: 'rate', net: timer.pins.out! };
  const ring = ringAt(place, part);
  return ring === null ? null : { kind: 'rate', net: ring };
}

const timing = ({ pins }: LayerPart): readonly string[] =>
  [pins.thr, pins.trig, pins.dis].filter((net) => net !== undefined);

/** Threshold and trigger are one net: it starts itself again and again. */
export const isAstable = ({ pins }: LayerPart): boolean => pins.thr !== undefined && pins.thr === pins.trig;

/** What amplifies: where a tone goes in, and where it comes out. */
interface Stage {
  readonly ins: readonly (string | undefined)[];
  readonly out: string;
}

/** The output of a stage that comes back to its own input over the part: through capacitors, resistors and other stages. */
function ringAt(place: Place, part: LayerPart): string | null {
  const stages = place.circuit.parts.flatMap((p): Stage[] => {
    const { plus, minus, out, b, c, e, g, d } = p.pins;
    if (p.kind === 'opamp') return [{ ins: [plus, minus], out: out! }];
    if (p.kind === 'bjt') return [{ ins: [b, e], out: c! }];
    if (p.kind === 'jfet' || p.kind === 'mosfet') return [{ ins: [g], out: d! }];
    return [];
  });
  const own = Object.values(part.pins);
  for (const { out, ins } of stages) {
    if (out === place.ground || place.supplies().some((s) => s.net === out)) continue;
    const touches = own.includes(out) || ins.some((net) => own.includes(net!));
    if (touches && place.signalAt(out) === undefined) return out;
  }
  return null;
}
