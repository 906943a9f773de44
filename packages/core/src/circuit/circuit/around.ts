import type { LayerCircuit, LayerPart } from './layer.ts';
import { UnionFind } from './union-find.ts';

const isStiff = (part: LayerPart): part is LayerPart & { readonly kind: 'supply' } =>
  part.kind === 'supply' && (part.resistance ?? 0) === 0;

/** Nets that supplies without resistance hold at a voltage of their own, ground among them: nothing passes from one part to another there. */
function heldNets({ parts, ground }: LayerCircuit): ReadonlySet<string> {
  const held = new Set([ground]);
  const supplies = parts.filter(isStiff);
  for (let size = 0; size !== held.size;) {
    size = held.size;
    for (const { pins } of supplies) {
      const nets = Object.values(pins);
      if (nets.some((net) => held.has(net))) for (const net of nets) held.add(net);
    }
  }
  return held;
}

/**
 * A circuit without what cannot act on a net: what is joined to it only over ground and nets that supplies without resistance hold.
 * The supplies stay. An oscillator beside another on one supply is by itself there.
 */
export function aroundNet(circuit: LayerCircuit, net: string): LayerCircuit {
  const held = heldNets(circuit);
  if (held.has(net)) return circuit;
  const joined = new UnionFind();
  const freeOf = ({ pins }: LayerPart) => Object.values(pins).filter((n) => !held.has(n));
  for (const part of circuit.parts) {
    const [first, ...rest] = freeOf(part);
    for (const other of rest) joined.join(first!, other);
  }
  const parts = circuit.parts.filter(
    (part) => isStiff(part) || freeOf(part).some((n) => joined.find(n) === joined.find(net)),
  );
  return parts.length === circuit.parts.length ? circuit : { ...circuit, parts };
}
