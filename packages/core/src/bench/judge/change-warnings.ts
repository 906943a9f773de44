import type { Change, Layer, Step } from '@zemble/contract';
import { buildLayer, resolveLayer } from '../../circuit/changes/index.ts';
import { KINDS, type Circuit, type LayerCircuit, type LayerPart } from '../../circuit/circuit/index.ts';
import { problem, type Problem } from '../../base/errors/index.ts';
import { formatQuantity, QUANTITY_KINDS } from '../../base/quantity/index.ts';
import { checkRatings } from './ratings.ts';

/** A new value this many times the one that was there is asked about (common practice: most changes stay within ten). */
const FAR_TIMES = 30;

/**
 * What changes of a layer leave half done, whatever is computed: a net that only one leg touches, a part with both ends on one
 * net, a value far from the one that was there. A finding names the part that the change puts in.
 */
export function changeWarnings(circuit: Circuit, layer: Layer): Problem[] {
  const { circuit: now, changes } = buildLayer(circuit, layer);
  const done = changes.flatMap(({ change, made }) =>
    made.map(({ before }, i): Made => ({ step: change.steps[i]!, before })),
  );
  const steps = done.map(({ step }) => step);
  if (steps.length === 0) return [];
  return [
    ...hanging(now, steps, circuit),
    ...done.flatMap((made) => [...onOneNet(now, made.step), ...farValue(made)]),
  ];
}

/** Everything that a layer asks too much of, and that changes of it leave half done: one list, wherever it is shown. */
export const warningsOn = (circuit: Circuit, layer: Layer): Problem[] => [
  ...checkRatings(resolveLayer(circuit, layer)),
  ...changeWarnings(circuit, layer),
];

/** What a change that is being typed would bring of it: what is said already is not said again. */
export function typedWarnings(circuit: Circuit, steps: readonly Step[]): Problem[] {
  const typed: Change = { id: TYPED, name: TYPED, purpose: 'modification', state: 'planned', steps };
  const before = new Set(warningsOn(circuit, 'planned').map((p) => p.message));
  return warningsOn({ ...circuit, changes: [...(circuit.changes ?? []), typed] }, 'planned').filter(
    (p) => !before.has(p.message),
  );
}
const TYPED = 'what is typed';

const refsOf = (step: Step): readonly string[] => {
  switch (step.do) {
    case 'add':
      return [step.part.ref];
    case 'fit':
    case 'remove':
      return [step.ref];
    case 'lift':
    case 'move':
      return [step.pin.slice(0, step.pin.indexOf('.'))];
    case 'cut':
      return step.pins.map((pin) => pin.slice(0, pin.indexOf('.')));
    case 'join':
      return [];
  }
};

/** Nets of parts that steps put in or move, touched by one leg; a leg that was lifted hangs in the air on purpose. */
function hanging(now: LayerCircuit, steps: readonly Step[], circuit: Circuit): Problem[] {
  const touched = new Set(steps.filter((s) => s.do !== 'lift' && s.do !== 'remove').flatMap(refsOf));
  const loose = new Set([...(now.loose ?? []), ...(circuit.loose ?? [])]);
  const legs = new Map<string, LayerPart[]>();
  for (const part of now.parts)
    for (const net of Object.values(part.pins)) legs.set(net, [...(legs.get(net) ?? []), part]);
  return [...legs].flatMap(([net, parts]) => {
    const [only] = parts;
    if (parts.length !== 1 || !only || !touched.has(only.ref) || loose.has(net) || net === now.ground)
      return [];
    // A contact that is open on one side, and pins that need not be used, are as they should be.
    if (KINDS[only.kind].hasFreePins === true || MAY_HANG.has(only.kind)) return [];
    return [warning(only.ref, `its net ${net} is touched by nothing else: it hangs in the air there`, net)];
  });
}
const MAY_HANG: ReadonlySet<LayerPart['kind']> = new Set([
  'relay',
  'changeover',
  'jack',
  'timer555',
  'potentiometer',
]);

/** A part of two legs that does nothing, since both are on one net. */
function onOneNet(now: LayerCircuit, step: Step): Problem[] {
  if (step.do !== 'add' && step.do !== 'move' && step.do !== 'join') return [];
  const parts = step.do === 'join' ? [] : now.parts.filter((p) => refsOf(step).includes(p.ref));
  return parts.flatMap((part) => {
    const nets = Object.values(part.pins);
    return nets.length === 2 && nets[0] === nets[1]
      ? [warning(part.ref, `both of its ends are on ${nets[0]!}: it does nothing there`, nets[0])]
      : [];
  });
}

/** A step that was made, with the circuit that it was made in. */
interface Made {
  readonly step: Step;
  readonly before: LayerCircuit;
}

/** A value far from the one that was there, as with a prefix that was forgotten. */
function farValue({ step, before: then }: Made): Problem[] {
  if (step.do !== 'fit' || typeof step.value !== 'number' || !(step.value > 0)) return [];
  const part = then.parts.find((p) => p.ref === step.ref);
  const before = part?.value;
  const unit = part && KINDS[part.kind].value;
  if (typeof before !== 'number' || !(before > 0) || !unit) return [];
  const times = step.value / before;
  if (times < FAR_TIMES && times > 1 / FAR_TIMES) return [];
  const [is, was] = [step.value, before].map((v) => formatQuantity(v, QUANTITY_KINDS[unit]));
  const words = times > 1 ? `${Math.round(times)} times as much` : `${Math.round(1 / times)} times less`;
  return [warning(step.ref, `${is!} instead of ${was!} is ${words}: is the prefix right`)];
}

const warning = (ref: string, detail: string, net?: string): Problem =>
  problem('change/half-done', { ref, detail, ...(net === undefined ? {} : { net }) });
