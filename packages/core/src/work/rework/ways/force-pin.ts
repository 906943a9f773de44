import { formatQuantity } from '../../../base/quantity/index.ts';
import { contact, resistor } from './parts.ts';
import { cannot, near, type Place } from './place.ts';
import type { Answers, Ask, Draft, Way } from './way.ts';

/** A rail that was typed is the one that is no farther from it than this, as a share. */
const SAME_RAIL = 0.1;
/** High is from this part of the supply for a CMOS input (data sheet). */
const HIGH_SHARE = 0.7;

/** Positive rails, the lowest first, of which a pin may be pulled to one. */
const railsOf = (place: Place) => place.supplies().filter((s) => s.volts > 1);

/** A tone above this for 1 V at its source makes a net one of the signal, V. */
const SIGNAL_V = 1e-3;

/** A net that something may drive: no rail, nothing in the way of a signal, and no input that holds a loop together. */
function isPin(place: Place): boolean {
  const { net } = place;
  if (net === undefined || net === place.ground || place.tone(net) > SIGNAL_V) return false;
  const isInLoop = place.at(net).some((p) => p.kind === 'opamp' && [p.pins.minus, p.pins.out].includes(net));
  if (isInLoop) return false;
  return !place.supplies().some((s) => s.net === net) && railsOf(place).length > 0;
}

function asksOf(place: Place): readonly Ask[] {
  const [lowest] = railsOf(place);
  return [
    { id: 'rail', label: 'To the rail of', quantity: 'voltage', given: lowest!.volts },
    { id: 'most', label: 'The pin bears', quantity: 'voltage', given: lowest!.volts },
    { id: 'ampere', label: 'Its driver bears', quantity: 'current', given: 1e-3 },
  ];
}

/** Where the pin goes with a resistor to a rail, the ways to be checked against what it bears. */
function pulled(place: Place, { rail, most, ampere }: Answers, isSwitched: boolean): Draft {
  const net = place.net!;
  if (!(ampere! > 0)) throw cannot('Some current must be allowed.');
  const rails = railsOf(place);
  const to = rails.find((r) => Math.abs(r.volts / rail! - 1) < SAME_RAIL);
  if (!to)
    throw cannot(
      `No rail has ${formatQuantity(rail!, 'V')}: there are ${rails.map((r) => `${r.net} with ${formatQuantity(r.volts, 'V')}`).join(', ')}.`,
    );
  // At the worst its driver holds the pin at the ground.
  const ohm = near(to.volts / ampere! / 0.97);
  const [r, sw, between] = [place.free('R'), place.free('SW'), place.freeNet('pull')];
  return {
    name: isSwitched ? `Force ${net} high` : `Pull ${net} up`,
    steps: isSwitched
      ? [resistor(r, ohm, between, net), contact(sw, to.net, between)]
      : [resistor(r, ohm, to.net, net)],
    unknowns: [],
    goals: [{ readout: { kind: 'voltage', net }, aim: most!, is: 'most', within: 0.01 }],
    mayMoveRest: true,
    says: ({ reads }) => [
      `At most ${formatQuantity(to.volts / ohm, 'A')} flow into who drives ${net}; it comes up to ${formatQuantity(reads[0]!, 'V')} from ${to.net}, with what is at it.`,
    ],
    traps: ({ reads }) => [
      `High is valid from about ${formatQuantity(HIGH_SHARE * most!, 'V')} for a CMOS input on ${formatQuantity(most!, 'V')} (data sheet: 0.7 of the supply).${reads[0]! < HIGH_SHARE * most! ? ' This is not reached: its driver must be cut off.' : ''}`,
    ],
  };
}

/** A control pin is pulled up by a switch through a resistor that keeps who drives it unharmed. */
export const forcePin: Way = {
  id: 'force-pin',
  title: 'Force a control pin high by a switch',
  asks: (place) => (isPin(place) ? asksOf(place) : null),
  drafts: (place, answers) => [pulled(place, answers, true)],
};

/** A resistor to a rail that is chosen, for an output that only pulls down, or a pin that must not float. */
export const pullUp: Way = {
  id: 'pull-up',
  title: 'Pull-up to a rail',
  asks: (place) => (isPin(place) ? asksOf(place) : null),
  drafts: (place, answers) => [pulled(place, answers, false)],
};
