import type { PhotoResource } from '@zemble/contract';
import { ontoPhoto, pinsByText, type BoardPhoto } from '@zemble/core';
import { useMemo } from 'react';
import type { Pad, PartShape } from '../../ui/photo-overlay.tsx';
import { useSelection } from '../../unit/selection.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';

const boardPhoto = ({ overlay, ...photo }: PhotoResource): BoardPhoto => ({
  ...photo,
  ...(overlay.side ? { side: overlay.side } : {}),
  ...(overlay.link ? { link: overlay.link } : {}),
});

/** The pads on a photo, those of a photo that it is lined up with too, and the parts that they belong to. */
export function usePads(photo: PhotoResource | undefined): {
  readonly pads: readonly Pad[];
  readonly shapes: readonly PartShape[];
  readonly isPad: (target: string) => boolean;
} {
  const { unit, document } = useUnitContext();
  const { selectedRef, selectedNet } = useSelection();
  const { parts } = document.circuit;
  const pins = useMemo(() => pinsByText(parts), [parts]);
  const nets = useMemo(() => new Map(parts.map((p) => [p.ref, p.pins])), [parts]);
  return useMemo(() => {
    const isPad = (target: string) => pins.has(target);
    if (!photo) return { pads: [], shapes: [], isPad };
    const own = photo.points.filter((p) => isPad(p.target));
    const marked = new Set(own.map((p) => p.target));
    const others = unit.photos.flatMap((other) => {
      const onto = other === photo ? undefined : ontoPhoto(boardPhoto(other), boardPhoto(photo));
      if (!onto) return [];
      return other.points
        .filter((p) => isPad(p.target) && !marked.has(p.target))
        .map((p) => ({ target: p.target, ...onto(p) }))
        .filter(({ x, y }) => x >= 0 && x <= 1 && y >= 0 && y <= 1);
    });
    const placed = [
      ...own.map((p) => ({ ...p, isOther: false })),
      ...others.map((p) => ({ ...p, isOther: true })),
    ];
    const pads = placed.map(({ target, x, y, isOther }): Pad => {
      const { ref, pin } = pins.get(target)!;
      const net = nets.get(ref)?.[pin] ?? '';
      return { target, ref, net, x, y, isOther, isOn: ref === selectedRef || net === selectedNet };
    });
    const shapes = [...new Set(pads.map((p) => p.ref))].map((ref): PartShape => ({
      ref,
      places: pads.filter((p) => p.ref === ref),
      isOn: ref === selectedRef,
    }));
    return { pads, shapes, isPad };
  }, [photo, unit.photos, pins, nets, selectedRef, selectedNet]);
}
