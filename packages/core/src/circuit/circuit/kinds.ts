import { PART_DEFINITIONS, type PartDefinition, type PartKind } from '@zemble/contract';

/** Every kind of part, its pins in order and what its main value means. */
export const KINDS: Readonly<Record<PartKind, PartDefinition>> = PART_DEFINITIONS;

const BY_LETTERS = new Map(
  (Object.entries(KINDS) as [PartKind, PartDefinition][]).flatMap(([kind, info]) =>
    info.letters.map((letters) => [letters, kind] as const),
  ),
);

/** The kind that a designator's letters stand for: "R7" is a resistor. Undefined when they are not usual. */
export function kindOfRef(ref: string): PartKind | undefined {
  const letters = /^[A-Za-z]+/.exec(ref)?.[0]?.toUpperCase() ?? '';
  for (let length = letters.length; length > 0; length -= 1) {
    const kind = BY_LETTERS.get(letters.slice(0, length));
    if (kind) return kind;
  }
  return undefined;
}

/** True for kinds whose main value is a resistance, capacitance or inductance: what can be turned and fitted. */
export const isPassive = (kind: PartKind): boolean => {
  const { value } = KINDS[kind];
  return value === 'resistor' || value === 'capacitor' || value === 'inductor';
};
