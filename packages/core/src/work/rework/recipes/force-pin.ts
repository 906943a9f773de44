import { formatQuantity } from '../../../base/quantity/index.ts';
import type { Recipe } from './recipe.ts';
import { cannot, fitted, near, type Spot } from './spot.ts';

const supplyOf = ({ circuit }: Spot) =>
  circuit.parts.find((p) => p.kind === 'supply' && p.pins.minus === circuit.ground);

/** A control pin is pulled up by a switch through a resistor that keeps who drives it unharmed. */
export const forcePin: Recipe = {
  id: 'force-pin',
  title: 'Force a control pin high by a switch',
  asks: (spot) =>
    spot.net !== undefined && spot.net !== spot.circuit.ground && supplyOf(spot)
      ? [{ id: 'ampere', label: 'Its driver bears', quantity: 'current', usual: 1e-3 }]
      : null,
  make(spot, { ampere }) {
    if (!(ampere! > 0)) throw cannot('Some current must be allowed.');
    const [net, supply] = [spot.net!, supplyOf(spot)!];
    const rail = supply.pins.plus!;
    if (net === rail) throw cannot('That is the supply itself.');
    const volts = Math.abs(spot.volts(rail));
    // At the worst its driver holds the pin at the ground.
    const ohm = near(volts / ampere!);
    const seen = spot.seen(net, spot.circuit.ground, 1);
    const high = spot.volts(net) + (spot.volts(rail) - spot.volts(net)) * (seen / (seen + ohm));
    return {
      line: `Force ${net}: +${spot.free('R')} ${fitted(ohm)} ${rail} ${net} via ${spot.free('SW')}`,
      says: [
        `At most ${formatQuantity(volts / ohm, 'A')} flow into who drives ${net}; it comes up to about ${formatQuantity(high, 'V')}.`,
      ],
      traps: [
        `High is valid from about ${formatQuantity(0.7 * volts, 'V')} for a CMOS input on ${formatQuantity(volts, 'V')} (data sheet: 0.7 of the supply).${high < 0.7 * volts ? ' This is not reached: its driver must be cut off.' : ''}`,
      ],
    };
  },
};
