// @vitest-environment happy-dom
import '../testing/component.ts';
import { render, screen } from '@testing-library/react';
import { useRef } from 'react';
import { describe, expect, it } from 'vitest';
import { VirtualRows } from './virtual-rows.tsx';

// A page without layout has no heights: a window of twenty rows.
Object.defineProperty(HTMLElement.prototype, 'offsetHeight', {
  get(this: HTMLElement) {
    return this.tagName === 'TBODY' ? 29 : 600;
  },
});

function List({ count }: { count: number }) {
  const scroller = useRef<HTMLDivElement>(null);
  const items = Array.from({ length: count }, (_, i) => `R${i}`);
  return (
    <div ref={scroller}>
      <table>
        <VirtualRows items={items} keyOf={(i) => i} scroller={scroller} columns={1} current={-1}>
          {(item) => (
            <tr>
              <td>{item}</td>
            </tr>
          )}
        </VirtualRows>
      </table>
    </div>
  );
}

describe('the rows of a long table', () => {
  it('are all there in a list of a usual length, where the browser finds them', () => {
    render(<List count={90} />);
    expect(screen.getByText('R0')).toBeTruthy();
    expect(screen.getByText('R89')).toBeTruthy();
  });

  it('are only those in sight of a list of thousands', () => {
    render(<List count={5000} />);
    expect(screen.getByText('R0')).toBeTruthy();
    expect(document.querySelectorAll('tr').length).toBeLessThan(100);
  });

  it('are none of an empty list', () => {
    render(<List count={0} />);
    expect(document.querySelectorAll('tr').length).toBe(0);
  });
});
