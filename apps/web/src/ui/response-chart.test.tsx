// @vitest-environment happy-dom
import '../testing/component.ts';
import { render, screen } from '@testing-library/react';
import { beforeAll, describe, expect, it } from 'vitest';
import ResponseChart from './response-chart.tsx';

beforeAll(() => {
  // A page without layout has no sizes: a chart of 500 by 300.
  const size = { width: 500, height: 300, left: 0, top: 0, right: 500, bottom: 300, x: 0, y: 0 };
  HTMLElement.prototype.getBoundingClientRect = () => ({ ...size, toJSON: () => size });
  Object.defineProperty(HTMLElement.prototype, 'offsetWidth', { get: () => size.width });
  Object.defineProperty(HTMLElement.prototype, 'offsetHeight', { get: () => size.height });
});

const FREQUENCIES = [10, 100, 1000, 10_000, 100_000];
const flat = (db: number) => FREQUENCIES.map(() => db);
const points = (path: Element | null) =>
  path!
    .getAttribute('d')!
    .slice(1)
    .split('L')
    .map((p) => p.split(' ').map(Number));

describe('the response', () => {
  it('draws a line a layer, decades evenly apart and gains to scale', async () => {
    const { container, rerender } = render(
      <ResponseChart
        frequencyHz={FREQUENCIES}
        curves={[
          { layer: 'marked', gainDb: flat(20) },
          { layer: 'found', gainDb: [0, 10, 20, 30, 40] },
        ]}
        label="Gain, in to out"
      />,
    );
    expect(screen.getByRole('figure', { name: 'Gain, in to out' })).toBeTruthy();
    await screen.findByText('60 dB').catch(() => undefined);
    const line = (layer: string) => points(container.querySelector(`[data-curve="${layer}"]`));
    const found = line('found');
    const steps = found.slice(1).map(([x], i) => x! - found[i]![0]!);
    for (const step of steps) expect(step).toBeCloseTo(steps[0]!, 0);
    const rises = found.slice(1).map(([, y], i) => found[i]![1]! - y!);
    for (const rise of rises) expect(rise).toBeCloseTo(rises[0]!, 0);
    expect(rises[0]).toBeGreaterThan(0);
    // Where both are 20 dB they cross.
    expect(found[2]![1]).toBeCloseTo(line('marked')[2]![1]!, 1);
    // A turned value moves its curve; the paper under it stays the same.
    const grid = container.querySelector('.recharts-cartesian-grid');
    rerender(
      <ResponseChart
        frequencyHz={[...FREQUENCIES]}
        curves={[
          { layer: 'marked', gainDb: flat(20) },
          { layer: 'found', gainDb: [0, 10, 25, 30, 40] },
        ]}
        label="Gain, in to out"
      />,
    );
    expect(container.querySelector('.recharts-cartesian-grid')).toBe(grid);
    expect(line('found')[2]![1]).toBeLessThan(found[2]![1]!);
  });
});
