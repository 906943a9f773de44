import { problem, type Problem } from '../../base/errors/index.ts';
import { sharedPins, unitOfPackage } from './numbered.ts';
import type { Pinned } from './find-pin.ts';

/** Parts of one package, by their designator; a package with one part is none. */
function packagesOf<P extends Pinned>(parts: readonly P[]): ReadonlyMap<string, readonly P[]> {
  const found = new Map<string, P[]>();
  for (const part of parts) {
    const of = unitOfPackage(part.ref);
    if (of) found.set(of.designator, [...(found.get(of.designator) ?? []), part]);
  }
  return new Map([...found].filter(([, units]) => units.length > 1));
}

/** Units of one package share its supply pins: one that does not say where they go has them where another has. */
export function withSharedPins<P extends Pinned>(parts: readonly P[]): readonly P[] {
  const packages = packagesOf(parts);
  if (packages.size === 0) return parts;
  return parts.map((part) => {
    const units = packages.get(unitOfPackage(part.ref)?.designator ?? '') ?? [];
    const missing = units.length === 0 ? [] : sharedPins(part).filter((pin) => part.pins[pin] === undefined);
    const given = missing.flatMap((pin) => {
      const net = units.find((p) => isOneType(p, part) && p.pins[pin] !== undefined)?.pins[pin];
      return net === undefined ? [] : [[pin, net] as const];
    });
    return given.length === 0 ? part : { ...part, pins: { ...part.pins, ...Object.fromEntries(given) } };
  });
}

const isOneType = (one: Pinned, other: Pinned): boolean =>
  one.kind === other.kind && one.model?.toUpperCase() === other.model?.toUpperCase();

/** Units of one package that cannot be in it together: two types, a shared pin on two nets. */
export function packageProblems(parts: readonly Pinned[]): Problem[] {
  return [...packagesOf(parts)].flatMap(([designator, units]) => {
    const [first, ...rest] = units as [Pinned, ...Pinned[]];
    return rest.flatMap((part) => {
      const say = (detail: string) => problem('circuit/package', { ref: part.ref, text: designator, detail });
      if (
        part.kind === first.kind &&
        first.model !== undefined &&
        part.model !== undefined &&
        !isOneType(part, first)
      )
        return [say(`${first.ref} is of type ${first.model} and ${part.ref} of type ${part.model}`)];
      return sharedPins(part).flatMap((pin) => {
        const [one, other] = [first.pins[pin], part.pins[pin]];
        return one === undefined || other === undefined || one === other
          ? []
          : [say(`its pin ${pin} cannot be on ${one} for ${first.ref} and on ${other} for ${part.ref}`)];
      });
    });
  });
}
