import type { LayerPart } from '../../../circuit/circuit/index.ts';
import { formatQuantity } from '../../../base/quantity/index.ts';
import type { Recipe } from './recipe.ts';
import { cannot, type Spot } from './spot.ts';

const LOADS: ReadonlySet<string> = new Set(['speaker', 'load']);

/** A load from an output to the ground, with another like it at another output. */
function pairOf({ part, circuit }: Spot): { readonly grounded: string; readonly twin: LayerPart } | null {
  if (!part || !LOADS.has(part.kind)) return null;
  const groundPin = ({ pins }: LayerPart) => Object.keys(pins).find((name) => pins[name] === circuit.ground);
  const grounded = groundPin(part);
  const twin = circuit.parts.find(
    (p) =>
      p !== part &&
      p.kind === part.kind &&
      groundPin(p) !== undefined &&
      liveOf(p, circuit.ground) !== liveOf(part, circuit.ground),
  );
  return grounded === undefined || !twin ? null : { grounded, twin };
}

const liveOf = ({ pins }: LayerPart, ground: string): string | undefined =>
  Object.values(pins).find((net) => net !== ground);

/** One load between two outputs that move against each other: twice the voltage, four times the power, half the load for each. */
export const bridgeLoad: Recipe = {
  id: 'bridge-load',
  title: 'Bridge two outputs for one load',
  asks: (spot) => (pairOf(spot) ? [] : null),
  make(spot) {
    const part = spot.part!;
    const { grounded, twin } = pairOf(spot)!;
    const ground = spot.circuit.ground;
    const [own, other] = [liveOf(part, ground)!, liveOf(twin, ground)!];
    const apart = spot.volts(own) - spot.volts(other);
    const ohm = spot.worth(part);
    if (Math.abs(apart) > MOST_APART_V)
      throw cannot(
        `${own} and ${other} rest ${formatQuantity(Math.abs(apart), 'V')} apart, which would drive ${formatQuantity(Math.abs(apart) / ohm, 'A')} through ${part.ref}: bring them together first.`,
      );
    return {
      line: `Bridged: -${twin.ref}; ${part.ref}.${grounded} to ${other}`,
      says: [
        `${part.ref} lies between ${own} and ${other}: up to twice the voltage and four times the power.`,
        `Each output sees ${formatQuantity(ohm / 2, 'ohm')} and gives twice the current; at rest ${formatQuantity(Math.abs(apart), 'V')} stand across it.`,
      ],
      traps: [
        `${other} must move against ${own}: turn its input over, or ${part.ref} gets nothing.`,
        'Neither end is ground any more: no ground clip of a scope, no common return of a headphone jack.',
        `Amplifiers rated for ${formatQuantity(ohm, 'ohm')} at the least must not be bridged into it.`,
      ],
    };
  },
};

/** Outputs farther apart than this at rest heat a voice coil, V (common practice). */
const MOST_APART_V = 0.1;
