import type { Layer } from '@halfsplit/contract';
import {
  markedValue,
  valueOnLayer,
  type Circuit,
  type LayerPart,
  type LayerValue,
  type Part,
} from '../circuit/index.ts';
import { buildLayer } from './layer.ts';

/** What the changes of a layer do with a part. */
export type Fate = 'added' | 'fitted' | 'rewired' | 'removed';

/** A part as it is seen on a layer. */
export interface SeenPart {
  readonly part: LayerPart;
  /** What is printed on it. */
  readonly marked: LayerValue;
  /** The layer that its value is of; null where it has none. */
  readonly from: Layer | null;
  readonly fate?: Fate | undefined;
}

/**
 * The parts of a layer as they are seen there, and after them those that its changes take out, as they were: what is
 * drawn, and listed.
 */
export function seenParts(circuit: Circuit, layer: Layer): SeenPart[] {
  const { circuit: now, changes, unmeasured } = buildLayer(circuit, layer);
  const steps = changes.flatMap(({ change, made }) => (made.length > 0 ? change.steps : []));
  const fitted = new Set(steps.flatMap((s) => (s.do === 'fit' ? [s.ref] : [])));
  const came = new Map(circuit.parts.map((p) => [p.ref, p]));
  const seen = now.parts.map((part): SeenPart => {
    const old = came.get(part.ref);
    if (!old || fitted.has(part.ref)) {
      const marked = unmeasured.get(part.ref)?.value ?? null;
      return { part, marked, from: part.value === null ? null : layer, fate: old ? 'fitted' : 'added' };
    }
    const from = valueOnLayer(old, layer)?.layer ?? null;
    return { part, marked: markedValue(old), from, ...(isRewired(old, part) ? { fate: 'rewired' } : {}) };
  });
  const there = new Set(now.parts.map((p) => p.ref));
  const gone = circuit.parts.filter((p) => !there.has(p.ref));
  return [
    ...seen,
    ...gone.map((part): SeenPart => {
      const { marked, found: _f, proven: _p, foundParams: _b, ...bare } = part;
      const value = marked ?? null;
      return { part: { ...bare, value } as LayerPart, marked: value, from: 'marked', fate: 'removed' };
    }),
  ];
}

/** The circuit that is drawn of a layer: its parts as they are marked and wired there, and those that were taken out. */
export const drawnCircuit = (circuit: Circuit, seen: readonly SeenPart[]): Circuit => ({
  ground: circuit.ground,
  parts: seen.map(({ part: { value: _value, ...part }, marked }) => ({ ...part, marked }) as Part),
  ...(circuit.models ? { models: circuit.models } : {}),
});

const isRewired = (old: Part, now: LayerPart): boolean =>
  Object.entries(now.pins).some(([pin, net]) => old.pins[pin] !== net);
