import type { ReadoutOf } from '@halfsplit/contract';
import type { AnalysisSession } from '../analysis/index.ts';
import { formatQuantity } from '../quantity/index.ts';
import { needed, undefinedBecause } from './readout-type.ts';

const USUAL_EXPONENT = -1;

/**
 * Rate of a chip whose clock a resistor sets, Hz: ratedHz (R/ratedOhm)^exponent, with R the resistance for direct current
 * between `rset` and `gnd` with the chip taken out. Throws where R lies outside what the chip bears, for there it
 * glitches or stops.
 */
export function clockRate(session: AnalysisSession, readout: ReadoutOf<'rate'>, ref: string): number {
  const part = session.circuit.parts.find((p) => p.ref === ref);
  if (part?.kind !== 'clock') throw undefinedBecause(readout, `${ref} is not a clock`);
  const { system } = session;
  const where = `Readout "${readout.name}"`;
  const [rset, gnd] = [part.pins.rset, part.pins.gnd].map((net) =>
    system.node(needed(readout, 'rset', net), where),
  );
  const solved = session.smallSignal.at(0).inject(gnd!, rset!);
  const ohm = solved.voltage(rset!, gnd!).re;
  const [ratedHz, ratedOhm] = [
    needed(readout, `${ref}.ratedHz`, part.ratedHz),
    needed(readout, `${ref}.ratedOhm`, part.ratedOhm),
  ];
  const { minOhm = 0, maxOhm = Number.POSITIVE_INFINITY, exponent = USUAL_EXPONENT } = part;
  const shown = formatQuantity(ohm, 'ohm');
  if (ohm < minOhm)
    throw undefinedBecause(
      readout,
      `${ref} has ${shown} at its pin, and below ${formatQuantity(minOhm, 'ohm')} it glitches`,
    );
  if (ohm > maxOhm)
    throw undefinedBecause(
      readout,
      `${ref} has ${shown} at its pin, and above ${formatQuantity(maxOhm, 'ohm')} it stops or glitches`,
    );
  return ratedHz * (ohm / ratedOhm) ** exponent;
}
