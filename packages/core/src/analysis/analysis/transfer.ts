import type { LayerCircuit, LayerPart } from '../../circuit/circuit/index.ts';
import { ZembleError } from '../../base/errors/index.ts';
import { divide, magnitude, type Phasor } from './small-signal.ts';
import type { AnalysisSession } from './session.ts';

/** Where a transfer begins: at a net, or at a source's electromotive force, whose resistance then counts. */
export type TransferInput =
  | { readonly net: string; readonly node: number; readonly drive: string | undefined }
  | { readonly source: string };

/**
 * What `from` of a transfer names: a net of the circuit, or a signal or supply by its designator. Throws
 * `circuit/unknown-net` when it is neither, and `readout/not-defined` when it is both.
 */
export function transferInput(session: AnalysisSession, from: string): TransferInput {
  const { system, circuit } = session;
  const part = circuit.parts.find((p) => p.ref === from);
  const isNet = system.hasNet(from);
  if (part && isNet)
    throw new ZembleError('readout/not-defined', {
      where: `gain from ${from}`,
      detail: `"${from}" is a net and a part: give one of them another name`,
    });
  if (part) return { source: from };
  return { net: from, node: system.node(from, 'The gain'), drive: nearestSignal(circuit, from) };
}

/**
 * Voltage ratio to a net as a function of frequency, Hz: from a net, driven by the signal source nearest to it, or by a
 * current into it when there is none; or from a source's electromotive force. `toMinus` makes the output differential.
 * Throws `circuit/unknown-net`, and the function `readout/not-defined` where no signal arrives, `analysis/no-source`, or
 * that there is no operating point.
 */
export function transferOver(
  session: AnalysisSession,
  from: string,
  to: string,
  toMinus?: string,
): (frequencyHz: number) => Phasor {
  const { system } = session;
  const toNode = system.node(to, 'The gain');
  const minusNode = toMinus === undefined ? 0 : system.node(toMinus, 'The gain');
  const input = transferInput(session, from);
  return (frequencyHz) => {
    const solved = session.smallSignal.at(frequencyHz);
    if ('source' in input) return solved.drive(input.source).voltage(toNode, minusNode);
    if (input.drive) solved.drive(input.drive);
    else solved.inject(0, input.node);
    const volt = solved.voltage(input.node);
    if (magnitude(volt) === 0) {
      throw new ZembleError('readout/not-defined', {
        where: `gain from ${from}`,
        detail: `no signal reaches net ${from}`,
      });
    }
    return divide(solved.voltage(toNode, minusNode), volt);
  };
}

/** `transferOver` at one frequency, Hz. */
export const transfer = (
  session: AnalysisSession,
  from: string,
  to: string,
  frequencyHz: number,
  toMinus?: string,
): Phasor => transferOver(session, from, to, toMinus)(frequencyHz);

/** The signal source with the fewest parts between it and a net; undefined when the circuit has no signal source. */
export function nearestSignal(circuit: LayerCircuit, net: string): string | undefined {
  const signals = circuit.parts.filter((p) => p.kind === 'signal');
  if (signals.length < 2) return signals[0]?.ref;
  const netsOf = (part: LayerPart) => Object.values(part.pins).filter((n) => n !== circuit.ground);
  const reached = new Set([net]);
  for (let isGrowing = true; isGrowing;) {
    const hit = signals.find((s) => netsOf(s).some((n) => reached.has(n)));
    if (hit) return hit.ref;
    const before = reached.size;
    const grown = circuit.parts.filter((p) => p.kind !== 'supply' && netsOf(p).some((n) => reached.has(n)));
    for (const part of grown) for (const n of netsOf(part)) reached.add(n);
    isGrowing = reached.size > before;
  }
  return signals[0]?.ref;
}
