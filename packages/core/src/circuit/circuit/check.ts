import { problem, type Problem } from '../../base/errors/index.ts';
import { outlineNamed, packageProblems, withSharedPins } from '../pinout/index.ts';
import { partFields, unknownModelNames, unknownPartNames, type UnknownName } from './field-values.ts';
import { isPassive, KINDS } from './kinds.ts';
import { resolvePart, valueOnLayer, type LayerCircuit } from './layer.ts';
import type { Circuit, Part } from './part.ts';
import { floatingProblems, sourceLoops } from './topology.ts';
import { untracedNets } from './untraced.ts';

/**
 * What is wrong with a circuit as it is written down, each finding with the part or net it belongs to. An empty list
 * means that it can be computed and that nothing was left unread. What only a computation
 * shows is checked by `checkRatings`, and what readouts name by `checkReadouts`.
 */
export function checkCircuit(circuit: Circuit): Problem[] {
  const marked: LayerCircuit = {
    ground: circuit.ground,
    parts: withSharedPins(circuit.parts.map((p) => resolvePart(p, 'marked'))),
  };
  return [
    ...withSharedPins(circuit.parts).flatMap(checkPart),
    ...duplicateRefs(circuit),
    ...packageProblems(circuit.parts),
    ...singleNets(circuit),
    // What is not traced to its end hangs in the air here and there.
    ...(untracedNets(circuit).length > 0 ? [] : floatingProblems(marked)),
    ...sourceLoops(marked),
    ...(circuit.models ?? []).flatMap((m) =>
      unknownModelNames(m.kind, m.params).map((u) => unknownField(u, `Model ${m.name}`, m.kind)),
    ),
  ];
}

const unknownField = ({ name, resembles }: UnknownName, where: string, kind: Part['kind']): Problem =>
  problem('circuit/unknown-field', {
    where,
    text: name,
    detail: KINDS[kind].words,
    net: undefined,
    resembles,
  });

const VALUE_LAYERS = ['marked', 'found', 'proven'] as const;

function checkPart(part: Part): Problem[] {
  const info = KINDS[part.kind];
  const { ref } = part;
  const bad = (detail: string) => problem('circuit/bad-value', { ref, detail });
  const found: Problem[] = [];
  for (const pin of Object.keys(part.pins)) {
    if (info.hasFreePins !== true && !info.pins.includes(pin)) {
      found.push(problem('circuit/unknown-pin', { ref, text: pin, detail: info.pins.join(', ') }));
    }
  }
  for (const pin of info.pins) {
    if (part.pins[pin] === undefined && info.optionalPins?.includes(pin) !== true)
      found.push(problem('circuit/pin-open', { ref, text: pin }));
  }
  if (info.needsValue && valueOnLayer(part, 'proven') === null)
    found.push(problem('circuit/no-value', { ref }));
  for (const layer of VALUE_LAYERS) {
    const number = part[layer];
    if (typeof number === 'number' && isPassive(part.kind) && !(number > 0))
      found.push(bad(`its ${layer} value is not above zero`));
  }
  for (const { name, field, value } of partFields(part)) {
    if (field.isNeeded === true && value === undefined) found.push(bad(`its ${name} is missing`));
  }
  if (part.package !== undefined && !outlineNamed(part.package))
    found.push(bad(`its package "${part.package}" is none that is known, as DIP-8, TO-92 or B9A`));
  const strange = (part.pinout ?? '')
    .split('-')
    .filter(
      (name) => name !== '' && !info.pins.some((pin) => pin.toLowerCase() === name.trim().toLowerCase()),
    );
  if (strange.length > 0 && info.hasFreePins !== true)
    found.push(bad(`its order of pins names ${strange.join(', ')}; its pins are ${info.pins.join(', ')}`));
  if (part.kind === 'clock' && part.minOhm !== undefined && part.maxOhm !== undefined)
    if (part.minOhm > part.maxOhm) found.push(bad('its minOhm is above its maxOhm'));
  return [
    ...found,
    ...unknownPartNames(part).map((unknown) => ({ ...unknownField(unknown, ref, part.kind), ref })),
  ];
}

function duplicateRefs(circuit: Circuit): Problem[] {
  const seen = new Set<string>();
  const found = new Map<string, Problem>();
  for (const { ref } of circuit.parts) {
    if (seen.has(ref)) found.set(ref, problem('circuit/duplicate-ref', { ref }));
    seen.add(ref);
  }
  return [...found.values()];
}

/** Parts by net, each part once a net. */
export function touching<P extends { readonly pins: Readonly<Record<string, string>> }>(circuit: {
  readonly parts: readonly P[];
}): Map<string, P[]> {
  const parts = new Map<string, P[]>();
  for (const part of circuit.parts) {
    for (const net of new Set(Object.values(part.pins))) {
      const known = parts.get(net);
      if (known) known.push(part);
      else parts.set(net, [part]);
    }
  }
  return parts;
}

function singleNets(circuit: Circuit): Problem[] {
  if (circuit.parts.length === 0) return [];
  const ends = new Map<string, { readonly part: Part; readonly pin: string }[]>();
  for (const part of circuit.parts)
    for (const [pin, net] of Object.entries(part.pins))
      ends.set(net, [...(ends.get(net) ?? []), { part, pin }]);
  const single = [...ends].flatMap(([net, [end, ...more]]) =>
    end && more.length === 0 && net !== circuit.ground && !leadsOn(end.part, end.pin)
      ? [{ net, ref: end.part.ref }]
      : [],
  );
  const found = single.map((each) => problem('circuit/net-single', each));
  if (!ends.has(circuit.ground)) found.push(problem('circuit/no-ground', { net: circuit.ground }));
  return found;
}

/** A pin that leads out of what is traced, as a jack's or a module's, or that has not been traced yet. */
const leadsOn = ({ kind, saidPins }: Part, pin: string): boolean =>
  kind === 'jack' ||
  KINDS[kind].hasFreePins === true ||
  (saidPins !== undefined && !Object.hasOwn(saidPins, pin));
