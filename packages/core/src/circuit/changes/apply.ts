import { isTemporary, type Change, type Step } from '@zemble/contract';
import {
  KINDS,
  netNamed,
  resolvePart,
  type LayerCircuit,
  type LayerPart,
  type Part,
} from '../circuit/index.ts';
import { problem, type Problem } from '../../base/errors/index.ts';
import { withSharedPins } from '../pinout/index.ts';
import { readPin } from './pin.ts';

/**
 * The circuit of a layer while changes are made to it: beside each part what it is without what was measured of it, since
 * another part in its place has other measures.
 */
export interface ChangedCircuit extends LayerCircuit {
  readonly renamed: ReadonlyMap<string, string>;
  readonly loose: readonly string[];
  /** Parts as they came, by designator. */
  readonly came: ReadonlyMap<string, Part>;
  /** Those that changes put in, without what was measured of them. */
  readonly unmeasured: ReadonlyMap<string, LayerPart>;
}

/** A part without what was measured of it; undefined where there is none. */
export function unmeasuredPart(circuit: ChangedCircuit, ref: string): LayerPart | undefined {
  const put = circuit.unmeasured.get(ref);
  if (put) return put;
  const came = circuit.came.get(ref);
  return came && resolvePart(came, 'marked');
}

/** What takes a step back, exactly. */
export type Inverse =
  | { readonly do: 'refit'; readonly part: LayerPart; readonly unmeasured: LayerPart | undefined }
  | { readonly do: 'take out'; readonly ref: string }
  | {
      readonly do: 'put back';
      readonly part: LayerPart;
      readonly unmeasured: LayerPart | undefined;
      readonly index: number;
      readonly loose: readonly string[];
    }
  | {
      readonly do: 'rewire';
      readonly loose: readonly string[];
      readonly pins: readonly { readonly ref: string; readonly pin: string; readonly net: string }[];
      readonly renamed: ReadonlyMap<string, string>;
    };

export type StepOutcome =
  | { readonly ok: true; readonly circuit: ChangedCircuit; readonly inverse: Inverse }
  | { readonly ok: false; readonly problem: Problem };

const failed = (found: Problem): StepOutcome => ({ ok: false, problem: found });

/** Whether any part of a circuit touches a net. */
const isTouched = (circuit: LayerCircuit, net: string): boolean =>
  net === circuit.ground || circuit.parts.some((p) => Object.values(p.pins).includes(net));

/**
 * One step made to a circuit, and what takes it back. A step that cannot be made is a problem: a part or net that is not
 * there, a designator that is taken, a pin that is elsewhere, a cut that takes every pin away.
 */
export function applyStep(circuit: ChangedCircuit, step: Step): StepOutcome {
  switch (step.do) {
    case 'fit':
      return fit(circuit, step);
    case 'add':
      return add(circuit, step.part);
    case 'remove':
      return remove(circuit, step.ref);
    case 'lift':
      return lift(circuit, step.pin);
    case 'cut':
      return cut(circuit, step);
    case 'join':
      return join(circuit, step.net, step.to);
    case 'move':
      return move(circuit, step.pin, step.to);
  }
}

/** Takes a step back: the circuit is as it was before, part by part and pin by pin. */
export function takeBack(circuit: ChangedCircuit, inverse: Inverse): ChangedCircuit {
  switch (inverse.do) {
    case 'refit':
      return withPart(circuit, inverse.part, inverse.unmeasured);
    case 'take out':
      return without(circuit, inverse.ref);
    case 'put back': {
      const unmeasured = withEntry(circuit.unmeasured, inverse.part.ref, inverse.unmeasured);
      const parts = circuit.parts.toSpliced(inverse.index, 0, inverse.part);
      return { ...circuit, parts, unmeasured, loose: inverse.loose };
    }
    case 'rewire':
      return { ...rewired(circuit, inverse.pins), renamed: inverse.renamed, loose: inverse.loose };
  }
}

export type ChangeOutcome =
  | {
      readonly ok: true;
      readonly circuit: ChangedCircuit;
      /** What takes the steps back, in their order, and what each was made to. */
      readonly made: readonly { readonly before: ChangedCircuit; readonly inverse: Inverse }[];
    }
  | { readonly ok: false; readonly problem: Problem };

