import type { Change, FileChange, Step } from '@zemble/contract';
import { describe, expect, it } from 'vitest';
import { applyStep, resolveLayer, takeBack, type ChangedCircuit } from '../../circuit/changes/index.ts';
import type { Circuit, LayerPart, UnitDocument } from '../../circuit/circuit/index.ts';
import { isPolarised, resolvePart } from '../../circuit/circuit/index.ts';
import { changed, randomSteps } from '../../testing/changes.ts';
import { circuitOf, randomCircuit, seeded } from '../../testing/circuits.ts';
import { benchSteps, tickOf, type BenchStep } from './index.ts';

const unitOf = (circuit: Circuit, more: Partial<UnitDocument> = {}): UnitDocument => ({
  unit: {},
  circuit,
  readouts: [],
  ...more,
});
const change = (id: string, steps: readonly Step[], more: Partial<Change> = {}): Change => ({
  id,
  name: id,
  purpose: 'modification',
  state: 'planned',
  steps,
  ...more,
});
const part = (line: string) => circuitOf(line).parts[0]!;
const kinds = (steps: readonly BenchStep[]) => steps.map((s) => s.kind);
const at = (steps: readonly BenchStep[], id: string) => steps.findIndex((s) => s.id === id);

const STAGE = `V1 12 vcc 0
R1 100k vcc b
R2 22k b 0
R3 4k7 vcc c
R4 1k e 0
C2 100u polarised 16V e 0
Q1 2N3904 c b e`;

/** Random changes to random circuits, parted into two. */
function randomPlan(seed: number): { readonly circuit: Circuit; readonly unit: UnitDocument } {
  const circuit = randomCircuit(seed, 2);
  const steps = randomSteps(circuit, seed);
  const half = Math.ceil(steps.length / 2);
  const changes = [change('m1', steps.slice(0, half)), change('m2', steps.slice(half))].filter(
    (c) => c.steps.length > 0,
  );
  const hazards = seeded(seed)() < 0.5 ? (['mains'] as const) : [];
  return { circuit, unit: unitOf({ ...circuit, changes }, { unit: { hazards } }) };
}

const stepOf = (unit: UnitDocument, { ticks }: BenchStep): Step =>
  unit.circuit.changes!.find((c) => c.id === ticks!.change)!.steps[ticks!.step]!;

const picture = ({ parts }: ChangedCircuit) =>
  Object.fromEntries(
    [...parts].sort((a, b) => a.ref.localeCompare(b.ref)).map((p) => [p.ref, [p.value, p.model, p.pins]]),
  );

/** Which pins hang together, whatever their nets are called: joined nets keep one name or the other by the order of the joins. */
function groups({ parts }: ChangedCircuit): string[] {
  const nets = new Map<string, string[]>();
  for (const { ref, pins } of parts)
    for (const [pin, net] of Object.entries(pins)) nets.set(net, [...(nets.get(net) ?? []), `${ref}.${pin}`]);
  return [...nets.values()].map((pins) => pins.sort().join(' ')).sort();
}

