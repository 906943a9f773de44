import type { Change } from '@zemble/contract';
import { describe, expect, it } from 'vitest';
import { parseChangeLine } from '../../sheet/sheet/index.ts';
import { circuitOf } from '../../testing/circuits.ts';
import type { Circuit, UnitDocument } from '../../circuit/circuit/index.ts';
import { benchSteps } from './bench-steps.ts';
import { tickOf } from './tick.ts';

const change = (circuit: Circuit, id: string, line: string, more: Partial<Change> = {}): Change => {
  const read = parseChangeLine(line, circuit);
  if (!read.ok) throw new Error(read.problem.message);
  return { id, name: id, purpose: 'modification', state: 'planned', steps: read.steps, ...more };
};
const unitOf = (circuit: Circuit): UnitDocument => ({ unit: {}, circuit, readouts: [] });
const said = (circuit: Circuit, wish = {}) => {
  const { steps, problems } = benchSteps(unitOf(circuit), wish);
  return { text: steps.map((s) => s.say).join('\n'), steps, problems };
};

describe('taking back a change that another stands on', () => {
  it('says so, and tells the ohms of what is really left', () => {
    const came = circuitOf('V1 9V v 0\nR1 1k v a\nR2 1k a 0');
    const m1 = change(came, 'm1', 'cut a at R1.b as x; +R3 1k x a', { state: 'done' });
    const with1 = { ...came, changes: [m1] };
    const m2 = change(with1, 'm2', '+R4 1k x 0; R3 -> 2k', { state: 'done' });
    const { text, problems } = said({ ...came, changes: [m1, m2] }, { change: 'm1' });
    expect(problems.map((p) => p.message)).toEqual(['"m2" stands on "m1".']);
    // R4 stays where x was, bridged across R2: 500 ohm at a, 1.5k at v.
    expect(text).toMatch(/Ohms from a [^\n]*: 500 Ω is computed/);
    expect(text).toMatch(/Ohms from v [^\n]*: 1.5 kΩ is computed/);
    expect(said(with1, { change: 'm1' }).problems).toEqual([]);
  });
});

describe('before the first power', () => {
  it('what is lifted comes back', () => {
    const came = circuitOf('V1 9V v 0\nR1 1k v a\nR2 1k a 0\nC1 1u a out\nR5 1k out 0');
    const leg = change(came, 'leg', 'lift R5.a', { purpose: 'diagnosis', state: 'done' });
    const { steps } = said({ ...came, changes: [leg, change(came, 'm', 'R2 -> 2k')] });
    const back = steps.findIndex((s) => s.id.startsWith('back:leg'));
    const power = steps.findIndex((s) => s.kind === 'power');
    expect(back).toBeGreaterThan(0);
    expect(back).toBeLessThan(power);
    expect(steps[back]!.ticks).toEqual({ change: 'leg', step: 0 });
  });

  it('each that is lifted comes back by its own tick, whatever else is still out', () => {
    const came = circuitOf('V1 9V v 0\nR1 1k v a\nR2 1k a 0\nC1 1u a out\nR5 1k out 0');
    const leg = (id: string, pin: string) =>
      change(came, id, `lift ${pin}`, { purpose: 'diagnosis', state: 'done' });
    const changes = [leg('one', 'R5.a'), leg('two', 'C1.a'), change(came, 'm', 'R2 -> 2k')];
    const { steps } = said({ ...came, changes });
    const unit: Parameters<typeof tickOf>[0] = {
      ticks: {},
      changes: changes.map((c, i) => ({ id: String(i), version: 1, position: i, change: c })),
    };
    for (const id of ['one', 'two']) {
      const tick = tickOf(unit, steps, `back:${id}.0`, true, '2026-12-01T12:00:00.000Z');
      expect(tick.change?.change).toMatchObject({ id, state: 'undone' });
    }
  });

  it('a plug that switches the supply is put in, and the rails are those with it', () => {
    const came = circuitOf('V1 9V vp 0m\nJ1 jack tip=in sleeve=0 ring=0m\nR1 1k vp a\nR2 1k a 0\nR3 1M in 0');
    const { text } = said({ ...came, changes: [change(came, 'm', 'R2 -> 2k')] });
    expect(text).toContain('Put a plug into J1: it is the switch of the supply.');
    expect(text).toMatch(/vp 9 V/);
    expect(text).toMatch(/3 mA is computed at rest/);
  });

  it('a meter shows over range, and a short is a number of ohms', () => {
    const came = circuitOf('V1 9V v 0\nR1 100M v a\nR2 100M a 0');
    const { text } = said({ ...came, changes: [change(came, 'm', 'R2 -> 90M')] });
    expect(text).toContain('over range');
    expect(text).toContain('below 100 Ω is a short');
  });
});
