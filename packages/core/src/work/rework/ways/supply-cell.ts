import type { LayerPart } from '../../../circuit/circuit/index.ts';
import { formatQuantity } from '../../../base/quantity/index.ts';
import { capacitor, move, other, resistor } from './parts.ts';
import { cannot, near, type Place } from './place.ts';
import type { Goal, ReadoutSpec, Way } from './way.ts';

/** Ripple on the supply that what gets through is told for, V. */
const RIPPLE_V = 1;

interface Supplied {
  readonly supply: LayerPart;
  readonly net: string;
  readonly volts: number;
  readonly ampere: number;
}

/** A supply that stands at a net against the ground, or the chosen one. */
function supplyAt(place: Place): Supplied | null {
  const { part, net } = place;
  const found = place
    .supplies()
    .find(({ net: at, by }) => by.kind === 'supply' && (by.ref === part?.ref || at === net));
  if (!found || found.by.pins.plus === place.ground) return null;
  return { supply: found.by, net: found.net, volts: found.volts, ampere: place.ampere(found.by.ref) };
}

const rippleAt = ({ net, supply }: Supplied, frequencyHz: number): ReadoutSpec => ({
  kind: 'ripple',
  net,
  frequencyHz,
  sourceV: RIPPLE_V,
  source: supply.ref,
});

const asHum = (db: number, readout: ReadoutSpec): Goal => ({
  readout,
  aim: RIPPLE_V / 10 ** (db / 20),
  is: 'most',
  within: 0.12,
});

/** Ripple behind a full-wave rectifier has twice the frequency of the mains. */
const humAsks = ({ mainsHz }: Place) =>
  [
    { id: 'db', label: 'Hum down by', quantity: 'level', given: 20 },
    { id: 'hz', label: 'Of ripple at', quantity: 'frequency', given: 2 * mainsHz },
  ] as const;

const downWords = (hz: number, ripple: number) =>
  `ripple at ${formatQuantity(hz, 'Hz')} comes down by ${formatQuantity(-20 * Math.log10(ripple / RIPPLE_V), 'dB')}`;

const POLARITY =
  'What the lost voltage changes is in the readouts: headroom and rest positions come down with it.';
const GULPS = 'A stage that draws in gulps swings its own supply behind a resistor.';

/** A resistor takes the voltage that may be lost at the current drawn, a capacitor takes the hum. */
export const supplyCell: Way = {
  id: 'supply-cell',
  title: 'RC cell in the supply',
  isMoreSlower: true,
  isForHighTension: true,
  asks: (place) =>
    supplyAt(place)
      ? [{ id: 'lost', label: 'May lose', quantity: 'voltage', given: 1 }, ...humAsks(place)]
      : null,
  drafts(place, { lost, db, hz }) {
    const at = supplyAt(place)!;
    const { supply, net, volts, ampere } = at;
    if (!(ampere > 0)) throw cannot(`Nothing is drawn from ${supply.ref}.`);
    if (!(lost! > 0 && db! > 0 && hz! > 0))
      throw cannot('Some voltage must go, and some hum of some frequency.');
    if (!(lost! < Math.abs(volts))) throw cannot(`Only ${formatQuantity(Math.abs(volts), 'V')} stand there.`);
    const [r, c, raw] = [place.free('R'), place.free('C'), place.freeNet('raw')];
    const ohm = lost! / ampere;
    return [
      {
        name: 'RC cell',
        steps: [
          move(supply.ref, 'plus', raw),
          resistor(r, ohm, raw, net),
          capacitor(c, 10 ** (db! / 20) / (2 * Math.PI * hz! * ohm), net, place.ground, true),
        ],
        unknowns: [
          { refs: [r], series: 'E24', goal: 0 },
          { refs: [c], series: 'E6', goal: 1 },
        ],
        goals: [
          { readout: { kind: 'voltage', net }, aim: volts - lost!, is: 'equal', within: 0.05 },
          asHum(db!, rippleAt(at, hz!)),
        ],
        mayMoveRest: true,
        says: ({ value, reads, watts }) => [
          `${formatQuantity(reads[0]!, 'V')} of ${formatQuantity(volts, 'V')} are left, and ${downWords(hz!, reads[1]!)}.`,
          `${r} of ${formatQuantity(value(r), 'ohm')} makes ${formatQuantity(watts(r), 'W')} of heat; rate ${c} ${formatQuantity(1.5 * Math.abs(volts), 'V', { digits: 2 })} or more.`,
        ],
        traps: () => [POLARITY, GULPS],
      },
    ];
  },
};

