import type { Layer } from '@zemble/contract';
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

const known = new WeakMap<Circuit, Map<Layer, readonly SeenPart[]>>();

/**
 * The parts of a layer as they are seen there, and after them those that its changes take out, as they were: what is
 * drawn, and listed. It is made once for a circuit.
 */
export function seenParts(circuit: Circuit, layer: Layer): readonly SeenPart[] {
  const layers = known.get(circuit) ?? new Map<Layer, readonly SeenPart[]>();
  const seen = layers.get(layer) ?? lookAt(circuit, layer);
  known.set(circuit, layers.set(layer, seen));
  return seen;
}

function lookAt(circuit: Circuit, layer: Layer): SeenPart[] {
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
      const { marked, found: _f, proven: _p, foundParams: _b, saidPins: _s, ...bare } = part;
      const value = marked ?? null;
      return { part: { ...bare, value } as LayerPart, marked: value, from: 'marked', fate: 'removed' };
    }),
  ];
}

/** The parts of a layer as they are bought and fitted: with what is printed on them, not what they measure. */
export const printedParts = (circuit: Circuit, layer: Layer): readonly LayerPart[] =>
  seenParts(circuit, layer)
    .filter(({ fate }) => fate !== 'removed')
    .map(({ part, marked }) => ({ ...part, value: marked }) as LayerPart);

/**
 * The circuit that is drawn of a layer: its parts as they are wired there, and those that were taken out. A part in whose
 * place another is fitted is drawn as it came, so that a value that is turned moves nothing.
 */
export function drawnCircuit(circuit: Circuit, seen: readonly SeenPart[]): Circuit {
  const came = new Map(circuit.parts.map((p) => [p.ref, p]));
  const parts = seen.map(({ part: { value: _value, ...part }, marked, fate }) => {
    const old = fate === 'fitted' ? came.get(part.ref) : undefined;
    return { ...part, marked: old ? markedValue(old) : marked } as Part;
  });
  return { ground: circuit.ground, parts, ...(circuit.models ? { models: circuit.models } : {}) };
}

const isRewired = (old: Part, now: LayerPart): boolean =>
  Object.entries(now.pins).some(([pin, net]) => old.pins[pin] !== net);
