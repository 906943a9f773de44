// @vitest-environment happy-dom
import '../../testing/component.ts';
import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeAll, describe, expect, it, vi } from 'vitest';
import { idOf, unitOf } from '../../testing/in-unit.tsx';
import { ReadingsTable } from './readings-table.tsx';
import { measuredParts } from './measured-parts.ts';

beforeAll(() => {
  // A page without layout has no heights, and scrolls nowhere: a window of twenty rows.
  Object.defineProperty(HTMLElement.prototype, 'offsetHeight', {
    get(this: HTMLElement) {
      return this.tagName === 'TBODY' ? 29 : 600;
    },
  });
  Element.prototype.scrollTo = () => undefined;
});

const LINES = ['R1 10k 5% a 0', 'R2 47k 5% a b', 'C1 22u polarised b 0', 'Q1 2N3904 c b e', 'D1 1N4148 a b'];
const unit = unitOf({
  lines: LINES,
  readings: [
    { partId: idOf(100), value: 10_100 },
    { partId: idOf(101), value: 68_000 },
    { partId: idOf(101), value: 69_000 },
    { partId: idOf(103), value: 0.65, aspect: 'b-e' },
  ],
});

function open(isOrdered = false) {
  const onSelect = vi.fn();
  render(
    <ReadingsTable parts={measuredParts(unit)} isOrdered={isOrdered} currentRef="C1" onSelect={onSelect} />,
  );
  return { onSelect, user: userEvent.setup() };
}
const rows = () => screen.getAllByRole('row').slice(1);
const heads = () =>
  rows().flatMap((r) =>
    within(r)
      .queryAllByRole('button')
      .map((b) => b.textContent),
  );

describe('the readings of a unit', () => {
  it('stand with the worst on top, each with what is marked, found and how far it is off', () => {
    open();
    expect(heads().slice(0, 3)).toEqual(['R2', 'R1', 'C1']);
    const worst = rows()[0]!.textContent;
    expect(worst).toContain('47 kΩ');
    // The latest of two readings is shown, and that there are two is told.
    expect(worst).toContain('69 kΩ');
    expect(worst).toContain('+47 %');
    expect(worst).toContain('out, high');
    expect(rows()[0]!.title).toContain('2 readings are kept');
  });

  it('keep the order that was chosen, and mark the part that is being measured', () => {
    open(true);
    expect(heads().slice(0, 3)).toEqual(['R1', 'R2', 'C1']);
    const current = rows().find((r) => r.className.includes('zb-row-selected'))!;
    expect(current.textContent).toContain('C1');
  });

  it('have what was read of a junction beside its part, and what was not at the end', async () => {
    const { onSelect, user } = open();
    const junction = rows().find((r) => r.textContent.includes('b-e'))!;
    expect(junction.textContent).toContain('Q1');
    expect(junction.textContent).toContain('650 mV');
    expect(rows().at(-1)!.textContent).toContain('Junctions, contacts and coils: D1');
    await user.click(screen.getByRole('button', { name: 'Measure D1' }));
    await user.click(screen.getByRole('button', { name: 'Measure R1' }));
    expect(onSelect.mock.calls.map(([ref]) => ref as string)).toContain('D1');
    expect(onSelect.mock.calls.at(-1)).toEqual(['R1']);
  });
});
