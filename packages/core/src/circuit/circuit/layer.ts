import {
  definitionOf,
  type BarePart,
  type FilePart,
  type Layer,
  type MeasuredParams,
  type OwnModel,
  type PartKind,
  type ValueLayer,
} from '@zemble/contract';
import { KINDS } from './kinds.ts';
import type { LayerValue, Part } from './part.ts';
import { asTypedNet } from './ground-word.ts';

/** A value that a part has: a number in SI units, or dead. */
export type Value = Exclude<LayerValue, null>;

/** A part of one kind as it is on one layer: one value, or none. */
export type LayerPartOf<K extends PartKind> = BarePart<K> & {
  readonly value: Value | null;
  /** Nothing beeps with it yet: it is drawn and counted, and absent in analysis. */
  readonly isUntraced?: true | undefined;
};
export type LayerPart = { [K in PartKind]: LayerPartOf<K> }[PartKind];

/**
 * A circuit as it is on one layer, resolved once and never changed: all that analysis sees. Whoever wants another one
 * makes a new one of it.
 */
export interface LayerCircuit {
  readonly ground: string;
  readonly parts: readonly LayerPart[];
  readonly models?: readonly OwnModel[] | undefined;
  /** Nets that a wire joined to another, by the name that holds now: who asks for the old one means the new one. */
  readonly renamed?: ReadonlyMap<string, string> | undefined;
  /** Nets where something was taken away: a leg lifted, a track cut, a part out. What floats by that rests in the air. */
  readonly loose?: readonly string[] | undefined;
}

/**
 * The name that a net has in a circuit of a layer: its own, or that of the one it was joined to. A word for the ground is the
 * ground's, where no net has it for its name.
 */
export function netNamed(circuit: Pick<LayerCircuit, 'renamed' | 'ground' | 'parts'>, net: string): string {
  return asTypedNet(circuit.renamed?.get(net) ?? net, circuit);
}

/** Layers whose values hold for a part as it came, the later before the earlier. */
const VALUES: Readonly<Record<Layer, readonly ValueLayer[]>> = {
  marked: ['marked'],
  found: ['found', 'marked'],
  planned: ['found', 'marked'],
  proven: ['proven', 'found', 'marked'],
};

/** The value of a part as it came on a layer, and which of its values it is; null when it has none. What changes fit is not in it. */
export function valueOnLayer(part: Part, layer: Layer): { layer: ValueLayer; value: Value } | null {
  for (const own of VALUES[layer]) {
    const value = part[own];
    if (value !== null && value !== undefined) return { layer: own, value };
  }
  return null;
}

/** What is printed on a part; null where nothing is. */
export const markedValue = (part: Part): LayerValue => part.marked ?? null;

/** The number printed on a part; null where none is, or it is marked dead. */
export const markedNumber = (part: Pick<FilePart, 'marked'>): number | null =>
  typeof part.marked === 'number' ? part.marked : null;

/**
 * A part as it came, on a layer. What was measured beside the main value holds where the found value does, or would: not on
 * the marked layer, nor where it was measured after the work.
 */
export function resolvePart(part: Part, layer: Layer): LayerPart {
  const { marked: _m, found: _f, proven: _v, foundParams, saidPins: _said, ...bare } = part;
  const held = valueOnLayer(part, layer);
  const resolved = { ...bare, value: held?.value ?? null } as LayerPart;
  return foundParams === undefined || layer === 'marked' || held?.layer === 'proven'
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

/** Whether a part takes part in analysis. */
export const isModelled = (part: LayerPart): boolean => KINDS[part.kind].hasModel && part.isUntraced !== true;
