import { buildLayer, FreeNames } from '../../circuit/changes/index.ts';
import { KINDS, type Circuit, type LayerCircuit, type LayerPart } from '../../circuit/circuit/index.ts';

/** Something that can be done at a place: its words, and the line of a change that it begins or is. */
export interface ChangeOffer {
  readonly words: string;
  /** Ends in a space where something is still to be typed. */
  readonly line: string;
}

/**
 * What can be done with a part or at a net of the circuit as it is planned: the part first where both are chosen.
 *
 * @returns nothing for what the circuit does not have, nor for its ground
 */
export function changeOffers(
  circuit: Circuit,
  { ref, net }: { readonly ref?: string | null; readonly net?: string | null },
): ChangeOffer[] {
  const { circuit: planned } = buildLayer(circuit, 'planned');
  const names = new FreeNames(circuit, planned);
  if (ref !== null && ref !== undefined) {
    const part = planned.parts.find((p) => p.ref === ref);
    return part ? atPart(part, planned, names) : [];
  }
  const isThere = net !== null && net !== undefined && net !== planned.ground && touches(planned, net);
  return isThere ? atNet(net, planned, names) : [];
}

const touches = ({ parts }: LayerCircuit, net: string): boolean =>
  parts.some((p) => Object.values(p.pins).includes(net));

function atPart(part: LayerPart, { parts }: LayerCircuit, names: FreeNames): ChangeOffer[] {
  const { ref, pins, kind } = part;
  const [first, second] = Object.keys(pins);
  if (first === undefined) return [];
  const twin = parts.find(
    (p) => p !== part && p.kind === kind && p.pins[first] !== undefined && p.pins[first] !== pins[first],
  );
  const isValued = KINDS[kind].value !== undefined || 'model' in part;
  return [
    ...(isValued ? [{ words: 'other value', line: `${ref} -> ` }] : []),
    ...(KINDS[kind].pins.length === 2 && second !== undefined
      ? [{ words: 'add across', line: `+${names.ref('C')} 100n ${pins[first]} ${pins[second]}` }]
      : []),
    { words: 'add in series', line: `+${names.ref('R')} 1k in series with ${ref}.${first}` },
    { words: 'take out', line: `-${ref}` },
    { words: 'lift a leg', line: `lift ${ref}.${first}` },
    ...(twin ? [{ words: 'swap with', line: `swap ${ref}.${first} ${twin.ref}.${first}` }] : []),
  ];
}

function atNet(net: string, { parts, ground }: LayerCircuit, names: FreeNames): ChangeOffer[] {
  const pins = parts.flatMap((p) =>
    Object.entries(p.pins).flatMap(([pin, at]) => (at === net ? [`${p.ref}.${pin}`] : [])),
  );
  return [
    { words: 'add to ground', line: `+${names.ref('C')} 100n ${net} ${ground}` },
    ...(pins.length > 1 ? [{ words: 'cut here', line: `cut ${net} at ${pins[0]}` }] : []),
    { words: 'wire to', line: `wire ${net} to ` },
  ];
}
