import { formatQuantity } from '../../../base/quantity/index.ts';
import { isAstable } from './oscillation.ts';
import { fit, move, rheostat } from './parts.ts';
import { cannot, pinAt, trackFor, type Place } from './place.ts';
import type { ReadoutSpec, Way } from './way.ts';

const LN3 = Math.log(3);

/** The timing resistor and capacitor of a 555-type timer that gives one pulse, from its supply to its threshold. */
function timingOf(place: Place) {
  const { part } = place;
  const timer = part?.kind === 'timer555' && !isAstable(part) ? part : undefined;
  const { thr, dis, out, vcc } = timer?.pins ?? {};
  if (!timer || thr === undefined || thr !== dis || out === undefined || vcc === undefined) return null;
  const [c] = place.between('capacitor', thr, place.ground);
  const [r] = place.between('resistor', thr, vcc);
  return c && r ? { timer, r, c, thr, out, vcc } : null;
}

/** One pulse of a timer, from a stop for the shortest to a potentiometer for the longest. */
export const timerDelay: Way = {
  id: 'timer-delay',
  title: 'Delay of a 555-type timer by a pot',
  isMoreSlower: true,
  asks: (place) =>
    timingOf(place)
      ? [
          { id: 'short', label: 'From', quantity: 'time', given: 1 },
          { id: 'long', label: 'To', quantity: 'time', given: 10 },
        ]
      : null,
  drafts(place, { short, long }) {
    if (!(long! > short! && short! > 0)) throw cannot('The longer time must lie above the shorter one.');
    const { r, c, thr, out, vcc } = timingOf(place)!;
    const farad = place.worth(c);
    const [stop, most] = [short!, long!].map((t) => t / (LN3 * farad)) as [number, number];
    const [pot, net] = [place.free('P'), place.freeNet('delay')];
    const readout: ReadoutSpec = {
      kind: 'delay',
      net: out,
      thresholdV: place.volts(vcc) / 2,
      rising: false,
    };
    return [
      {
        name: 'Delay pot',
        steps: [
          fit(r.ref, stop),
          move(r.ref, pinAt(r, thr), net),
          rheostat(pot, trackFor(most - stop), net, thr, 1),
        ],
        unknowns: [
          { refs: [r.ref], series: 'E24', goal: 1 },
          { refs: [pot], series: 'E3', goal: 0 },
        ],
        goals: [
          { readout, aim: long!, is: 'least', within: 0.05 },
          { readout, aim: short!, is: 'equal', within: 0.08, stands: new Map([[pot, 0]]) },
        ],
        mayMoveRest: true,
        says: ({ reads }) => [
          `${formatQuantity(reads[1]!, 's')} to ${formatQuantity(reads[0]!, 's')} after switching on, with ${c.ref} as it is.`,
        ],
        traps: ({ value }) => [
          ...(value(r.ref) + value(pot) > 2e6 && farad >= 1e-6
            ? ['So many ohms with an electrolytic: its leakage makes the time longer, or endless.']
            : []),
          ...(value(r.ref) < 1000
            ? ['Below 1 kΩ the timer cannot discharge the capacitor well: take a larger one.']
            : []),
        ],
      },
    ];
  },
};