/** A choke loses only what its wire does: for the same hum less voltage, more iron. */
export const supplyChoke: Way = {
  id: 'supply-choke',
  title: 'Choke in the supply',
  isMoreSlower: true,
  isForHighTension: true,
  asks: (place) =>
    supplyAt(place)
      ? [
          { id: 'henry', label: 'Choke', quantity: 'inductor', given: 1 },
          { id: 'wire', label: 'Its wire', quantity: 'resistor', given: 50 },
          ...humAsks(place),
        ]
      : null,
  drafts(place, { henry, wire, db, hz }) {
    const at = supplyAt(place)!;
    const { supply, net, volts, ampere } = at;
    if (!(henry! > 0 && wire! >= 0 && db! > 0 && hz! > 0))
      throw cannot('The choke, its hum and frequency are above zero.');
    const [l, c, raw] = [place.free('L'), place.free('C'), place.freeNet('raw')];
    const farad = (10 ** (db! / 20) + 1) / ((2 * Math.PI * hz!) ** 2 * henry!);
    return [
      {
        name: 'Choke cell',
        steps: [
          move(supply.ref, 'plus', raw),
          other({ ref: l, kind: 'inductor', pins: { a: raw, b: net }, marked: henry!, dcr: wire! }),
          capacitor(c, farad, net, place.ground, true),
        ],
        unknowns: [{ refs: [c], series: 'E6', goal: 0, least: 1 / ((2 * Math.PI * hz!) ** 2 * henry!) }],
        goals: [
          asHum(db!, rippleAt(at, hz!)),
          { readout: { kind: 'voltage', net }, aim: volts - wire! * ampere, is: 'equal', within: 0.1 },
        ],
        mayMoveRest: true,
        says: ({ value, reads }) => [
          `${formatQuantity(reads[1]!, 'V')} of ${formatQuantity(volts, 'V')} are left, and ${downWords(hz!, reads[0]!)} with ${formatQuantity(value(c), 'F')}.`,
        ],
        traps: ({ value }) => [
          `${l} and ${c} ring at ${formatQuantity(1 / (2 * Math.PI * Math.sqrt(henry! * value(c))), 'Hz')}: no stage may draw in that rhythm.`,
          'Switched off, a choke throws a spark: let the capacitor behind it take it.',
        ],
      },
    ];
  },
};

/** Fixed regulators that are sold, V (common practice). */
const SOLD_V = [5, 6, 8, 9, 12, 15, 18, 24];
/** A regulator of the usual kind keeps less than this of the ripple (data sheets, 60 dB and more). */
const DROPOUT_V = 2.5;

/** What such a case gets rid of on a heat sink of a size that fits, W (common practice). */
const MOST_HEAT_W = 10;

/** A regulator in place of a cell: what is left is fixed, and the hum is gone as far as its drop lasts. */
export const supplyRegulator: Way = {
  id: 'supply-regulator',
  title: 'Regulator in the supply',
  asks(place) {
    const at = supplyAt(place);
    const fits = at ? SOLD_V.filter((v) => v + DROPOUT_V <= at.volts) : [];
    return fits.length > 0
      ? [{ id: 'volts', label: 'Regulated to', quantity: 'voltage', given: fits.at(-1)! }]
      : null;
  },
  drafts(place, { volts: wanted }) {
    const { supply, net, volts, ampere } = supplyAt(place)!;
    const sold = SOLD_V.find((v) => Math.abs(v / wanted! - 1) < 0.02);
    if (sold === undefined) throw cannot(`Regulators are sold for ${SOLD_V.join(', ')} V.`);
    if (sold + DROPOUT_V > volts)
      throw cannot(
        `${formatQuantity(volts, 'V')} is too little for ${sold} V: it takes ${DROPOUT_V} V to work with.`,
      );
    if (ampere > 1)
      throw cannot(`${formatQuantity(ampere, 'A')} is more than a regulator of this size gives for long.`);
    const [u, raw, cIn, cOut] = [place.free('REG'), place.freeNet('raw'), place.free('C'), place.free('C')];
    return [
      {
        name: `Regulated to ${sold} V`,
        steps: [
          move(supply.ref, 'plus', raw),
          other({
            ref: u,
            kind: 'regulator',
            pins: { in: raw, out: net, gnd: place.ground },
            marked: sold,
            model: `78${String(sold).padStart(2, '0')}`,
          }),
          capacitor(cIn, near(330e-9, 'E6'), raw, place.ground),
          capacitor(cOut, near(100e-9, 'E6'), net, place.ground),
        ],
        unknowns: [],
        goals: [
          { readout: { kind: 'voltage', net }, aim: sold, is: 'equal', within: 0.01 },
          { readout: { kind: 'dissipation', part: u }, aim: MOST_HEAT_W, is: 'most', within: 0 },
        ],
        mayMoveRest: true,
        says: ({ reads }) => [
          `${formatQuantity(reads[0]!, 'V')} behind it, and ${formatQuantity(reads[1]!, 'W')} of heat in it${reads[1]! > 1 ? ': it needs a heat sink' : ''}.`,
        ],
        traps: () => [
          POLARITY,
          `The ripple's lowest point must stay ${DROPOUT_V} V above ${sold} V: measure it at ${raw} under load.`,
        ],
      },
    ];
  },
};
