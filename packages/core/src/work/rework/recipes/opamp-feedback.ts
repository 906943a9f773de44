import type { LayerPart } from '../../../circuit/circuit/index.ts';
import { cannot, type Spot } from './spot.ts';

/** An operational amplifier with its feedback by two resistors. */
export interface Feedback {
  readonly chip: LayerPart;
  /** From the output to the inverting input. */
  readonly rf: LayerPart;
  /** From the inverting input away. */
  readonly rg: LayerPart;
  readonly isInverting: boolean;
}

const between = (part: LayerPart, a: string, b: string): boolean =>
  part.kind === 'resistor' &&
  [part.pins.a, part.pins.b].includes(a) &&
  [part.pins.a, part.pins.b].includes(b);

/** The feedback that a chosen chip or resistor belongs to; nothing where it is none by two resistors. */
export function feedbackOf({ circuit, part }: Spot): Feedback | null {
  if (!part) return null;
  for (const chip of circuit.parts.filter((p) => p.kind === 'opamp')) {
    const [minus, out] = [chip.pins.minus, chip.pins.out];
    if (minus === undefined || out === undefined || minus === out) continue;
    const rf = circuit.parts.find((p) => between(p, minus, out));
    const rg = circuit.parts.find(
      (p) => p.kind === 'resistor' && p !== rf && Object.values(p.pins).includes(minus),
    );
    if (!rf || !rg || ![chip, rf, rg].some((p) => p.ref === part.ref)) continue;
    const far = rg.pins.a === minus ? rg.pins.b : rg.pins.a;
    const signal = circuit.parts.some((p) => p.kind === 'signal' && p.pins.plus === chip.pins.plus);
    const isGrounded = reachesGround({ circuit, far });
    return { chip, rf, rg, isInverting: !isGrounded && !signal };
  }
  return null;
}

/** Whether the far end of the lower resistor lies at the ground, straight or through a capacitor. */
function reachesGround({
  circuit,
  far,
}: {
  readonly circuit: Spot['circuit'];
  readonly far: string | undefined;
}): boolean {
  if (far === circuit.ground) return true;
  return circuit.parts.some(
    (p) =>
      p.kind === 'capacitor' &&
      [p.pins.a, p.pins.b].includes(far) &&
      [p.pins.a, p.pins.b].includes(circuit.ground),
  );
}

/** The ratio of feedback to lower resistor for a gain in dB. Throws where there is none. */
export function ratioFor(gainDb: number, isInverting: boolean): number {
  const ratio = 10 ** (gainDb / 20) - (isInverting ? 0 : 1);
  if (!(ratio > 0)) throw cannot('A stage that does not invert has a gain above 0 dB.');
  return ratio;
}

export const gainDbOf = (ratio: number, isInverting: boolean): number =>
  20 * Math.log10(isInverting ? ratio : 1 + ratio);
