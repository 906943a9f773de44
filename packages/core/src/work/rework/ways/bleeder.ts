import { ratedFor } from '../../desk/index.ts';
import { formatQuantity } from '../../../base/quantity/index.ts';
import { energyOf, HARMLESS_J, storedAt } from '../../../bench/isolate/index.ts';
import { resistor } from './parts.ts';
import { cannot, near } from './place.ts';
import type { Way } from './way.ts';

/** Below this a charged capacitor is not felt, V (IEC 60364: 60 V direct in the dry; half of it here). */
const SAFE_TO_V = 30;

/** R = t/(C ln(U/30 V)) across a reservoir, C all that empties through it. */
export const bleeder: Way = {
  id: 'bleeder',
  title: 'Bleeder across a reservoir capacitor',
  isForHighTension: true,
  asks(place) {
    const { part, ground } = place;
    const stored =
      part?.kind === 'capacitor' && Object.values(part.pins).includes(ground)
        ? storedAt(place.base, part.ref)
        : undefined;
    return stored && energyOf(stored) >= HARMLESS_J / 10 && stored.volt > SAFE_TO_V
      ? [{ id: 'time', label: 'Safe after', quantity: 'time', given: 30 }]
      : null;
  },
  drafts(place, { time }) {
    if (!(time! > 0)) throw cannot('It takes some time.');
    const part = place.part!;
    const stored = storedAt(place.base, part.ref);
    if (!stored || stored.volt <= SAFE_TO_V)
      throw cannot(`${formatQuantity(stored?.volt ?? 0, 'V')} stand across it: that needs no bleeder.`);
    const { farad, volt, lagS = 0, others = [] } = stored;
    const falls = Math.log(volt / SAFE_TO_V);
    const exact = (time! / falls - lagS) / farad;
    if (!(exact > 0))
      throw cannot(
        `Through what lies between ${[part.ref, ...others].join(' and ')} it takes longer: ask for more time.`,
      );
    // Downward in the series: no slower than was asked.
    const ohm = [near(exact, 'E12'), near(exact / 1.2, 'E12'), near(exact / 1.5, 'E12')].find(
      (v) => v <= exact * 1.001,
    )!;
    const r = place.free('R');
    const seconds = (ohm * farad + lagS) * falls;
    return [
      {
        name: 'Bleeder',
        steps: [resistor(r, ohm, part.pins.a!, part.pins.b!)],
        unknowns: [],
        goals: [
          {
            readout: { kind: 'dissipation', part: r },
            aim: (1.05 * volt ** 2) / ohm,
            is: 'most',
            within: 0.05,
          },
        ],
        mayMoveRest: true,
        says: ({ reads }) => {
          const rated = ratedFor(reads[0]!);
          return [
            `Down to ${SAFE_TO_V} V in ${formatQuantity(seconds, 's')}${others.length > 0 ? `, ${others.join(' and ')} with it` : ''}; it makes ${formatQuantity(reads[0]!, 'W')} of heat as long as the set is on${rated === undefined ? '' : `: take ${formatQuantity(rated, 'W')}`}.`,
          ];
        },
        traps: () => [
          `It stands at ${formatQuantity(volt, 'V')}: one resistor bears 250 V (small) to 350 V (usual); above that, two in series.`,
          'Fitting it is work on a set that is off, unplugged, discharged and measured. On the mains side it is work for whoever is licensed to do it.',
        ],
      },
    ];
  },
};
