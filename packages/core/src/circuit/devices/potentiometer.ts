import { controlState, type LayerPartOf } from '../circuit/index.ts';
import { thermalNoise } from './constants.ts';
import { addPair, pairSlots, type DeviceType } from './device.ts';

/** Resistance left at either end of the travel, as a fraction of the value. */
const END_RESISTANCE = 1e-4;
/** Base of the log taper (81^x - 1)/80: 10 % of the resistance at half travel. */
const LOG_BASE = 81;

/**
 * Fraction of the resistance between pin 1 and the wiper at a fraction of travel 0..1, for the tapers linear, log
 * and antilog.
 */
export function taperFraction(taper: LayerPartOf<'potentiometer'>['taper'], travel: number): number {
  const log = (x: number) => (LOG_BASE ** x - 1) / (LOG_BASE - 1);
  if (taper === 'log') return log(travel);
  if (taper === 'antilog') return 1 - log(1 - travel);
  return travel;
}

/** Two resistors that share the wiper (pin 2). Current counts in at the wiper. */
export const potentiometer: DeviceType<'potentiometer'> = {
  create(part, value, t) {
    const [one, wiper, three] = [t.node('1'), t.node('2'), t.node('3')];
    const lower = pairSlots(t, one, wiper);
    const upper = pairSlots(t, wiper, three);
    const fraction = taperFraction(part.taper, Math.min(1, Math.max(0, Number(controlState(part)))));
    let ohm = value ?? 1;
    const lowerS = () => 1 / (ohm * Math.max(fraction, END_RESISTANCE));
    const upperS = () => 1 / (ohm * Math.max(1 - fraction, END_RESISTANCE));
    return {
      ref: part.ref,
      stamp(m) {
        addPair(m.g, lower, lowerS());
        addPair(m.g, upper, upperS());
      },
      retune(next) {
        ohm = next;
      },
      report(x) {
        const below = x[wiper]! - x[one]!;
        const above = x[wiper]! - x[three]!;
        return {
          current: below * lowerS() + above * upperS(),
          power: below * below * lowerS() + above * above * upperS(),
        };
      },
      noise: () => [
        { from: one, to: wiper, white: thermalNoise(lowerS()), flicker: 0 },
        { from: wiper, to: three, white: thermalNoise(upperS()), flicker: 0 },
      ],
    };
  },
};
