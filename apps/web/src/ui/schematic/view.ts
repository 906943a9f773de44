import type { Box } from '@zemble/core';
import { useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState, type RefObject } from 'react';

/** Pixels of a drawing unit at which the text is 12 px tall. */
const FULL_SCALE = 10;
/** Smaller than this its text is not read at arm's length, px a unit: rather than all of it, its width is fitted at first. */
const LEAST_READ = 7;
const LEAST_SCALE = 0.5;
const MOST_SCALE = 40;
const ZOOM_STEP = 1.25;
/** What is drawn reaches this far beyond what is seen, units; a scroll within half of it draws nothing anew. */
const BEYOND = 60;

export interface View {
  readonly frame: RefObject<HTMLDivElement | null>;
  /** Pixels a drawing unit. */
  readonly scale: number;
  /** Whether all of it is seen, however small. */
  readonly isWhole: boolean;
  /** What has to be drawn, drawing units. */
  readonly seen: Box;
  readonly fit: () => void;
  readonly zoom: (steps: number) => void;
  /** Brings a place into sight, if it is not. */
  readonly show: (box: Box) => void;
}

const boxIsInside = (inner: Box, outer: Box) =>
  inner.left >= outer.left &&
  inner.right <= outer.right &&
  inner.top >= outer.top &&
  inner.bottom <= outer.bottom;

/**
 * How much of a drawing is seen in a frame that scrolls: as much as can be read, until somebody zooms or fits it, by buttons,
 * keys or the wheel with Ctrl, which keeps the place under the pointer.
 *
 * @param bounds of the drawing with its margins, drawing units
 */
export function useView(bounds: Box): View {
  const frame = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState<{ width: number; height: number } | null>(null);
  const [chosen, setChosen] = useState<number | 'whole' | null>(null);
  const [origin, setOrigin] = useState({ left: 0, top: 0 });
  const width = bounds.right - bounds.left;
  const height = bounds.bottom - bounds.top;
  const [across, whole] = size
    ? [size.width / width, Math.min(size.width / width, size.height / height)]
    : [FULL_SCALE, FULL_SCALE];
  const atFirst = Math.min(FULL_SCALE, Math.max(LEAST_READ, whole >= LEAST_READ ? whole : across));
  const fitted = Math.min(FULL_SCALE, Math.max(LEAST_SCALE, whole));
  const scale = chosen === 'whole' ? fitted : (chosen ?? atFirst);

  /** The point of the drawing that stays where it is in the frame while the scale changes. */
  const hold = useRef<{ x: number; y: number; atX: number; atY: number } | null>(null);
  const zoomAt = useCallback(
    (factor: number, atX: number, atY: number) => {
      const element = frame.current;
      if (!element) return;
      const now = Math.min(MOST_SCALE, Math.max(LEAST_SCALE, scale * factor));
      hold.current = {
        x: (element.scrollLeft + atX) / scale,
        y: (element.scrollTop + atY) / scale,
        atX,
        atY,
      };
      setChosen(now);
    },
    [scale],
  );
  useLayoutEffect(() => {
    const element = frame.current;
    const held = hold.current;
    hold.current = null;
    if (!element || !held) return;
    element.scrollLeft = held.x * scale - held.atX;
    element.scrollTop = held.y * scale - held.atY;
  }, [scale]);

  useEffect(() => {
    const element = frame.current;
    if (!element) return;
    const measure = () => setSize({ width: element.clientWidth, height: element.clientHeight });
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    const look = () => {
      const left = element.scrollLeft;
      const top = element.scrollTop;
      setOrigin((was) => {
        const far = (BEYOND / 2) * scale;
        return Math.abs(was.left - left) > far || Math.abs(was.top - top) > far ? { left, top } : was;
      });
    };
    // A wheel listener of React cannot keep the page from zooming.
    const onWheel = (event: WheelEvent) => {
      if (!event.ctrlKey && !event.metaKey) return;
      event.preventDefault();
      const box = element.getBoundingClientRect();
      zoomAt(event.deltaY < 0 ? ZOOM_STEP : 1 / ZOOM_STEP, event.clientX - box.left, event.clientY - box.top);
    };
    element.addEventListener('scroll', look, { passive: true });
    element.addEventListener('wheel', onWheel, { passive: false });
    return () => {
      observer.disconnect();
      element.removeEventListener('scroll', look);
      element.removeEventListener('wheel', onWheel);
    };
  }, [scale, zoomAt]);

  const fit = useCallback(() => setChosen('whole'), []);
  const zoom = useCallback(
    (steps: number) => {
      const element = frame.current;
      if (element) zoomAt(ZOOM_STEP ** steps, element.clientWidth / 2, element.clientHeight / 2);
    },
    [zoomAt],
  );
  const show = useCallback(
    (box: Box) => {
      const element = frame.current;
      if (!element) return;
      const inner = {
        left: (box.left - bounds.left) * scale,
        right: (box.right - bounds.left) * scale,
        top: (box.top - bounds.top) * scale,
        bottom: (box.bottom - bounds.top) * scale,
      };
      const outer = {
        left: element.scrollLeft,
        right: element.scrollLeft + element.clientWidth,
        top: element.scrollTop,
        bottom: element.scrollTop + element.clientHeight,
      };
      if (boxIsInside(inner, outer)) return;
      element.scrollTo({
        left: (inner.left + inner.right - element.clientWidth) / 2,
        top: (inner.top + inner.bottom - element.clientHeight) / 2,
      });
    },
    [bounds.left, bounds.top, scale],
  );
  const seen = useMemo((): Box => {
    const left = bounds.left + origin.left / scale;
    const top = bounds.top + origin.top / scale;
    return {
      left: left - BEYOND,
      top: top - BEYOND,
      right: left + (size?.width ?? 0) / scale + BEYOND,
      bottom: top + (size?.height ?? 0) / scale + BEYOND,
    };
  }, [bounds.left, bounds.top, origin, scale, size]);
  const isWhole = scale <= fitted;
  return useMemo(
    () => ({ frame, scale, isWhole, seen, fit, zoom, show }),
    [scale, isWhole, seen, fit, zoom, show],
  );
}
