import type { Circuit, Part } from '../circuit/index.ts';

export type NetClass = 'ground' | 'positive rail' | 'negative rail' | 'reference' | 'signal';

/** Names that people give to supply nets. */
const POSITIVE_NAME = /^(v\+|\+v|vcc|vdd|vplus|b\+|ht|\+\d.*)$/i;
const NEGATIVE_NAME = /^(v-|-v|vee|vss|vminus|-\d.*)$/i;

/** Which nets are drawn as local symbols: the ground and the nets that a supply holds against it. */
export function classifyNets(circuit: Circuit): (net: string) => NetClass {
  const rails = new Map<string, NetClass>([[circuit.ground, 'ground']]);
  const supplies = circuit.parts.filter((p) => p.kind === 'supply');
  for (let isGrowing = true; isGrowing;) {
    isGrowing = supplies.map((s) => mark(rails, s)).some(Boolean);
  }
  for (const part of circuit.parts) {
    for (const net of Object.values(part.pins)) {
      if (rails.has(net)) continue;
      if (POSITIVE_NAME.test(net)) rails.set(net, 'positive rail');
      else if (NEGATIVE_NAME.test(net)) rails.set(net, 'negative rail');
    }
  }
  return (net) => rails.get(net) ?? 'signal';
}

function mark(rails: Map<string, NetClass>, supply: Part): boolean {
  const { plus, minus } = supply.pins;
  if (plus === undefined || minus === undefined) return false;
  if (rails.has(minus) && !rails.has(plus)) return Boolean(rails.set(plus, 'positive rail'));
  if (rails.has(plus) && !rails.has(minus)) return Boolean(rails.set(minus, 'negative rail'));
  return false;
}
