import type { LayerCircuit } from '../../circuit/circuit/index.ts';
import { probePlaces } from '../../circuit/pinout/index.ts';

/** A net with where hands find it: "n3 (R4, its end a)". */
export function netWords(circuit: Pick<LayerCircuit, 'parts' | 'ground'>, net: string): string {
  if (net === circuit.ground) return 'ground';
  const [place] = probePlaces(circuit.parts, net);
  return place ? `${net} (${place.short})` : net;
}
