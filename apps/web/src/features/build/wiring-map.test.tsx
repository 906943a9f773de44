// @vitest-environment happy-dom
import '../../testing/component.ts';
import { checkWiring, resolveLayer } from '@zemble/core';
import { fireEvent, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it, vi } from 'vitest';
import type { UnitResource } from '@zemble/contract';
import { DocumentMaker } from '@zemble/core';
import { showInUnit, unitOf } from '../../testing/in-unit.tsx';
import { WiringMap } from './wiring-map.tsx';
import { placeAt, wirePath, wiringPlan } from './wiring-plan.ts';

// A page without layout has no sizes: its pixels are the units of the map.
vi.mock('../../ui/svg-point.ts', () => ({
  svgPoint: (_svg: unknown, event: { readonly clientX: number; readonly clientY: number }) => ({
    x: event.clientX,
    y: event.clientY,
  }),
}));
Element.prototype.setPointerCapture = () => undefined;

const LINES = ['V1 9V vcc 0', 'J1 jack tip=in sleeve=0', 'P1 100k out w 0', 'R1 1k in out', 'R2 1k vcc out'];

function shown(wires: UnitResource['wires'] = []) {
  const unit = { ...unitOf({ lines: LINES }), wires };
  const circuit = resolveLayer(new DocumentMaker().make(unit).circuit, 'planned');
  const report = checkWiring(circuit, wires, []);
  const told = { onAdd: vi.fn(), onChange: vi.fn(), onRemove: vi.fn() };
  showInUnit(unit, <WiringMap report={report} circuit={circuit} {...told} />);
  return { circuit, report, ...told };
}
const place = (name: string | RegExp) => screen.getByRole('button', { name });
/** Without a mouse, as from the keyboard. */
const tap = (name: string | RegExp) => fireEvent.keyDown(place(name), { key: 'Enter' });

describe('the wiring map', () => {
  it('shows what is wired by hand before there is a wire, and joins two places that are tapped', () => {
    const { onAdd } = shown();
    expect(screen.getAllByText('no wire yet')).toHaveLength(3);
    tap('P1.1, net out');
    expect(screen.getByText('From P1.1, on out: tap where its wire goes.')).toBeTruthy();
    tap('board.out, net out');
    expect(onAdd).toHaveBeenCalledWith({ colour: 'white', from: 'P1.1', to: 'board.out' });
    expect(screen.getByText(/^Tap two places/)).toBeTruthy();
  });

  it('gives ground black by itself, and any wire the colour that is chosen', async () => {
    const { onAdd } = shown();
    tap('J1.sleeve, net 0');
    tap('board.0, net 0');
    expect(onAdd).toHaveBeenLastCalledWith({ colour: 'black', from: 'J1.sleeve', to: 'board.0' });
    await userEvent.click(within(screen.getByLabelText('Colour of the wire')).getByLabelText('violet'));
    tap('J1.tip, net in');
    tap('board.in, net in');
    expect(onAdd).toHaveBeenLastCalledWith({ colour: 'violet', from: 'J1.tip', to: 'board.in' });
  });

  it('leaves a place that is tapped twice, or with Escape, without a wire', () => {
    const { onAdd } = shown();
    tap('P1.1, net out');
    tap('P1.1, net out');
    expect(place('P1.1, net out').getAttribute('aria-pressed')).toBe('false');
    tap('P1.1, net out');
    fireEvent.keyDown(place('P1.1, net out'), { key: 'Escape' });
    tap('board.out, net out');
    expect(onAdd).not.toHaveBeenCalled();
  });

  it('paints the wire that is chosen, and takes it out', async () => {
    const { onChange, onRemove } = shown([{ id: 'w1', colour: 'red', from: 'P1.1', to: 'board.out' }]);
    await userEvent.click(screen.getByText('red', { selector: 'text' }));
    expect(screen.getByText(/red w1, P1.1 to board.out/)).toBeTruthy();
    await userEvent.click(screen.getByLabelText('blue'));
    expect(onChange).toHaveBeenCalledWith({ id: 'w1', colour: 'blue', from: 'P1.1', to: 'board.out' });
    await userEvent.click(screen.getByText('Take it out'));
    expect(onRemove).toHaveBeenCalledWith('w1');
  });
});