/** All steps of a change, in order; a change of which one step cannot be made is not made at all. Only a temporary one may have none. */
export function applyChange(
  circuit: ChangedCircuit,
  change: Pick<Change, 'steps'> & Partial<Pick<Change, 'purpose'>>,
): ChangeOutcome {
  const { purpose } = change;
  const isNamed = purpose !== undefined && isTemporary({ purpose });
  if (change.steps.length === 0 && !isNamed) return { ok: false, problem: problem('change/no-steps') };
  const made: { before: ChangedCircuit; inverse: Inverse }[] = [];
  let now = circuit;
  for (const step of change.steps) {
    const outcome = applyStep(now, step);
    if (!outcome.ok) return outcome;
    made.push({ before: now, inverse: outcome.inverse });
    now = outcome.circuit;
  }
  return { ok: true, circuit: now, made };
}

function withPart(
  circuit: ChangedCircuit,
  part: LayerPart,
  unmeasured: LayerPart | undefined,
): ChangedCircuit {
  return {
    ...circuit,
    parts: circuit.parts.map((p) => (p.ref === part.ref ? part : p)),
    unmeasured: withEntry(circuit.unmeasured, part.ref, unmeasured),
  };
}

/** A map with an entry, or without it where there is nothing to enter. */
function withEntry<V>(map: ReadonlyMap<string, V>, key: string, value: V | undefined): Map<string, V> {
  const next = new Map(map);
  if (value === undefined) next.delete(key);
  else next.set(key, value);
  return next;
}

const without = (circuit: ChangedCircuit, ref: string): ChangedCircuit => ({
  ...circuit,
  parts: circuit.parts.filter((p) => p.ref !== ref),
  unmeasured: withEntry(circuit.unmeasured, ref, undefined),
});

function fit(circuit: ChangedCircuit, step: Extract<Step, { do: 'fit' }>): StepOutcome {
  const now = circuit.parts.find((p) => p.ref === step.ref);
  const bare = unmeasuredPart(circuit, step.ref);
  if (!now || !bare) return failed(problem('change/no-part', { ref: step.ref }));
  const { params, ...fields } = step.part ?? {};
  // Parameters that were given belong to the type that was in.
  const kept = fields.model === undefined ? bare.params : undefined;
  const own = params as LayerPart['params'];
  const { params: _old, ...rest } = bare;
  const part = {
    ...rest,
    ...fields,
    pins: now.pins,
    value: step.value ?? bare.value,
    ...(kept || own ? { params: { ...kept, ...own } } : {}),
  } as LayerPart;
  return {
    ok: true,
    circuit: withPart(circuit, part, part),
    inverse: { do: 'refit', part: now, unmeasured: circuit.unmeasured.get(step.ref) },
  };
}

function add(circuit: ChangedCircuit, part: Part): StepOutcome {
  if (circuit.parts.some((p) => p.ref === part.ref))
    return failed(problem('change/taken', { ref: part.ref }));
  const info = KINDS[part.kind];
  // A unit of a package that is there has its supply from the others.
  const { pins: fed } = withSharedPins([...circuit.parts, part]).at(-1)!;
  const open = info.pins.find((pin) => fed[pin] === undefined && !info.optionalPins?.includes(pin));
  if (open !== undefined) return failed(problem('circuit/pin-open', { ref: part.ref, text: open }));
  const pins = Object.fromEntries(
    Object.entries(part.pins).map(([pin, net]) => [pin, netNamed(circuit, net)]),
  );
  const made = { ...resolvePart(part, 'found'), pins } as LayerPart;
  const unmeasured = { ...resolvePart(part, 'marked'), pins } as LayerPart;
  return {
    ok: true,
    circuit: {
      ...circuit,
      parts: [...circuit.parts, made],
      unmeasured: new Map(circuit.unmeasured).set(part.ref, unmeasured),
    },
    inverse: { do: 'take out', ref: part.ref },
  };
}

function remove(circuit: ChangedCircuit, ref: string): StepOutcome {
  const index = circuit.parts.findIndex((p) => p.ref === ref);
  if (index < 0) return failed(problem('change/no-part', { ref }));
  const part = circuit.parts[index]!;
  return {
    ok: true,
    circuit: { ...without(circuit, ref), loose: [...circuit.loose, ...Object.values(part.pins)] },
    inverse: {
      do: 'put back',
      loose: circuit.loose,
      part,
      unmeasured: circuit.unmeasured.get(ref),
      index,
    },
  };
}