describe('bench steps of random changes', () => {
  const plans = Array.from({ length: 200 }, (_, i) => randomPlan(i + 1)).map((p) => ({
    ...p,
    work: benchSteps(p.unit).steps,
  }));

  it('tick every step of every change exactly once, or are done in place of it', () => {
    for (const { unit, work } of plans) {
      const ticked = work.flatMap((s) =>
        [...(s.ticks ? [s.ticks] : []), ...(s.replaces ?? [])].map((t) => `${t.change}.${t.step}`),
      );
      const all = unit.circuit.changes!.flatMap((c) => c.steps.map((_, i) => `${c.id}.${i}`));
      expect([...ticked].sort()).toEqual([...all].sort());
    }
  });

  it('make the circuit that was planned, in their order, and taken back in reverse the one before', () => {
    for (const { circuit, unit, work } of plans) {
      const start = changed(circuit);
      let asPlanned = start;
      for (const c of unit.circuit.changes!)
        for (const step of c.steps) {
          const made = applyStep(asPlanned, step);
          if (made.ok) asPlanned = made.circuit;
        }
      let now = start;
      const inverses = [];
      for (const step of work.filter((s) => s.ticks)) {
        const made = applyStep(now, stepOf(unit, step));
        if (!made.ok) throw new Error(made.problem.message);
        inverses.push(made.inverse);
        now = made.circuit;
      }
      expect(groups(now)).toEqual(groups(asPlanned));
      expect(Object.keys(picture(now))).toEqual(Object.keys(picture(asPlanned)));
      for (const inverse of inverses.reverse()) now = takeBack(now, inverse);
      expect(picture(now)).toEqual(picture(start));
    }
  });

  it('put no power on before the last check, and need nothing that comes later', () => {
    for (const { work: steps } of plans) {
      if (steps.length === 0) continue;
      const firstPower = kinds(steps).indexOf('power');
      expect(firstPower).toBeGreaterThan(kinds(steps).lastIndexOf('check'));
      expect(kinds(steps).indexOf('check')).toBeGreaterThan(
        Math.max(...steps.map((s, i) => (s.ticks ? i : 0))),
      );
      steps.forEach((step, i) => {
        for (const id of step.needs) {
          expect(at(steps, id), `${step.id} needs ${id}`).toBeGreaterThanOrEqual(0);
          expect(at(steps, id)).toBeLessThan(i);
        }
      });
      expect(new Set(steps.map((s) => s.id)).size).toBe(steps.length);
      // Every power step stands behind every check, through what it needs.
      const behind = (id: string): string[] => {
        const { needs } = steps[at(steps, id)]!;
        return [...needs, ...needs.flatMap(behind)];
      };
      const checks = steps.filter((s) => s.kind === 'check').map((s) => s.id);
      for (const step of steps.filter((s) => s.kind === 'power'))
        expect(behind(step.id)).toEqual(expect.arrayContaining(checks));
    }
  });

  it('let down what is stored before anything is touched', () => {
    for (const { work: steps } of plans.filter((p) => p.unit.unit.hazards!.length > 0)) {
      if (steps.length === 0) continue;
      expect(kinds(steps).slice(0, 3)).toEqual(['safe', 'discharge', 'dead']);
    }
  });

  it('say which way round wherever a part has a way', () => {
    for (const { unit, work } of plans) {
      const fitted = work.filter((s) => s.ticks && ['fit', 'chip'].includes(s.kind));
      for (const step of fitted) {
        const ref = step.refs[0]!;
        const put = unit.circuit
          .changes!.flatMap((c) => c.steps)
          .flatMap((s) => (s.do === 'add' ? [s.part] : []));
        const found = [...unit.circuit.parts, ...put].find((p) => p.ref === ref)!;
        const resolved: LayerPart = resolvePart(found, 'marked');
        if (Object.keys(found.pins).length > 2 || isPolarised(found) || resolved.kind === 'diode')
          expect(step.caution, ref).toMatch(/^Which way round: /);
      }
    }
  });
});

