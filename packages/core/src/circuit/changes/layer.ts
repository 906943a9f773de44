import { isTemporary, LAYERS, type Change, type Layer } from '@zemble/contract';
import {
  resolvePart,
  untracedNets,
  untracedParts,
  type Circuit,
  type LayerCircuit,
  type LayerPart,
  type LayerValue,
  type Part,
} from '../circuit/index.ts';
import { tracedNames } from '../continuity/index.ts';
import type { Problem } from '../../base/errors/index.ts';
import { withSharedPins } from '../pinout/index.ts';
import { applyChange, type ChangedCircuit, type Inverse } from './apply.ts';

/** How a layer is to be seen. */
export interface LayerOptions {
  /** The set that is taken instead of the active one. */
  readonly set?: string | undefined;
}

/** A change that was made to a layer, or could not be. */
export interface MadeChange {
  readonly change: Change;
  /** Why it could not be made. */
  readonly problem?: Problem | undefined;
  /** What its steps were made to and what takes them back, in their order; none where it was not made. */
  readonly made: readonly { readonly before: ChangedCircuit; readonly inverse: Inverse }[];
}

/** A layer of a circuit with what was done to get there. */
export interface BuiltLayer {
  readonly circuit: LayerCircuit;
  readonly changes: readonly MadeChange[];
  /** Parts that changes put in, without what was measured of them. */
  readonly unmeasured: ReadonlyMap<string, LayerPart>;
}

/** The set that is active: undefined where none is. */
export const activeSet = (circuit: Pick<Circuit, 'sets'>): string | undefined =>
  circuit.sets?.find((s) => s.active === true)?.id;

/** Whether a layer shows a change, with a set. */
function isShown(change: Change, layer: Layer, set: string | undefined): boolean {
  const { state } = change;
  switch (layer) {
    case 'marked':
      return false;
    case 'found':
      return isTemporary(change) && state === 'done';
    case 'planned':
      return (
        !isTemporary(change) &&
        (state === 'planned' || state === 'done') &&
        (change.set === undefined || change.set === set)
      );
    case 'proven':
      return state === 'done';
  }
}

/** The changes that a layer shows, in order. */
export const changesOn = (circuit: Circuit, layer: Layer, options: LayerOptions = {}): Change[] => {
  const set = options.set ?? activeSet(circuit);
  return (circuit.changes ?? []).filter((c) => isShown(c, layer, set));
};

/**
 * The circuit of a layer, made once: the parts as they came with the values of the layer, and the changes that it shows
 * made to them in order. A change that cannot be made is left out, with its problem; the others are made.
 */
export function buildLayer(circuit: Circuit, layer: Layer, options: LayerOptions = {}): BuiltLayer {
  const shown = changesOn(circuit, layer, options);
  const untraced = untracedParts(circuit);
  let now: ChangedCircuit = {
    ground: circuit.ground,
    // What was measured after the work belongs to what the work put in.
    parts: circuit.parts.map((p) => {
      const part = resolvePart(p, layer === 'proven' ? 'found' : layer);
      return untraced.has(p.ref) ? { ...part, isUntraced: true as const } : part;
    }),
    ...(circuit.models ? { models: circuit.models } : {}),
    renamed: tracedNames(circuit),
    // What is not traced yet hangs in the air, as what was taken away does.
    loose: [...(circuit.loose ?? []), ...untracedNets(circuit)],
    came: new Map(shown.length === 0 ? [] : circuit.parts.map((p) => [p.ref, p] as const)),
    unmeasured: new Map(),
  };
  const changes: MadeChange[] = [];
  for (const change of shown) {
    const outcome = applyChange(now, change);
    changes.push({
      change,
      ...(outcome.ok ? { made: outcome.made } : { made: [], problem: outcome.problem }),
    });
    if (outcome.ok) now = outcome.circuit;
  }
  const parts = layer === 'proven' ? withProven(now.parts, partsIn(circuit.parts, changes)) : now.parts;
  const plain: LayerCircuit = {
    ground: now.ground,
    // After the changes: a supply pin of a package that was moved or lifted is that of all its units.
    parts: withSharedPins(parts),
    ...(now.models ? { models: now.models } : {}),
    ...(now.renamed.size > 0 ? { renamed: now.renamed } : {}),
    ...(now.loose.length > 0 ? { loose: now.loose } : {}),
  };
  return { circuit: plain, changes, unmeasured: now.unmeasured };
}

/** The parts that came and those that changes put in, as they are written down. */
const partsIn = (came: readonly Part[], changes: readonly MadeChange[]): Part[] => [
  ...came,
  ...changes.flatMap(({ change, made }) =>
    made.length === 0 ? [] : change.steps.flatMap((step) => (step.do === 'add' ? [step.part] : [])),
  ),
];

