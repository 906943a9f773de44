import { ratedFor } from '../../desk/index.ts';
import { formatQuantity } from '../../../base/quantity/index.ts';
import { other, resistor } from './parts.ts';
import { cannot } from './place.ts';
import type { Way } from './way.ts';

/** LEDs by what they drop at a few milliampere, V (data sheets, from memory). */
const BY_DROP = [
  { model: 'red', volts: 1.85 },
  { model: 'yellow', volts: 2 },
  { model: 'green', volts: 2.1 },
  { model: 'white', volts: 3 },
] as const;
/** A net that falls by more than this part of itself is no rail for a lamp. */
const STIFF_SHARE = 0.05;

/** A pilot LED from a rail, the resistor by the current that flows in the circuit as it is. */
export const ledResistor: Way = {
  id: 'led-resistor',
  title: 'Pilot LED from this net',
  asks: ({ net, ground }) =>
    net !== undefined && net !== ground
      ? [
          { id: 'ampere', label: 'Current', quantity: 'current', given: 0.003 },
          { id: 'drop', label: 'LED drops', quantity: 'voltage', given: 2 },
        ]
      : null,
  drafts(place, { ampere, drop }) {
    const net = place.net!;
    const volts = place.volts(net);
    if (!(drop! > 0 && volts > drop!))
      throw cannot(
        `${net} stands at ${formatQuantity(volts, 'V')}: that lights no LED that drops ${formatQuantity(drop!, 'V')}.`,
      );
    if (!(ampere! > 0)) throw cannot('Some current must flow.');
    const [led, r, between] = [place.free('LED'), place.free('R'), place.freeNet('led')];
    const { model } = [...BY_DROP].sort((a, b) => Math.abs(a.volts - drop!) - Math.abs(b.volts - drop!))[0]!;
    return [
      {
        name: 'Pilot LED',
        steps: [
          resistor(r, (volts - drop!) / ampere!, net, between),
          other({ ref: led, kind: 'led', model, pins: { a: between, k: place.ground } }),
        ],
        unknowns: [{ refs: [r], series: 'E24', goal: 0 }],
        goals: [
          { readout: { kind: 'current', part: led }, aim: ampere!, is: 'equal', within: 0.08 },
          { readout: { kind: 'voltage', net }, aim: volts, is: 'equal', within: STIFF_SHARE },
        ],
        mayMoveRest: true,
        says: ({ reads, value, watts }) => {
          const rated = ratedFor(watts(r));
          return [
            `${formatQuantity(reads[0]!, 'A')} flow through ${formatQuantity(value(r), 'ohm')}, which makes ${formatQuantity(watts(r), 'W')}${rated === undefined ? '' : `: take ${formatQuantity(rated, 'W')}`}.`,
          ];
        },
        traps: () => ['It loads the rail by as much: a battery lasts that much shorter.'],
      },
    ];
  },
};