describe('the order of good hands (common practice)', () => {
  const plan = (steps: readonly Step[], more: Partial<UnitDocument> = {}) =>
    benchSteps(unitOf({ ...circuitOf(STAGE), changes: [change('m1', steps)] }, more)).steps;

  it('takes out before it cuts, cuts before it links, and fits from the lowest to the chips', () => {
    const steps = plan([
      { do: 'add', part: part('U9 TL072 p m o vcc 0') },
      { do: 'add', part: part('C9 470u 25V vcc 0') },
      { do: 'add', part: part('Q9 2N3904 vcc p 0') },
      { do: 'add', part: part('D9 1N4148 0 p') },
      { do: 'add', part: part('P9 10k vcc p 0') },
      { do: 'join', net: 'e', to: 'm' },
      { do: 'cut', net: 'vcc', pins: ['R3.a'], as: 'vc2' },
      { do: 'fit', ref: 'R4', value: 820 },
    ]);
    const done = steps.filter((s) => s.ticks || s.kind === 'take out').map((s) => s.refs[0] ?? s.kind);
    // The wire that joins e to m cannot be laid before m is there, with the chip that brings it.
    expect(done).toEqual(['R4', 'R3', 'R4', 'D9', 'Q9', 'C9', 'P9', 'U9', 'link']);
    expect(at(steps, 'socket:m1.0')).toBeLessThan(at(steps, 'do:m1.2'));
  });

  it('keeps what a modification takes out whole, and clips what a repair scraps', () => {
    const [kept] = plan([{ do: 'fit', ref: 'R4', value: 820 }]).filter((s) => s.kind === 'take out');
    expect(kept!.say).toContain('fresh solder on each joint');
    const repair = unitOf({
      ...circuitOf(STAGE),
      changes: [change('m1', [{ do: 'fit', ref: 'R4', value: 1000 }], { purpose: 'repair' })],
    });
    const [scrap] = benchSteps(repair).steps.filter((s) => s.kind === 'take out');
    expect(scrap!.say).toContain('clip its 2 legs');
  });

  it('says what the part shows: bands, code, stripe; and its rating at 1.5 times what it will see', () => {
    const steps = plan([
      { do: 'fit', ref: 'R4', value: 820 },
      { do: 'add', part: part('C9 47n vcc 0') },
      { do: 'fit', ref: 'C2', value: 220e-6, part: { voltage: 16 } },
      { do: 'add', part: part('C10 100u 10V vcc 0') },
    ]);
    const say = (id: string) => steps[at(steps, id)]!;
    // IEC 60062: 820 ohm is grey, red, brown; a capacitor of 47 nF is printed 473.
    expect(say('do:m1.0').say).toContain('grey red brown gold');
    expect(say('do:m1.1').say).toContain('printed 473');
    expect(say('do:m1.2').say).toContain('the stripe marks the minus');
    expect(say('do:m1.3').caution).toContain('take 25 V or more');
  });

  it('predicts the ohms before power and the rails after it', () => {
    const steps = plan([{ do: 'fit', ref: 'R4', value: 820 }]);
    expect(steps.find((s) => s.id === 'check:rail:vcc')!.say).toContain('is a short');
    // Only R4 leads from e to ground, junctions apart.
    expect(steps.find((s) => s.id === 'check:ohms:e')!.say).toContain('820 Ω');
    expect(steps.find((s) => s.id === 'power:rails')!.say).toContain('vcc 12 V');
  });

  it('proposes nothing live where it can kill', () => {
    const steps = plan([{ do: 'fit', ref: 'R4', value: 820 }], { unit: { hazards: ['mains'] } });
    const live = steps.filter((s) => s.kind === 'power');
    expect(live[0]!.caution).toContain('Keep hands out');
    expect(live.find((s) => s.id === 'power:rails')!.say).toMatch(/^Clip the meter on with the power off/);
  });
});

describe('work of other sorts', () => {
  it('takes a change that is done back in reverse, and says where the old part lies', () => {
    const done = change(
      'm1',
      [
        { do: 'fit', ref: 'R4', value: 820 },
        { do: 'cut', net: 'vcc', pins: ['R3.a'], as: 'vc2' },
      ],
      { state: 'done' },
    );
    const { steps } = benchSteps(unitOf({ ...circuitOf(STAGE), changes: [done] }), { change: 'm1' });
    const back = steps.filter((s) => s.ticks);
    expect(back.map((s) => s.ticks!.step)).toEqual([1, 0]);
    expect(back[1]!.say).toContain('in the bag marked R4');
    expect(kinds(steps)[0]).toBe('safe');
    expect(kinds(steps).at(-1)).toBe('power');
  });

  it('keeps what is done in the list until it is checked, and the way back until that is', () => {
    const done = change('m1', [{ do: 'fit', ref: 'R4', value: 820 }], { state: 'done' });
    const unit = unitOf({ ...circuitOf(STAGE), changes: [done] });
    expect(benchSteps(unit).steps).toEqual([]);
    expect(kinds(benchSteps(unit, { alsoDone: ['m1'] }).steps)).toEqual(
      expect.arrayContaining(['fit', 'check', 'power']),
    );
    const undone = unitOf({ ...circuitOf(STAGE), changes: [{ ...done, state: 'undone' as const }] });
    const back = benchSteps(undone, { change: 'm1', isBack: true }).steps;
    expect(back.filter((s) => s.ticks).map((s) => s.id)).toEqual(['back:m1.0']);
  });

  it('builds a unit from nothing: cuts, links, parts, wires, chips', () => {
    const unit = unitOf(circuitOf(`${STAGE}\nU1 TL072 c m m vcc 0\nP1 10k m w 0`), {
      wires: [{ id: 'w1', colour: 'green', from: 'P1.2', to: 'board.w' }],
      boards: [
        {
          id: 'b1',
          style: 'strip',
          columns: 9,
          rows: 9,
          places: [{ ref: 'R1', holes: { a: [2, 3], b: [2, 7] } }],
          cuts: [[4, 3]],
          links: [{ from: [2, 1], to: [2, 5] }],
          terminals: [],
        },
      ],
    });
    // Without a plan there is nothing to do, unless the unit is built.
    expect(benchSteps(unit).steps).toEqual([]);
    const { steps } = benchSteps(unit, { isWhole: true });
    expect(kinds(steps)[0]).toBe('mark');
    expect(steps.find((s) => s.id === 'do:R1')!.place).toBe('a at column 2, row 3; b at column 2, row 7');
    const order = [
      'b1:cut:4,3',
      'b1:link:2,1-2,5',
      'do:R1',
      'socket:U1',
      'do:Q1',
      'do:C2',
      'do:P1',
      'wire:w1',
      'do:U1',
      'check:look',
    ];
    expect(order.map((id) => at(steps, id))).toEqual(order.map((id) => at(steps, id)).sort((a, b) => a - b));
    expect(order.every((id) => at(steps, id) >= 0)).toBe(true);
  });

  it('builds nothing of a unit without parts', () => {
    expect(benchSteps(unitOf({ ground: '0', parts: [] }), { isWhole: true }).steps).toEqual([]);
  });

  it('names a change that cannot be made, does the others, and refuses one that is not there', () => {
    const circuit = {
      ...circuitOf(STAGE),
      changes: [change('bad', [{ do: 'remove', ref: 'R99' }]), change('m1', [{ do: 'remove', ref: 'R4' }])],
    };
    const { steps, problems } = benchSteps(unitOf(circuit));
    expect(problems).toHaveLength(1);
    expect(steps.filter((s) => s.ticks).map((s) => s.id)).toEqual(['out:m1.0']);
    expect(() => benchSteps(unitOf(circuit), { change: 'nothing' })).toThrow(
      /There is no change "nothing"; there are bad and m1/,
    );
  });

  it('shows what was ticked before it was left', () => {
    const done = { at: '2026-03-01T10:00:00.000Z' };
    const circuit = {
      ...circuitOf(STAGE),
      changes: [
        change('m1', [
          { do: 'fit', ref: 'R4', value: 820, done },
          { do: 'remove', ref: 'R2' },
        ]),
      ],
    };
    const { steps } = benchSteps(unitOf(circuit));
    expect(steps.find((s) => s.ticks?.step === 0)!.done).toEqual(done);
    expect(steps.find((s) => s.ticks?.step === 1)!.done).toBeUndefined();
  });
});

