import { formatQuantity } from '../../../base/quantity/index.ts';
import type { Recipe } from './recipe.ts';
import { cannot, fitted, type Spot } from './spot.ts';

/** kT/q at room temperature, V. */
const THERMAL_V = 0.02585;

/** A bypassed emitter resistor with its transistor and collector resistor. */
function stageOf(spot: Spot) {
  const bjt = spot.part?.kind === 'bjt' ? spot.part : undefined;
  if (!bjt) return null;
  const [c, e] = [bjt.pins.c!, bjt.pins.e!];
  const rc = spot.at(c).find((p) => p.kind === 'resistor');
  const re = spot.at(e).find((p) => p.kind === 'resistor');
  const bypass = spot.at(e).find((p) => p.kind === 'capacitor');
  return rc && re && bypass ? { bjt, rc, re, bypass, e } : null;
}

/** A = RC/(re + R), with re = VT/IC; the resistor lies in series with the bypass capacitor and leaves the rest position alone. */
export const gainByEmitter: Recipe = {
  id: 'gain-by-emitter',
  title: 'Less gain by a resistor in the emitter bypass',
  asks: (spot) => (stageOf(spot) ? [{ id: 'gain', label: 'Gain', quantity: 'level', usual: 26 }] : null),
  make(spot, { gain }) {
    const { bjt, rc, re, bypass, e } = stageOf(spot)!;
    const ampere =
      Math.abs(spot.volts(e) - spot.volts(re.pins.a === e ? re.pins.b! : re.pins.a!)) / spot.worth(re);
    const own = THERMAL_V / ampere;
    const total = spot.worth(rc) / 10 ** (gain! / 20);
    const exact = 1 / (1 / (total - own) - 1 / spot.worth(re));
    if (!(total > own))
      throw cannot(
        `${bjt.ref} itself has ${formatQuantity(own, 'ohm')} there: so much gain it does not have.`,
      );
    if (!(exact > 0)) throw cannot(`So little gain it has without ${bypass.ref} already: lift it.`);
    const pin = bypass.pins.a === e ? 'a' : 'b';
    return {
      line: `Gain by emitter: +${spot.free('R')} ${fitted(exact)} in series with ${bypass.ref}.${pin}`,
      says: [
        `${bjt.ref} at ${formatQuantity(ampere, 'A')} has ${formatQuantity(own, 'ohm')} of its own; ${formatQuantity(exact, 'ohm')} more make ${formatQuantity(gain!, 'dB')}.`,
      ],
      traps: [
        `The bass corner by ${bypass.ref} comes down by as much, and the input impedance up.`,
        'A load on the collector counts with its resistor: without it in the drawing the gain comes out less.',
      ],
    };
  },
};
