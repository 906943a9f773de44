// @vitest-environment happy-dom
import '../../testing/component.ts';
import type { Box } from '@zemble/core';
import { act, render } from '@testing-library/react';
import { beforeAll, describe, expect, it } from 'vitest';
import { useView, type View } from './view.ts';

const [WIDTH, HEIGHT] = [600, 400];
beforeAll(() => {
  // A page without layout has no sizes: a frame of 600 by 400.
  Object.defineProperty(HTMLElement.prototype, 'clientWidth', { get: () => WIDTH });
  Object.defineProperty(HTMLElement.prototype, 'clientHeight', { get: () => HEIGHT });
});

function open(bounds: Box) {
  let view!: View;
  function Frame() {
    view = useView(bounds);
    return <div ref={view.frame} />;
  }
  const { container } = render(<Frame />);
  const frame = container.firstElementChild as HTMLDivElement;
  return { now: () => view, frame };
}
const paper = (width: number, height: number): Box => ({
  left: -5,
  top: -5,
  right: width - 5,
  bottom: height - 5,
});

describe('how much of a drawing is seen', () => {
  it('is all of it at first where that can be read, never larger than its text', () => {
    expect(open(paper(75, 40)).now()).toMatchObject({ scale: 8, isWhole: true });
    expect(open(paper(20, 10)).now().scale).toBe(10);
  });

  it('is its width where all of it could not be read, and all of it when that is asked for', () => {
    const { now } = open(paper(75, 200));
    expect(now()).toMatchObject({ scale: 8, isWhole: false });
    act(() => now().fit());
    expect(now()).toMatchObject({ scale: 2, isWhole: true });
  });

  it('keeps the place in the middle while it is zoomed', () => {
    const { now, frame } = open(paper(200, 200));
    expect(now().scale).toBe(7);
    frame.scrollLeft = 300;
    frame.scrollTop = 140;
    const middle = () => [
      (frame.scrollLeft + WIDTH / 2) / now().scale,
      (frame.scrollTop + HEIGHT / 2) / now().scale,
    ];
    const [x, y] = middle();
    act(() => now().zoom(2));
    expect(now().scale).toBeCloseTo(7 * 1.25 ** 2);
    expect(middle()[0]).toBeCloseTo(x!);
    expect(middle()[1]).toBeCloseTo(y!);
  });

  it('stays within bounds, however often it is zoomed', () => {
    const { now } = open(paper(200, 200));
    for (let i = 0; i < 40; i += 1) act(() => now().zoom(1));
    expect(now().scale).toBe(40);
    for (let i = 0; i < 80; i += 1) act(() => now().zoom(-1));
    expect(now().scale).toBe(0.5);
  });

  it('brings a place into sight that is not, and leaves one that is', () => {
    const { now, frame } = open(paper(400, 400));
    const scrolled: ScrollToOptions[] = [];
    frame.scrollTo = ((to: ScrollToOptions) => void scrolled.push(to)) as typeof frame.scrollTo;
    now().show({ left: 0, right: 4, top: 0, bottom: 4 });
    expect(scrolled).toEqual([]);
    now().show({ left: 300, right: 304, top: 200, bottom: 204 });
    // In the middle of the frame: 302 + 5 units from the left, at seven pixels each.
    expect(scrolled).toEqual([{ left: 307 * 7 - WIDTH / 2, top: 207 * 7 - HEIGHT / 2 }]);
  });
});
