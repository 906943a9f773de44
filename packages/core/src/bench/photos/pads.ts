import type { Part } from '../../circuit/circuit/index.ts';
import { pinText } from '../../circuit/continuity/index.ts';
import {
  numberOfPin,
  pinByNumber,
  pinoutOf,
  unitOfPackage,
  type Outline,
} from '../../circuit/pinout/index.ts';

/** How the pads of a part are marked on a photo. */
export interface PadPlan {
  /** "C3", "U1": what is marked. */
  readonly name: string;
  /** Pins to be tapped one after the other, as they are called where they are touched. */
  readonly taps: readonly string[];
  /** The outline that the taps lay on the board; none where every pad is tapped. */
  readonly outline?: Outline;
  /** Targets of the pads in the order of the outline's pins, or of the taps; none for a pin that is not of the circuit. */
  readonly targets: readonly (readonly string[])[];
}

/**
 * How the pads of a part are marked: both ends of a part with two, two pins of a package whose order is sure, every pin of what
 * comes in several orders.
 *
 * @param tapped the two pins by which an outline is laid, by their numbers
 */
export function padPlan(
  parts: readonly Part[],
  ref: string,
  tapped: (outline: Outline) => readonly [number, number],
): PadPlan | undefined {
  const part = parts.find((p) => p.ref === ref);
  if (!part) return undefined;
  const known = pinoutOf(part);
  const pins = Object.keys(part.pins);
  const isSure =
    known?.outline !== undefined && !known.isAssumed && known.outline.pins === known.variant.pins.length;
  if (!isSure || pins.length < 3)
    return { name: ref, taps: pins, targets: pins.map((pin) => [pinText(ref, pin)]) };
  const own = unitOfPackage(ref);
  const units = own ? parts.filter((p) => unitOfPackage(p.ref)?.designator === own.designator) : [part];
  const targets = known.variant.pins.map((_, i) => {
    const entry = pinByNumber(part, i + 1);
    if (!entry) return [];
    return units.flatMap((unit) =>
      Object.hasOwn(unit.pins, entry.pin) && numberOfPin(unit, entry.pin) === i + 1
        ? [pinText(unit.ref, entry.pin)]
        : [],
    );
  });
  return {
    name: own?.designator ?? ref,
    taps: tapped(known.outline!).map((number) => `pin ${number}`),
    outline: known.outline!,
    targets,
  };
}