describe('a wire that is drawn', () => {
  /** Draws from one place to another. */
  const draw = ({ circuit, report }: ReturnType<typeof shown>, from: string, to: string) => {
    const { places } = wiringPlan(circuit, report.wires, []);
    const spotOf = (key: string) => places.find((p) => p.key === key)!.spots[0]!;
    const at = (key: string) => ({ button: 0, clientX: spotOf(key).x, clientY: spotOf(key).y });
    const pressed = screen
      .getAllByRole('button')
      .find((b) => b.getAttribute('aria-label')?.startsWith(`${from},`));
    fireEvent.pointerDown(pressed!, at(from));
    fireEvent.pointerUp(screen.getByLabelText('Lugs and wires'), at(to));
  };
  const WIRE = { id: 'w1', colour: 'red', from: 'P1.1', to: 'board.out' };

  it('joins where it begins to where it ends, and nothing where it ends beside all places', () => {
    const map = shown();
    draw(map, 'J1.tip', 'board.in');
    expect(map.onAdd).toHaveBeenCalledWith({ colour: 'white', from: 'J1.tip', to: 'board.in' });
    fireEvent.pointerDown(place('P1.1, net out'), { button: 0, clientX: 0, clientY: 0 });
    fireEvent.pointerUp(screen.getByLabelText('Lugs and wires'), { clientX: -500, clientY: -500 });
    expect(map.onAdd).toHaveBeenCalledTimes(1);
  });

  it.each([
    ['board.out', 'board.in', { ...WIRE, to: 'board.in' }],
    ['P1.1', 'J1.tip', { ...WIRE, from: 'J1.tip' }],
  ])(
    'moves that end of the chosen wire which is at %s to %s, and leaves the other',
    async (end, to, moved) => {
      const map = shown([WIRE]);
      await userEvent.click(screen.getByText('red', { selector: 'text' }));
      draw(map, end, to);
      expect(map.onChange).toHaveBeenCalledWith(moved);
      expect(map.onAdd).not.toHaveBeenCalled();
    },
  );

  it('does not put both ends of a wire on one place', async () => {
    const map = shown([WIRE]);
    await userEvent.click(screen.getByText('red', { selector: 'text' }));
    draw(map, 'board.out', 'P1.1');
    expect(map.onChange).not.toHaveBeenCalled();
    expect(map.onAdd).not.toHaveBeenCalled();
  });
});

describe('the plan of a wiring map', () => {
  const { circuit } = (() => {
    const unit = unitOf({ lines: LINES });
    return { circuit: resolveLayer(new DocumentMaker().make(unit).circuit, 'planned') };
  })();
  const wires = [
    { id: 'w1', from: 'P1.1', to: 'board.out' },
    { id: 'w2', from: 'P1.2', to: 'the long grey one' },
    { id: 'w3', from: 'P1.3', to: 'J1.sleeve' },
  ];
  const report = checkWiring(circuit, wires, []);
  const plan = wiringPlan(circuit, report.wires, []);

  it('has a spot for each lug, each net that leads to one, and each old wire; no two of them meet', () => {
    expect(plan.places.map((p) => p.key).sort()).toEqual(
      [
        '"the long grey one"',
        ...['J1.sleeve', 'J1.tip', 'P1.1', 'P1.2', 'P1.3', 'V1.minus', 'V1.plus'],
        ...['board.0', 'board.in', 'board.out', 'board.vcc'],
      ].sort(),
    );
    const spots = plan.places.flatMap((p) => p.spots);
    for (const [i, a] of spots.entries())
      for (const b of spots.slice(i + 1)) expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeGreaterThan(20);
    for (const { x, y } of spots) {
      expect(x).toBeGreaterThan(0);
      expect(x).toBeLessThan(plan.width);
      expect(y).toBeLessThan(plan.height);
    }
  });

  it('finds the place that a finger means, and none beside them all', () => {
    for (const place of plan.places)
      for (const spot of place.spots) expect(placeAt(plan, { x: spot.x + 7, y: spot.y - 7 })).toBe(place);
    expect(placeAt(plan, { x: -100, y: -100 })).toBeUndefined();
  });

  it('draws a wire from its lug to the nearer edge of the board', () => {
    const of = (key: string) => plan.places.find((p) => p.key === key)!;
    const { from, to, d } = wirePath(of('board.out'), of('P1.1'));
    expect(from).toEqual(of('P1.1').spots[0]);
    expect(of('board.out').spots).toContainEqual(to);
    const other = of('board.out').spots.find((s) => s !== to)!;
    expect(Math.abs(to.x - from.x)).toBeLessThan(Math.abs(other.x - from.x));
    expect(d.startsWith(`M ${from.x} ${from.y} C`)).toBe(true);
  });
});
