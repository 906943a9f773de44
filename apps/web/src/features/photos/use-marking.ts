import type { PhotoOverlay, PhotoResource } from '@zemble/contract';
import { padPlan, tappedPins, withDamage } from '@zemble/core';
import { useState } from 'react';
import { unitAct } from '../../api/unit-act.ts';
import { useSelection } from '../../unit/selection.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { photoOf, tapped, trackDone, type Marking } from './marking.ts';

interface Written {
  readonly points?: PhotoResource['points'] | undefined;
  readonly overlay?: PhotoOverlay | undefined;
  readonly turn?: number;
}

/** What is being marked on the photos of a unit, and what is written on them. */
export function useMarking(chosen: PhotoResource | undefined) {
  const { unit, document, change } = useUnitContext();
  const { selectRef, selectPoint } = useSelection();
  const [marking, setMarking] = useState<Marking | null>(null);
  const { parts } = document.circuit;
  const photo = chosen && unit.photos.find((p) => p.id === photoOf(marking, chosen.id));
  const write = (on: PhotoResource, { points, overlay, turn }: Written) =>
    change({
      type: 'update-photo',
      photoId: on.id,
      seen: on.version,
      values: {
        ...(points ? { points } : {}),
        ...(overlay ? { overlay } : {}),
        ...(turn === undefined ? {} : { turn }),
      },
    });
  const markPads = (ref: string) => {
    const plan = padPlan(parts, ref, tappedPins);
    if (!plan) return;
    selectRef(ref);
    setMarking({ of: 'pads', plan, places: [] });
  };
  /** The part after the one whose pads were marked, in the order of the sheet, that has none on this photo. */
  const nextUnmarked = (points: PhotoResource['points'], after: string): string | undefined => {
    const marked = new Set(points.map((p) => p.target));
    const from = parts.findIndex((p) => p.ref === after) + 1;
    return [...parts.slice(from), ...parts.slice(0, from)].find(
      (p) => p.kind !== 'jumper' && !Object.keys(p.pins).some((pin) => marked.has(`${p.ref}.${pin}`)),
    )?.ref;
  };
  const place = (x: number, y: number) => {
    if (!marking || !photo) return;
    const done = tapped(marking, photo, { x, y });
    setMarking(done.marking);
    if (done.points || done.overlay)
      write(marking.of === 'link' ? unit.photos.find((p) => p.id === marking.from)! : photo, done);
    if (marking.of === 'point') selectPoint(marking.target);
    if (marking.of === 'damage') {
      const target = nearestPoint(photo, x, y);
      const seen = { defect: marking.defect, ...(target ? { target } : {}), photoId: photo.id, x, y };
      const intake = withDamage(unit.intake, { ...seen, at: new Date().toISOString() });
      change(unitAct(unit, { intake }));
    }
    if (marking.of === 'pads' && done.points) {
      const last = marking.plan.targets.flat()[0] ?? '';
      const next = nextUnmarked(done.points, last.slice(0, last.indexOf('.')));
      if (next !== undefined) markPads(next);
    }
  };
  const finishTrack = () => {
    if (marking?.of !== 'track' || !photo) return;
    const overlay = trackDone(marking, photo);
    if (overlay) write(photo, { overlay });
    setMarking(null);
  };
  return {
    marking,
    setMarking,
    /** The photo that the next tap is on: the other one for the second half of lining up. */
    photo,
    place: marking === null ? undefined : place,
    markPads,
    /** Passes the part over whose pads are marked. */
    skip: () => {
      if (marking?.of !== 'pads' || !photo) return;
      const ref = marking.plan.targets.flat()[0]?.split('.')[0] ?? '';
      const next = nextUnmarked(photo.points, ref);
      if (next === undefined || next === ref) setMarking(null);
      else markPads(next);
    },
    finishTrack,
    write,
  };
}

/** Damage within this part of the picture's width of a point is at that point. */
const NEAR = 0.08;

function nearestPoint({ points, width, height }: PhotoResource, x: number, y: number): string | undefined {
  const distance = (p: { readonly x: number; readonly y: number }) =>
    Math.hypot(p.x - x, ((p.y - y) * height) / width);
  const [nearest] = [...points].sort((a, b) => distance(a) - distance(b));
  return nearest && distance(nearest) <= NEAR ? nearest.target : undefined;
}