describe('several plans for one part', () => {
  const fit = (id: string, value: number) => change(id, [{ do: 'fit', ref: 'R1', value }]);
  const stepsFor = (circuit: Circuit, ...changes: readonly Change[]) =>
    benchSteps(unitOf({ ...circuit, changes }));
  const stage = circuitOf(STAGE);

  it('are soldered once, with the last value, and say which plan is replaced', () => {
    const { steps, problems } = stepsFor(stage, fit('first', 220_000), fit('second', 330_000));
    const atR1 = steps.filter((s) => s.refs.includes('R1') && !['photograph', 'mark'].includes(s.kind));
    expect(atR1.filter((s) => s.kind === 'fit').map((s) => s.say)).toEqual([
      expect.stringContaining('R1 330k'),
    ]);
    expect(atR1.find((s) => s.kind === 'fit')!.replaces).toEqual([{ change: 'first', step: 0 }]);
    expect(atR1.filter((s) => s.kind === 'take out')).toHaveLength(1);
    expect(atR1.find((s) => s.kind === 'take out')!.say).toContain('R1 100k');
    expect(problems.map((p) => p.message)).toEqual([
      'R1 is soldered once: "second" replaces what "first" plans for it.',
    ]);
  });

  it('add a part as it ends, where another fits it otherwise; the tick leaves both plans true', () => {
    const part = { ref: 'R9', kind: 'resistor', pins: { a: 'out', b: '0' }, marked: 10_000 } as const;
    const first = change('first', [{ do: 'add', part }]);
    const second = change('second', [
      { do: 'fit', ref: 'R9', value: 22_000, part: { technology: 'film' } },
      { do: 'fit', ref: 'R1', value: 33_000 },
    ]);
    const { steps, problems } = stepsFor(stage, first, second);
    const atR9 = steps.filter(
      (s) => s.refs.includes('R9') && !['photograph', 'mark', 'check'].includes(s.kind),
    );
    expect(atR9.map((s) => [s.kind, s.id])).toEqual([['fit', 'do:first.0']]);
    expect(atR9[0]!.say).toContain('R9 22k');
    expect(problems.map((p) => p.message)).toEqual([
      'R9 is soldered once: "second" replaces what "first" plans for it.',
    ]);
    const rows = [first, second].map((c, i) => ({
      id: `row${i}`,
      version: 0,
      position: i,
      change: c as FileChange,
    }));
    const at = '2026-01-01T10:00:00.000Z';
    const ticked = tickOf({ changes: rows, ticks: {} }, steps, 'do:first.0', true, at);
    expect(ticked.change!.change).toMatchObject({
      state: 'done',
      steps: [{ do: 'add', part: { ref: 'R9', marked: 22_000, technology: 'film' }, done: { at } }],
    });
    expect(ticked.replaced.map((r) => r.change.steps)).toEqual([[{ do: 'fit', ref: 'R1', value: 33_000 }]]);
    // The circuit with what is left of the plans is the one that was planned.
    const after = [ticked.change!.change, ticked.replaced[0]!.change] as Change[];
    const valueOf = (changes: readonly Change[]) =>
      resolveLayer({ ...stage, changes }, 'planned').parts.map((p) => [p.ref, p.value]);
    expect(valueOf(after)).toEqual(valueOf([first, second]));
  });

  it('ticked one after the other, leave the circuit that was planned, whatever they do to one another', () => {
    const random = seeded(3);
    const one = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)]!;
    const R9 = { ref: 'R9', kind: 'resistor', pins: { a: 'out', b: '0' }, marked: 10_000 } as const;
    for (let k = 0; k < 60; k += 1) {
      let isIn = false;
      const plans = Array.from({ length: 2 + Math.floor(3 * random()) }, (_, i) => {
        const steps = Array.from({ length: 1 + Math.floor(2 * random()) }, (): Step => {
          const value = one([4700, 22_000, 100_000]);
          if (random() < 0.4) return { do: 'fit', ref: 'R1', value };
          if (!isIn) {
            isIn = true;
            return { do: 'add', part: R9 };
          }
          const isOut = random() < 0.25;
          if (!isOut)
            return {
              do: 'fit',
              ref: 'R9',
              value,
              ...(random() < 0.3 ? { part: { technology: 'film' } } : {}),
            };
          isIn = false;
          return { do: 'remove', ref: 'R9' };
        });
        return change(`c${i}`, steps);
      });
      const valuesOn = (layer: 'planned' | 'found', changes: readonly Change[]) =>
        resolveLayer({ ...stage, changes }, layer)
          .parts.map((p) => `${p.ref} ${p.value} ${'technology' in p ? p.technology : ''}`)
          .sort();
      let rows = plans.map((c, i) => ({ id: `row${i}`, version: 0, position: i, change: c as FileChange }));
      const changes = () => rows.map((r) => r.change as Change);
      for (let done = 0; done < 20; done += 1) {
        const { steps } = stepsFor(stage, ...changes());
        const next = steps.find((s) => s.ticks && s.done === undefined);
        if (!next) break;
        const tick = tickOf(
          { changes: rows, ticks: {} },
          steps,
          next.id,
          true,
          `2026-01-01T10:${10 + done}:00.000Z`,
        );
        const now = new Map([tick.change!, ...tick.replaced].map((t) => [t.row.id, t.change]));
        rows = rows.map((r) => ({ ...r, change: now.get(r.id) ?? r.change }));
        expect(valuesOn('planned', changes()), JSON.stringify(plans)).toEqual(valuesOn('planned', plans));
      }
    }
  });

  it('that end where they began are nothing to solder', () => {
    const { steps, problems } = stepsFor(stage, fit('first', 220_000), fit('second', 100_000));
    expect(steps).toEqual([]);
    expect(problems.at(-1)!.message).toContain('R1 100k stays as it is');
  });

  it('put a fresh part in for one that has drifted, though the value is the same', () => {
    const drifted: Circuit = {
      ...stage,
      parts: stage.parts.map((p) => (p.ref === 'R1' ? { ...p, found: 118_000 } : p)),
    };
    const { steps } = stepsFor(drifted, fit('first', 220_000), fit('second', 100_000));
    expect(steps.filter((s) => s.kind === 'fit').map((s) => s.refs)).toEqual([['R1']]);
  });

  it('leave one alone that hands have carried out already', () => {
    const done = change('first', [
      { do: 'fit', ref: 'R1', value: 220_000, done: { at: '2026-01-01T10:00:00.000Z' } },
      { do: 'fit', ref: 'R2', value: 33_000 },
    ]);
    const { steps } = stepsFor(stage, done, fit('second', 330_000));
    const fits = steps.filter((s) => s.kind === 'fit' && s.refs.includes('R1'));
    expect(fits.map((s) => s.done !== undefined)).toEqual([true, false]);
  });
});