/** Pins put on other nets. */
function rewired(
  circuit: ChangedCircuit,
  pins: readonly { readonly ref: string; readonly pin: string; readonly net: string }[],
): ChangedCircuit {
  const byRef = new Map<string, Record<string, string>>();
  for (const { ref, pin, net } of pins) byRef.set(ref, { ...byRef.get(ref), [pin]: net });
  const parts = circuit.parts.map((p) => {
    const own = byRef.get(p.ref);
    return own ? { ...p, pins: { ...p.pins, ...own } } : p;
  });
  return { ...circuit, parts };
}

type Wiring = readonly { readonly ref: string; readonly pin: string; readonly net: string }[];

/** Pins put on other nets, with what puts them back. */
function rewire(
  circuit: ChangedCircuit,
  pins: Wiring,
  renamed: ReadonlyMap<string, string> = circuit.renamed,
): StepOutcome {
  const byRef = new Map(circuit.parts.map((p) => [p.ref, p]));
  const before = pins.map(({ ref, pin }) => ({ ref, pin, net: byRef.get(ref)!.pins[pin]! }));
  return {
    ok: true,
    circuit: {
      ...rewired(circuit, pins),
      renamed,
      // On both sides of what was parted.
      loose: [...circuit.loose, ...before.map((b) => b.net), ...pins.map((p) => p.net)],
    },
    inverse: { do: 'rewire', pins: before, renamed: circuit.renamed, loose: circuit.loose },
  };
}

/** The net of a pin that was lifted: named after it, so that it is the same in whatever order changes are made. */
function ownNet(circuit: ChangedCircuit, ref: string, pin: string): string {
  let name = `${ref}.${pin}`;
  while (isTouched(circuit, name)) name = `${name}'`;
  return name;
}

function lift(circuit: ChangedCircuit, text: string): StepOutcome {
  const at = readPin(circuit, text);
  if (!at.ok) return at;
  return rewire(circuit, [{ ref: at.ref, pin: at.pin, net: ownNet(circuit, at.ref, at.pin) }]);
}

function cut(circuit: ChangedCircuit, { net: named, pins, as }: Extract<Step, { do: 'cut' }>): StepOutcome {
  const net = netNamed(circuit, named);
  if (!isTouched(circuit, net)) return failed(problem('change/no-net', { net: named }));
  if (isTouched(circuit, as)) return failed(problem('change/net-taken', { net: as }));
  const moved: { ref: string; pin: string; net: string }[] = [];
  for (const text of pins) {
    const at = readPin(circuit, text);
    if (!at.ok) return at;
    if (at.net !== net) return failed(problem('change/pin-elsewhere', { text, net: named, detail: at.net }));
    if (moved.some((m) => m.ref === at.ref && m.pin === at.pin))
      return failed(problem('change/pin-twice', { text }));
    moved.push({ ref: at.ref, pin: at.pin, net: as });
  }
  const all = circuit.parts.reduce(
    (sum, p) => sum + Object.values(p.pins).filter((each) => each === net).length,
    0,
  );
  if (moved.length === all) return failed(problem('change/whole-net', { net: named }));
  return rewire(circuit, moved);
}

function join(circuit: ChangedCircuit, first: string, second: string): StepOutcome {
  const ends = [netNamed(circuit, first), netNamed(circuit, second)];
  if (ends[0] === ends[1]) return failed(problem('change/joined-already', { net: first, text: second }));
  const missing = [first, second].find((_, i) => !isTouched(circuit, ends[i]!));
  if (missing !== undefined) return failed(problem('change/no-net', { net: missing }));
  // The ground keeps its name.
  const [from, to] = ends[0] === circuit.ground ? [ends[1]!, ends[0]] : [ends[0]!, ends[1]!];
  const pins = circuit.parts.flatMap((p) =>
    Object.entries(p.pins).flatMap(([pin, net]) => (net === from ? [{ ref: p.ref, pin, net: to }] : [])),
  );
  const renamed = new Map([...circuit.renamed].map(([old, now]) => [old, now === from ? to : now]));
  return rewire(circuit, pins, renamed.set(from, to));
}

function move(circuit: ChangedCircuit, text: string, to: string): StepOutcome {
  const at = readPin(circuit, text);
  if (!at.ok) return at;
  const net = netNamed(circuit, to);
  if (at.net === net) return failed(problem('change/there-already', { text, net: to }));
  return rewire(circuit, [{ ref: at.ref, pin: at.pin, net }]);
}
