import {
  definitionOf,
  LAYERS,
  type BarePart,
  type FilePart,
  type Layer,
  type MeasuredParams,
  type OwnModel,
  type PartKind,
} from '@halfsplit/contract';
import type { Circuit, LayerValue, Part } from './part.ts';

/** A value that a part has: a number in SI units, or dead. */
export type Value = Exclude<LayerValue, null>;

/** A part of one kind as it is on one layer: one value, or none. */
export type LayerPartOf<K extends PartKind> = BarePart<K> & { readonly value: Value | null };
export type LayerPart = { [K in PartKind]: LayerPartOf<K> }[PartKind];

/**
 * A circuit as it is on one layer, resolved once and never changed: all that analysis sees. Whoever wants another one
 * makes a new one of it.
 */
export interface LayerCircuit {
  readonly ground: string;
  readonly parts: readonly LayerPart[];
  readonly models?: readonly OwnModel[] | undefined;
}

/** What a part says on one layer, without falling back; undefined and null are nothing. */
export function ownValue(part: Part, layer: Layer): LayerValue | undefined {
  switch (layer) {
    case 'marked':
      return part.marked;
    case 'found':
      return part.found;
    case 'planned':
      return part.planned;
    case 'proven':
      return part.proven;
  }
}

/** The layer a part's value comes from when `layer` is asked for, and the value; null when no layer has one. */
export function valueOnLayer(part: Part, layer: Layer): { layer: Layer; value: Value } | null {
  for (let i = LAYERS.indexOf(layer); i >= 0; i -= 1) {
    const value = ownValue(part, LAYERS[i]!);
    if (value !== null && value !== undefined) return { layer: LAYERS[i]!, value };
  }
  return null;
}

/** What is printed on a part; null where nothing is. */
export const markedValue = (part: Part): LayerValue => part.marked ?? null;

/** The number printed on a part; null where none is, or it is marked dead. */
export const markedNumber = (part: Pick<FilePart, 'marked'>): number | null =>
  typeof part.marked === 'number' ? part.marked : null;

/** The circuit of a layer: every part with the value that holds there. */
export function resolveLayer(circuit: Circuit, layer: Layer): LayerCircuit {
  return {
    ground: circuit.ground,
    parts: circuit.parts.map((part) => resolvePart(part, layer)),
    ...(circuit.models ? { models: circuit.models } : {}),
  };
}

/**
 * One part as it is on a layer. What was measured beside the main value holds where the found value does, or would: not on
 * the marked layer, nor where another part is planned or fitted.
 */
export function resolvePart(part: Part, layer: Layer): LayerPart {
  const { marked: _m, found: _f, planned: _p, proven: _v, foundParams, ...bare } = part;
  const held = valueOnLayer(part, layer);
  const resolved = { ...bare, value: held?.value ?? null } as LayerPart;
  const isAnother = held !== null && LAYERS.indexOf(held.layer) > LAYERS.indexOf('found');
  return foundParams === undefined || layer === 'marked' || isAnother
    ? resolved
    : withMeasured(resolved, foundParams);
}

/** A part with measured values in its fields and parameters. */
function withMeasured(part: LayerPart, measured: MeasuredParams): LayerPart {
  const { params } = definitionOf(part.kind);
  const isParameter = ([name]: readonly [string, number]) => name in params;
  const all = Object.entries(measured);
  const inside = all.filter(isParameter);
  return {
    ...part,
    ...Object.fromEntries(all.filter((entry) => !isParameter(entry))),
    ...(inside.length > 0 ? { params: { ...part.params, ...Object.fromEntries(inside) } } : {}),
  } as LayerPart;
}

/** Whether any part has a value of its own on a layer: if none has, the layer is the one before it. */
export const hasOwnValues = (circuit: Circuit, layer: Layer): boolean =>
  circuit.parts.some((p) => {
    const value = ownValue(p, layer);
    return (value !== null && value !== undefined) || (layer === 'found' && p.foundParams !== undefined);
  });

/** The same circuit with one layer's value of some parts replaced. */
export function withValues(circuit: Circuit, layer: Layer, values: ReadonlyMap<string, LayerValue>): Circuit {
  return {
    ...circuit,
    parts: circuit.parts.map((p) => (values.has(p.ref) ? { ...p, [layer]: values.get(p.ref) ?? null } : p)),
  };
}
