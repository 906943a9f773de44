import { saidPins, type Part } from '../circuit/index.ts';
import type { Traceable } from './ends.ts';
import { formNets } from './nets.ts';
import { isTraced } from './retrace.ts';

/** A pin that is said to be on a net from now on. */
export interface Claim {
  readonly ref: string;
  readonly pin: string;
  readonly net: string;
}

/**
 * Names that were made up for nets, and that a part which is entered says: whoever types the name under which a net is shown
 * means that net. One pin of each is said to be on it, so that the name holds and both are one.
 *
 * @param traced the circuit without the part
 */
export function claimedNames(traced: Traceable, part: Part): readonly Claim[] {
  if (!isTraced(traced)) return [];
  const wanted = new Set(Object.values(saidPins(part)));
  const said = new Set(traced.parts.flatMap((p) => Object.values(saidPins(p))));
  const { nets, renamed } = formNets(traced);
  return [...wanted].flatMap((net): Claim[] => {
    if (said.has(net) || net === traced.ground) return [];
    const shown = renamed.get(net) ?? net;
    const first = nets.find((n) => n.name === shown && (!n.isNamed || shown !== net))?.pins[0];
    if (first === undefined) return [];
    const dot = first.indexOf('.');
    return [{ ref: first.slice(0, dot), pin: first.slice(dot + 1), net }];
  });
}

/** A part with what was claimed of its pins said of it. */
export function withClaims<P extends Part>(part: P, claims: readonly Claim[]): P {
  const own = claims.filter((c) => c.ref === part.ref);
  if (own.length === 0) return part;
  return { ...part, saidPins: { ...saidPins(part), ...Object.fromEntries(own.map((c) => [c.pin, c.net])) } };
}
