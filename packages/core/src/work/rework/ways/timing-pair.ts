import type { LayerPart } from '../../../circuit/circuit/index.ts';
import type { Place } from './place.ts';

/** Two capacitors that time an oscillator together. */
export interface TimingPair {
  readonly other: LayerPart;
  /** Two that take turns add up; two of a Wien bridge act by their geometric mean. */
  readonly way: 'turns' | 'wien';
  /** What of the whole period is the chosen one's turn, 0..1. */
  readonly share: number;
}

const isBetween = ({ pins }: LayerPart, a: string | undefined, b: string | undefined): boolean =>
  (pins.a === a && pins.b === b) || (pins.a === b && pins.b === a);

/** The partner of a chosen timing capacitor; null where it has none that is known. */
export const timingPairOf = (place: Place): TimingPair | null =>
  place.part?.kind === 'capacitor' ? (turnsOf(place, place.part) ?? wienOf(place, place.part)) : null;

/** Two transistors, each collector coupled to the other's base: every capacitor times its turn, ln 2 R C. */
function turnsOf(place: Place, chosen: LayerPart): TimingPair | null {
  const { circuit } = place;
  const transistors = circuit.parts.filter((p) => p.kind === 'bjt');
  const couples = (c: LayerPart, from: LayerPart, to: LayerPart) => isBetween(c, from.pins.c, to.pins.b);
  for (const one of transistors)
    for (const two of transistors) {
      if (one === two || !couples(chosen, one, two)) continue;
      const other = circuit.parts.find((p) => p.kind === 'capacitor' && p !== chosen && couples(p, two, one));
      const [own, others] = [two, one].map((q) =>
        circuit.parts.find((p) => p.kind === 'resistor' && Object.values(p.pins).includes(q.pins.b!)),
      );
      if (!other || !own || !others) return null;
      const [mine, its] = [place.worth(own) * place.worth(chosen), place.worth(others) * place.worth(other)];
      return { other, way: 'turns', share: mine / (mine + its) };
    }
  return null;
}

/** One capacitor in series with a resistor from the output, one across a resistor from the same node to the ground. */
function wienOf({ circuit }: Place, chosen: LayerPart): TimingPair | null {
  const capacitors = circuit.parts.filter((p) => p.kind === 'capacitor');
  const resistors = circuit.parts.filter((p) => p.kind === 'resistor');
  for (const { pins } of circuit.parts.filter((p) => p.kind === 'opamp')) {
    const [node, out] = [pins.plus, pins.out];
    if (node === undefined || out === undefined) continue;
    const shunt = capacitors.find((c) =>
      resistors.some((r) => Object.values(c.pins).includes(node) && isBetween(r, c.pins.a, c.pins.b)),
    );
    const series = capacitors.find((c) => c !== shunt && resistors.some((r) => isInSeries(c, r, node, out)));
    if (!shunt || !series || (chosen !== shunt && chosen !== series)) continue;
    return { other: chosen === shunt ? series : shunt, way: 'wien', share: 0.5 };
  }
  return null;
}

/** Whether two parts lie one after the other between two nets. */
function isInSeries(one: LayerPart, two: LayerPart, from: string, to: string): boolean {
  const [a, b] = [Object.values(one.pins), Object.values(two.pins)];
  const middle = a.find((net) => b.includes(net) && net !== from && net !== to);
  const ends = [...a, ...b].filter((net) => net !== middle);
  return middle !== undefined && ends.length === 2 && ends.includes(from) && ends.includes(to);
}
