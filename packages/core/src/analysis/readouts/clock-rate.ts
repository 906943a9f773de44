import type { ReadoutOf } from '@zemble/contract';
import type { AnalysisSession } from '../analysis/index.ts';
import type { LayerPart } from '../../circuit/circuit/index.ts';
import { formatQuantity } from '../../base/quantity/index.ts';
import { needed, undefinedBecause } from './readout-type.ts';

const USUAL_EXPONENT = -1;

/** A chip whose clock a resistor sets. */
type ClockPart = LayerPart & { readonly kind: 'clock' };

/** The resistance for direct current between `rset` and `gnd` with the chip taken out, ohm. */
export function clockOhm({ system, smallSignal }: AnalysisSession, rset: string, gnd: string): number {
  const [set, ground] = [system.node(rset), system.node(gnd)];
  return smallSignal.at(0).inject(ground, set).voltage(set, ground).re;
}

/** Why a resistance is none that the chip bears; null where it is. */
export function clockFault(
  { minOhm = 0, maxOhm = Number.POSITIVE_INFINITY }: ClockPart,
  ohm: number,
): string | null {
  const shown = formatQuantity(ohm, 'ohm');
  if (ohm < minOhm) return `has ${shown} at its pin, and below ${formatQuantity(minOhm, 'ohm')} it glitches`;
  if (ohm > maxOhm)
    return `has ${shown} at its pin, and above ${formatQuantity(maxOhm, 'ohm')} it stops or glitches`;
  return null;
}

/**
 * Rate of a chip whose clock a resistor sets, Hz: ratedHz (R/ratedOhm)^exponent, with R the resistance for direct current
 * between `rset` and `gnd` with the chip taken out. Throws where R lies outside what the chip bears, for there it
 * glitches or stops.
 */
export function clockRate(session: AnalysisSession, readout: ReadoutOf<'rate'>, ref: string): number {
  const part = session.circuit.parts.find((p) => p.ref === ref);
  if (part?.kind !== 'clock') throw undefinedBecause(readout, `${ref} is not a clock`);
  const [rset, gnd] = [needed(readout, 'rset', part.pins.rset), needed(readout, 'gnd', part.pins.gnd)];
  const ohm = clockOhm(session, rset, gnd);
  const [ratedHz, ratedOhm] = [
    needed(readout, `${ref}.ratedHz`, part.ratedHz),
    needed(readout, `${ref}.ratedOhm`, part.ratedOhm),
  ];
  const fault = clockFault(part, ohm);
  if (fault !== null) throw undefinedBecause(readout, `${ref} ${fault}`);
  return ratedHz * (ohm / ratedOhm) ** (part.exponent ?? USUAL_EXPONENT);
}
