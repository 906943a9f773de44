// @vitest-environment happy-dom
import '../../testing/component.ts';
import { layoutCircuit, type Circuit, type Drawing, type Part } from '@zemble/core';
import { fireEvent, render, screen } from '@testing-library/react';
import { createRef } from 'react';
import { beforeAll, describe, expect, it, vi } from 'vitest';
import { Schematic } from './schematic.tsx';
import type { View } from './view.ts';

const SCALE = 10;
beforeAll(() => {
  // A page without layout captures no pointer.
  Element.prototype.setPointerCapture = () => undefined;
});

function ladder(sections: number): Circuit {
  const parts: Part[] = [{ ref: 'V1', kind: 'supply', marked: 9, pins: { plus: 'n0', minus: '0' } }];
  for (let i = 1; i <= sections; i += 1)
    parts.push(
      { ref: `R${i}`, kind: 'resistor', marked: 1000, pins: { a: `n${i - 1}`, b: `n${i}` } },
      { ref: `C${i}`, kind: 'capacitor', marked: 1e-8, pins: { a: `n${i}`, b: '0' } },
    );
  return { ground: '0', parts };
}

const viewOf = (more: Partial<View> = {}): View => ({
  frame: createRef<HTMLDivElement>(),
  scale: SCALE,
  isWhole: true,
  seen: { left: -50, right: 120, top: -50, bottom: 50 },
  fit: () => undefined,
  zoom: () => undefined,
  show: () => undefined,
  ...more,
});

function open(circuit: Circuit, view = viewOf(), drawing: Drawing = layoutCircuit(circuit)) {
  const told = { onSelectRef: vi.fn(), onSelectNet: vi.fn(), onMove: vi.fn() };
  const element = (of: Drawing) => (
    <Schematic
      drawing={of}
      view={view}
      parts={new Map(circuit.parts.map((p) => [p.ref, p]))}
      texts={new Map(circuit.parts.map((p) => [p.ref, `value of ${p.ref}`]))}
      flags={[]}
      emphasis={new Map()}
      selectedRef="R1"
      selectedNet="n1"
      {...told}
    />
  );
  const { rerender, container } = render(element(drawing));
  const symbol = (ref: string) => container.querySelector<SVGGElement>(`[data-ref="${ref}"]`);
  return { ...told, drawing, container, symbol, draw: (of: Drawing) => rerender(element(of)) };
}

describe('a drawing', () => {
  it('shows each part with its designator and the value of the layer, and answers when one is chosen', () => {
    const { symbol, onSelectRef, onSelectNet, container } = open(ladder(2));
    expect(screen.getByRole('group', { name: 'Circuit of 5 parts' })).toBeTruthy();
    expect(symbol('R2')!.textContent).toBe('R2value of R2');
    fireEvent.pointerDown(symbol('R2')!, { button: 0, clientX: 0, clientY: 0 });
    expect(onSelectRef).toHaveBeenCalledWith('R2');
    const wire = [...container.querySelectorAll('title')].find((t) => t.textContent === 'net n1')!;
    fireEvent.pointerDown(wire.closest('g')!);
    expect(onSelectNet).toHaveBeenCalledWith('n1');
    fireEvent.pointerDown(container.querySelector('svg')!);
    expect(onSelectRef).toHaveBeenLastCalledWith(null);
  });

  it('moves a symbol by whole units, once, and keeps it there until it is drawn there', () => {
    const circuit = ladder(2);
    const { symbol, onMove, drawing, draw } = open(circuit);
    const at = drawing.symbols.find((s) => s.part.ref === 'R2')!.at;
    const grab = symbol('R2')!;
    fireEvent.pointerDown(grab, { button: 0, clientX: 100, clientY: 100 });
    fireEvent.pointerMove(grab, { clientX: 100 + 3.2 * SCALE, clientY: 100 - 1.9 * SCALE });
    expect(symbol('R2')!.getAttribute('transform')).toBe('translate(3 -2)');
    fireEvent.pointerUp(grab);
    const to = { x: at.x + 3, y: at.y - 2 };
    expect(onMove.mock.calls).toEqual([['R2', to]]);
    // A pointer that goes on moves nothing more.
    fireEvent.pointerMove(grab, { clientX: 500, clientY: 500 });
    expect(symbol('R2')!.getAttribute('transform')).toBe('translate(3 -2)');
    draw(layoutCircuit(circuit, { nudges: { R2: to } }));
    expect(symbol('R2')!.getAttribute('transform')).toBeNull();
  });

  it('moves nothing for a click, however unsteady the hand', () => {
    const { symbol, onMove } = open(ladder(2));
    const grab = symbol('R2')!;
    fireEvent.pointerDown(grab, { button: 0, clientX: 100, clientY: 100 });
    fireEvent.pointerMove(grab, { clientX: 103, clientY: 98 });
    fireEvent.pointerUp(grab);
    expect(onMove).not.toHaveBeenCalled();
    expect(symbol('R2')!.getAttribute('transform')).toBeNull();
  });

  it('of many parts holds what is seen, and from afar shapes only', () => {
    const many = ladder(200);
    const drawing = layoutCircuit(many);
    const near = open(many, viewOf(), drawing);
    const drawn = near.container.querySelectorAll('[data-ref]').length;
    expect(drawn).toBeGreaterThan(5);
    expect(drawn).toBeLessThan(200);
    const far = open(many, viewOf({ scale: 1 }), drawing);
    expect(far.container.querySelectorAll('[data-ref]').length).toBe(0);
    expect(far.container.querySelectorAll('path').length).toBe(2);
  });
});
