import { problem, type Problem } from '../errors.ts';
import { KINDS } from './kinds.ts';
import { netsOf, parameter, valueOnLayer, type Circuit, type Part, type Readout } from './part.ts';
import { UnionFind } from './union-find.ts';

/**
 * What is wrong with a circuit, each finding with the part or net it belongs to. An empty list means that it can be
 * computed. Readouts are checked for the nets and parts they name.
 */
export function checkCircuit(circuit: Circuit, readouts: readonly Readout[] = []): Problem[] {
  return [
    ...circuit.parts.flatMap(checkPart),
    ...duplicateRefs(circuit),
    ...singleNets(circuit),
    ...floatingNets(circuit),
    ...sourceLoops(circuit),
    ...readouts.flatMap((r) => checkReadout(circuit, r)),
  ];
}

function checkPart(part: Part): Problem[] {
  const info = KINDS[part.kind];
  const found: Problem[] = [];
  const isBox = info.pins.length === 0;
  for (const pin of Object.keys(part.pins)) {
    if (!isBox && !info.pins.includes(pin)) {
      found.push(problem('circuit/unknown-pin', { ref: part.ref, text: pin, detail: info.pins.join(', ') }));
    }
  }
  for (const pin of info.pins) {
    if (part.pins[pin] === undefined) found.push(problem('circuit/pin-open', { ref: part.ref, text: pin }));
  }
  const value = valueOnLayer(part, 'proven');
  if (info.needsValue && value === null) found.push(problem('circuit/no-value', { ref: part.ref }));
  for (const layer of ['marked', 'found', 'planned', 'proven'] as const) {
    const number = part[layer];
    const mustBePositive =
      info.value === 'resistor' || info.value === 'capacitor' || info.value === 'inductor';
    if (typeof number === 'number' && mustBePositive && !(number > 0)) {
      found.push(
        problem('circuit/bad-value', { ref: part.ref, detail: `its ${layer} value is not above zero` }),
      );
    }
  }
  const position = parameter(part, 'position');
  if (position !== undefined && (position < 0 || position > 1)) {
    found.push(
      problem('circuit/bad-value', { ref: part.ref, detail: 'its position is not between 0 and 1' }),
    );
  }
  return found;
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
export function touching(circuit: Circuit): Map<string, Part[]> {
  const parts = new Map<string, Part[]>();
  for (const part of circuit.parts) {
    for (const net of new Set(Object.values(part.pins))) {
      parts.set(net, [...(parts.get(net) ?? []), part]);
    }
  }
  return parts;
}

function singleNets(circuit: Circuit): Problem[] {
  if (circuit.parts.length === 0) return [];
  const ends = new Map<string, string[]>();
  for (const part of circuit.parts) {
    for (const net of Object.values(part.pins)) ends.set(net, [...(ends.get(net) ?? []), part.ref]);
  }
  const single = [...ends].filter(([net, refs]) => net !== circuit.ground && refs.length === 1);
  const found = single.map(([net, refs]) => problem('circuit/net-single', { net, ref: refs[0] }));
  if (!ends.has(circuit.ground)) found.push(problem('circuit/no-ground', { net: circuit.ground }));
  return found;
}

/** Nets joined where direct current can flow. */
function dcConnections(circuit: Circuit): UnionFind {
  const joined = new UnionFind();
  for (const part of circuit.parts) {
    if (valueOnLayer(part, 'marked')?.value === 'open' || part['closed'] === false) continue;
    for (const [a, b] of KINDS[part.kind].dcPaths) {
      const netA = part.pins[a];
      const netB = part.pins[b];
      if (netA !== undefined && netB !== undefined) joined.join(netA, netB);
    }
    const { a, b, out } = part.pins;
    if (part.kind === 'capacitor' && parameter(part, 'leakage') !== undefined && a && b) joined.join(a, b);
    if (part.kind === 'opamp' && out) joined.join(circuit.ground, out);
  }
  return joined;
}

function floatingNets(circuit: Circuit): Problem[] {
  const joined = dcConnections(circuit);
  const ground = joined.find(circuit.ground);
  const touched = touching(circuit);
  const groups = new Map<string, string[]>();
  for (const net of netsOf(circuit)) {
    const root = joined.find(net);
    const isModelled = (touched.get(net) ?? []).some((p) => KINDS[p.kind].hasModel);
    if (root !== ground && isModelled) groups.set(root, [...(groups.get(root) ?? []), net]);
  }
  return [...groups.values()].map((nets) => {
    const net = nets.reduce((a, b) =>
      (touched.get(b)?.length ?? 0) > (touched.get(a)?.length ?? 0) ? b : a,
    );
    const parts = [...new Set(nets.flatMap((n) => (touched.get(n) ?? []).map((p) => p.ref)))];
    return problem('circuit/no-dc-path', { net, parts });
  });
}

/** Ideal voltage sources in a ring with one another or with coils of bare wire: nothing sets their current. */
function sourceLoops(circuit: Circuit): Problem[] {
  const joined = new UnionFind();
  const found: Problem[] = [];
  const coils = circuit.parts.filter((p) => p.kind === 'inductor' && !(parameter(p, 'dcr') ?? 0));
  for (const { pins } of coils)
    if (pins['a'] !== undefined && pins['b'] !== undefined) joined.join(pins['a'], pins['b']);
  const ideal = circuit.parts.filter(
    (p) => (p.kind === 'supply' || p.kind === 'signal') && !(parameter(p, 'resistance') ?? 0),
  );
  for (const part of ideal) {
    const { plus, minus } = part.pins;
    if (plus === undefined || minus === undefined || joined.join(plus, minus)) continue;
    const touches = (p: Part) => Object.values(p.pins).some((n) => joined.find(n) === joined.find(plus));
    const ring = [...ideal, ...coils].filter((p) => p === part || touches(p));
    found.push(problem('circuit/source-loop', { ref: part.ref, parts: ring.map((p) => p.ref) }));
  }
  return found;
}

const NET_FIELDS = ['from', 'to', 'net', 'out', 'toMinus', 'leak', 'wanted'] as const;
const PART_FIELDS = ['part', 'source'] as const;

function checkReadout(circuit: Circuit, readout: Readout): Problem[] {
  const nets = new Set(netsOf(circuit));
  const refs = new Set(circuit.parts.map((p) => p.ref));
  const where = `Readout "${readout.name}"`;
  const isNamedIn = (field: string) => typeof readout[field] === 'string' && readout.kind !== 'range';
  return [
    ...NET_FIELDS.filter((f) => isNamedIn(f) && !nets.has(readout[f] as string)).map((f) =>
      problem('circuit/unknown-net', { net: readout[f] as string, where }),
    ),
    ...PART_FIELDS.filter((f) => isNamedIn(f) && !refs.has(readout[f] as string)).map((f) =>
      problem('circuit/unknown-part', { ref: readout[f] as string, where }),
    ),
  ];
}
