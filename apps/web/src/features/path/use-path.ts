import { unitAct } from '../../api/unit-act.ts';
import type { PathData } from '@zemble/contract';
import { useMemo } from 'react';
import { useUnitContext } from '../../unit/unit-context.tsx';

/** The path of the unit on the bench, and how it is changed. */
export function usePath(): { path: PathData | null; setPath: (path: PathData) => void } {
  const { unit, change } = useUnitContext();
  return {
    path: unit.path,
    setPath: (path) => change(unitAct(unit, { path })),
  };
}

/** Number and name of whatever a point on a photo stands for: a test point, a block or a net. */
export function usePointNames(): {
  readonly numberOf: (target: string) => number | string;
  readonly nameOf: (target: string) => string;
} {
  const { unit } = useUnitContext();
  return useMemo(() => {
    const points = unit.path?.testPoints ?? [];
    const places = new Map(points.map((t, i) => [t.id, i + 1]));
    const names = new Map<string, string>([
      ...(unit.path?.blocks ?? []).map((b): [string, string] => [b.id, b.name ?? b.id]),
      ...unit.parts.map(({ part }): [string, string] => [part.ref, part.ref]),
      ...points.map((t): [string, string] => [t.id, t.name ?? t.id]),
    ]);
    return {
      numberOf: (target) => places.get(target) ?? (names.get(target) ?? target).slice(0, 6),
      nameOf: (target) => names.get(target) ?? `net ${target}`,
    };
  }, [unit.path, unit.parts]);
}
