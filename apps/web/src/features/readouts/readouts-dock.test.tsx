// @vitest-environment happy-dom
import '../../testing/component.ts';
import type { Layer, ReadoutResource } from '@zemble/contract';
import { ZembleError, type ReadoutAnswer } from '@zemble/core';
import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import type { Analysis, LayerAnalysis } from '../../compute/engine.ts';
import { idOf, showInUnit, unitOf } from '../../testing/in-unit.tsx';
import { ReadoutsDock } from './readouts-dock.tsx';

const LINES = ['V1 9V vcc 0', 'R1 10k vcc a', 'R2 10k a 0'];
const volts: ReadoutResource['readout'] = {
  id: 'v',
  name: 'Middle',
  kind: 'voltage',
  net: 'a',
  want: { target: 4.5, within: 0.2 },
};
const rate: ReadoutResource['readout'] = {
  id: 'rate',
  name: 'Rate',
  kind: 'rate',
  net: 'a',
  want: { min: 0.3 },
};

const layer: LayerAnalysis = {
  volts: {},
  reason: null,
  supplies: {},
  gainDb: null,
  overRated: [],
  stresses: [],
};
const onAll = <T,>(of: T): Record<Layer, T> => ({ marked: of, found: of, planned: of, proven: of });
const answer = (value: number): ReadoutAnswer => ({ ok: true, value });
const analysed = (
  values: Record<string, [unit: 'V' | 'Hz', value: number]>,
  isSlowPending = false,
): Analysis => ({
  frequencyHz: [],
  isSlowPending,
  isCurrent: !isSlowPending,
  layers: onAll(layer),
  rows: Object.entries(values).map(([id, [unit, value]]) => ({ id, unit, answers: onAll(answer(value)) })),
});
const head = () => screen.getByRole('button', { name: /^Readouts|^down Readouts|Readouts/ }).textContent;
beforeEach(() => {
  localStorage.clear();
  Object.defineProperty(globalThis, 'matchMedia', { value: () => ({ matches: false }), configurable: true });
});

describe('where a unit stands, in the dock', () => {
  it('names what is out, with its value and what is wanted, each with its unit', () => {
    showInUnit(unitOf({ lines: LINES, readouts: [volts] }), <ReadoutsDock />, analysed({ v: ['V', 5.1] }));
    expect(head()).toContain('Middle: 5.1 V, wanted 4.5 ± 0.2 V');
    showInUnit(unitOf({ lines: LINES, readouts: [rate] }), <ReadoutsDock />, analysed({ rate: ['Hz', 0.2] }));
    expect(screen.getAllByText(/Rate: 200 mHz, wanted > 300 mHz/).length).toBe(1);
  });

  it('says why the chosen readout has no number, and what a number would hide', async () => {
    const made = analysed({ v: ['V', 4.5], rate: ['Hz', 1] });
    const why = new ZembleError('readout/not-defined', {
      where: 'Rate',
      detail: 'net a does not oscillate',
    }).problem;
    const rows = made.rows.map((row) => ({
      ...row,
      answers: onAll<ReadoutAnswer>(
        row.id === 'rate'
          ? { ok: false, problem: why }
          : { ok: true, value: 4.5, beside: 'Below that it hums.' },
      ),
    }));
    const unit = unitOf({ lines: LINES, readouts: [volts, rate] });
    showInUnit(unit, <ReadoutsDock />, { ...made, rows });
    expect(screen.queryByText('Below that it hums.')).toBeNull();
    await userEvent.click(screen.getByRole('button', { name: 'Rate' }));
    expect(screen.getByText(why.message)).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Middle' }));
    expect(screen.getByText('Below that it hums.')).toBeTruthy();
    expect(screen.queryByText(why.message)).toBeNull();
  });

  it('has the warnings of the layer shown in sight, one after the other', async () => {
    const warn = (ref: string, detail: string) =>
      new ZembleError('change/half-done', { ref, detail }).problem;
    const warnings = [warn('R1', 'its net x hangs in the air'), warn('R2', 'both of its ends are on y')];
    showInUnit(
      unitOf({ lines: LINES, readouts: [volts] }),
      <ReadoutsDock />,
      analysed({ v: ['V', 4.5] }),
      warnings,
    );
    expect(screen.getByRole('button', { name: warnings[0]!.message })).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: '1 of 2' }));
    expect(screen.getByRole('button', { name: warnings[1]!.message })).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: '2 of 2' }));
    expect(screen.getByRole('button', { name: warnings[0]!.message })).toBeTruthy();
  });

  it('says in range as marked of a unit that nobody has measured, and as computed of one that is', () => {
    const unit = unitOf({ lines: LINES, readouts: [volts] });
    const first = showInUnit(unit, <ReadoutsDock />, analysed({ v: ['V', 4.5] }));
    expect(head()).toContain('in range as marked; nothing of it is measured yet');
    first.unmount();
    const measured = unitOf({
      lines: LINES,
      readouts: [volts],
      readings: [{ partId: idOf(101), value: 10_000 }],
    });
    showInUnit(measured, <ReadoutsDock />, analysed({ v: ['V', 4.5] }));
    expect(head()).toContain('in range as computed; not measured on the bench: Middle');
  });

  it('says nothing of what is still computed, though a number of an earlier state stands there', () => {
    const unit = unitOf({ lines: LINES, readouts: [rate] });
    const shown = showInUnit(unit, <ReadoutsDock />, analysed({ rate: ['Hz', 2] }, true));
    expect(head()).toContain('computing');
    shown.unmount();
    const bench = unitOf({ lines: LINES, readouts: [rate], readings: [{ readoutId: idOf(200), value: 2 }] });
    showInUnit(bench, <ReadoutsDock />, analysed({ rate: ['Hz', 2] }));
    expect(head()).toContain('all in range');
  });

  it('takes what the bench says, in the readout’s unit, and keeps what cannot be read', async () => {
    const user = userEvent.setup();
    const unit = unitOf({ lines: LINES, readouts: [volts] });
    const { change } = showInUnit(unit, <ReadoutsDock />, analysed({ v: ['V', 4.5] }));
    await user.click(screen.getByRole('button', { name: 'Type what the bench says for Middle' }));
    const field = screen.getByRole('textbox', { name: 'Bench reading of Middle' });
    await user.type(field, '4x{Enter}');
    expect(change).not.toHaveBeenCalled();
    expect(field.getAttribute('aria-invalid')).toBe('true');
    await user.clear(field);
    await user.type(field, '4480m{Enter}');
    expect(change.mock.calls[0]![0]).toMatchObject({
      type: 'add-reading',
      readoutId: idOf(200),
      value: 4.48,
    });
  });

  it('is folded and opened, and stays as it was left', async () => {
    const user = userEvent.setup();
    const unit = unitOf({ lines: LINES, readouts: [volts] });
    const first = showInUnit(unit, <ReadoutsDock />, analysed({ v: ['V', 4.5] }));
    const fold = within(screen.getByRole('region', { name: 'Readouts' })).getAllByRole('button')[0]!;
    expect(fold.getAttribute('aria-expanded')).toBe('true');
    await user.click(fold);
    expect(fold.getAttribute('aria-expanded')).toBe('false');
    first.unmount();
    showInUnit(unit, <ReadoutsDock />, analysed({ v: ['V', 4.5] }));
    expect(screen.getByRole('button').getAttribute('aria-expanded')).toBe('false');
  });
});