/** The circuit of a layer, as `buildLayer` makes it. */
export const resolveLayer = (circuit: Circuit, layer: Layer, options?: LayerOptions): LayerCircuit =>
  buildLayer(circuit, layer, options).circuit;

/** What was measured after the work comes before all else on the layer of what is proven. */
function withProven(parts: readonly LayerPart[], written: readonly Part[]): readonly LayerPart[] {
  const proven = new Map(
    written.flatMap((p) => (p.proven === null || p.proven === undefined ? [] : [[p.ref, p] as const])),
  );
  if (proven.size === 0) return parts;
  return parts.map((p) => {
    const own = proven.get(p.ref)?.proven;
    return own === undefined || own === null ? p : { ...p, value: own };
  });
}

/**
 * For each layer, the first one that is the same circuit: nothing that the later one shows makes a difference to it.
 * Whoever computes on every layer computes once for those.
 */
export function distinctLayers(circuit: Circuit, options: LayerOptions = {}): readonly Layer[] {
  const isSaid = (value: LayerValue | undefined) => value !== null && value !== undefined;
  const hasFound = circuit.parts.some((p) => isSaid(p.found) || p.foundParams !== undefined);
  const hasProven = circuit.parts.some((p) => isSaid(p.proven));
  const keyOf = (layer: Layer): string => {
    const values = layer === 'marked' || !hasFound ? 'marked' : 'found';
    const changes = changesOn(circuit, layer, options).map((c) => c.id);
    return JSON.stringify([values, layer === 'proven' && hasProven, changes]);
  };
  const keys = LAYERS.map(keyOf);
  return keys.map((key) => LAYERS[keys.indexOf(key)]!);
}

/** Something for each layer, computed once for layers that are the same circuit. */
export function onDistinctLayers<T>(
  circuit: Circuit,
  compute: (circuit: LayerCircuit, layer: Layer) => T,
): T[] {
  const made = new Map<Layer, T>();
  return distinctLayers(circuit).map((layer) => {
    if (!made.has(layer)) made.set(layer, compute(resolveLayer(circuit, layer), layer));
    return made.get(layer)!;
  });
}

/**
 * A circuit of a layer written down without changes: what is printed on each part that is in, and what was found of it. What
 * a meter shows is held against that of `proven`, as it lies on the bench now.
 */
export function circuitAt(circuit: Circuit, layer: Layer): Circuit {
  const isAsFound = distinctLayers(circuit)[LAYERS.indexOf(layer)] === 'found' || layer === 'found';
  if (isAsFound && changesOn(circuit, layer).length === 0) return circuit;
  const { circuit: now, changes, unmeasured } = buildLayer(circuit, layer);
  const came = new Map(circuit.parts.map((p) => [p.ref, p]));
  const put = new Set(
    changes.flatMap(({ change, made }) =>
      made.length === 0
        ? []
        : change.steps.flatMap((s) => (s.do === 'fit' ? [s.ref] : s.do === 'add' ? [s.part.ref] : [])),
    ),
  );
  const parts = now.parts.map((p): Part => {
    const old = came.get(p.ref);
    const { value, ...bare } = put.has(p.ref) ? unmeasured.get(p.ref)! : p;
    const marked = put.has(p.ref) ? value : (old?.marked ?? null);
    const { found: _f, proven: _p, foundParams, saidPins: _said, ...plain } = old ?? { ...bare };
    const kept = put.has(p.ref) ? bare : plain;
    return {
      ...kept,
      pins: p.pins,
      marked,
      ...(p.value === marked ? {} : { found: p.value }),
      ...(put.has(p.ref) || layer === 'marked' || foundParams === undefined ? {} : { foundParams }),
    } as Part;
  });
  return {
    ground: now.ground,
    parts,
    ...(now.models ? { models: now.models } : {}),
    ...(now.loose ? { loose: now.loose } : {}),
  };
}

/** The circuit of a layer as one that came so: its values as marked, no changes, nothing of other layers. */
export const plainCircuit = (circuit: Circuit, layer: Layer, options?: LayerOptions): Circuit => {
  const { ground, parts, models, loose } = resolveLayer(circuit, layer, options);
  return {
    ground,
    parts: parts.map(({ value, ...part }) => ({ ...part, marked: value }) as Part),
    ...(models ? { models } : {}),
    ...(loose ? { loose: [...new Set(loose)] } : {}),
  };
};

/** The circuit as it is planned, for a change that comes on top of it. */
export function plannedForChange(circuit: Circuit): ChangedCircuit {
  const { circuit: planned, unmeasured } = buildLayer(circuit, 'planned');
  return {
    ...planned,
    renamed: planned.renamed ?? new Map(),
    loose: planned.loose ?? [],
    came: new Map(circuit.parts.map((p) => [p.ref, p])),
    unmeasured,
  };
}
