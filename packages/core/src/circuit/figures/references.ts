import type { Circuit } from '../circuit/index.ts';
import { Surroundings } from './pattern.ts';
import { classifyNets, type NetClass } from './rails.ts';

/** A quiet net that this many parts touch is drawn as a symbol at each of them, as a supply is. */
const SHARED_BY = 5;

/** Which nets are drawn as local symbols: ground, supplies, and the references that many parts share. */
export function drawnClasses(circuit: Circuit): (net: string) => NetClass {
  const around = new Surroundings(circuit);
  const classOf = classifyNets(circuit);
  const references = new Set(
    around
      .nets()
      .filter(
        (net) => classOf(net) === 'signal' && around.at(net).length >= SHARED_BY && around.isQuiet(net),
      ),
  );
  return (net) => (references.has(net) ? 'reference' : classOf(net));
}
