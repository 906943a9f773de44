import type { LayerCircuit } from '../circuit/index.ts';
import { problem, type Problem } from '../errors.ts';

export type PinOutcome =
  | { readonly ok: true; readonly ref: string; readonly pin: string; readonly net: string }
  | { readonly ok: false; readonly problem: Problem };

/** A pin as it is written, "C7.a": its part, its name and the net that it is on now. The name may be in any case. */
export function readPin(circuit: Pick<LayerCircuit, 'parts'>, text: string): PinOutcome {
  const dot = text.lastIndexOf('.');
  const [ref, name] = [text.slice(0, dot), text.slice(dot + 1)];
  const part = circuit.parts.find((p) => p.ref === ref);
  if (!part) return { ok: false, problem: problem('change/no-part', { ref: dot < 0 ? text : ref }) };
  const pin = !Object.hasOwn(part.pins, name)
    ? Object.keys(part.pins).find((each) => each.toLowerCase() === name.toLowerCase())
    : name;
  return pin === undefined
    ? {
        ok: false,
        problem: problem('circuit/unknown-pin', {
          ref,
          text: name,
          detail: Object.keys(part.pins).join(', '),
        }),
      }
    : { ok: true, ref, pin, net: part.pins[pin]! };
}
