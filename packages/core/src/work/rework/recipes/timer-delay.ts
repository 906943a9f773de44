import { exactText, formatQuantity } from '../../../base/quantity/index.ts';
import type { Recipe } from './recipe.ts';
import { cannot, fitted, near, trackFor, type Spot } from './spot.ts';

const LN3 = Math.log(3);

/** The timing resistor and capacitor at the threshold of a 555-type timer. */
function timingOf(spot: Spot) {
  const { part, circuit } = spot;
  const timer = part?.kind === 'timer555' ? part : undefined;
  const thr = timer?.pins.thr;
  if (thr === undefined) return null;
  const c = spot
    .at(thr)
    .find((p) => p.kind === 'capacitor' && Object.values(p.pins).includes(circuit.ground));
  const r = spot.at(thr).find((p) => p.kind === 'resistor');
  return c && r ? { r, c, thr } : null;
}

/** t = ln 3 R C of one pulse: a stop for the shortest and a potentiometer for the rest. */
export const timerDelay: Recipe = {
  id: 'timer-delay',
  title: 'Delay of a 555-type timer by a pot',
  isMoreSlower: true,
  asks: (spot) =>
    timingOf(spot)
      ? [
          { id: 'short', label: 'From', quantity: 'time', usual: 1 },
          { id: 'long', label: 'To', quantity: 'time', usual: 10 },
        ]
      : null,
  make(spot, { short, long }) {
    if (!(long! > short! && short! > 0)) throw cannot('The longer time must lie above the shorter one.');
    const { r, c, thr } = timingOf(spot)!;
    const farad = spot.worth(c);
    const [stop, most] = [short!, long!].map((t) => t / (LN3 * farad)) as [number, number];
    const track = trackFor(most - stop);
    const [pot, net] = [spot.free('P'), spot.freeNet('delay')];
    const pin = r.pins.a === thr ? 'a' : 'b';
    return {
      line: `Delay pot: ${r.ref} -> ${fitted(stop)}; ${r.ref}.${pin} to ${net}; +${pot} ${exactText(track, 'resistor')} 1=${net} 2=${thr} 3=${thr}`,
      says: [
        `${formatQuantity(LN3 * near(stop) * farad, 's')} to ${formatQuantity(LN3 * (near(stop) + track) * farad, 's')} with ${c.ref} as it is.`,
      ],
      traps: [
        ...(most > 2e6 && farad >= 1e-6
          ? [
              `${formatQuantity(most, 'ohm')} with an electrolytic: its leakage makes the time longer, or endless.`,
            ]
          : []),
        ...(stop < 1000
          ? ['Below 1 kΩ the timer cannot discharge the capacitor well: take a larger one.']
          : []),
      ],
    };
  },
};
