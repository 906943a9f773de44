import {
  AnalysisSession,
  checkBoard,
  checkFit,
  checkUnit,
  checkWiring,
  checkPath,
  drill,
  faultDictionary,
  foundValue,
  layoutCircuit,
  outsideBy,
  preparePath,
  proposeBoard,
  readoutTable,
  searchParts,
  searchState,
  seededRandom,
  solve,
  standingUnder,
  transient,
  markedValue,
  resolveLayer,
  usualTolerance,
  voltageQuantities,
  type Quantity,
  type UnitDocument,
} from '@zemble/core';
import { describe, expect, it } from 'vitest';
import { DEMO_UNITS, droverOverdrive, larkDiscPreamp, wrenTalkback, type DemoUnit } from './index.ts';

/** A demo unit with its readings as found values. */
function measured({ document, readings }: DemoUnit): UnitDocument {
  const parts = document.circuit.parts.map((p) => {
    const found = foundValue(
      p,
      readings.filter((r) => r.ref === p.ref),
    );
    return found === null ? p : { ...p, found };
  });
  return { ...document, circuit: { ...document.circuit, parts } };
}

describe.each(DEMO_UNITS.map((unit) => [unit.document.unit.name ?? '', unit] as const))('%s', (_, unit) => {
  it('is a circuit without a problem', () => {
    expect(checkUnit(unit.document)).toEqual([]);
  });

  it('is a working design: as marked, every readout is in its wanted range', () => {
    for (const row of readoutTable(unit.document)) {
      const readout = unit.document.readouts.find((r) => r.id === row.id)!;
      const answer = row.answers.marked;
      expect(answer.ok, readout.name).toBe(true);
      expect(answer.ok && outsideBy(answer.value, readout.want), readout.name).toBe(0);
    }
  });

  it('is switched on in a run of any length', () => {
    const session = new AnalysisSession(resolveLayer(unit.document.circuit, 'found')).with({
      silence: 'all',
    });
    for (const stopS of [2e-3, 5e-3, 0.02, 0.1, 1, 10]) {
      let points = 0;
      const outcome = transient(session, { stopS, start: 'zero', onPoint: () => (points += 1) < 2000 });
      expect(outcome, `${stopS} s`).toMatchObject({ ok: true });
    }
  });

  it('names only parts that it has in its readings', () => {
    const refs = new Set(unit.document.circuit.parts.map((p) => p.ref));
    expect(unit.readings.filter((r) => !refs.has(r.ref))).toEqual([]);
  });

  it('draws itself without a wire that found no way', () => {
    const { symbols, crossings } = layoutCircuit(unit.document.circuit);
    expect(symbols).toHaveLength(unit.document.circuit.parts.length);
    expect(crossings).toBeLessThan(10);
  });
});

/** Readings of a bench with the unit on: every net's direct voltage, and the tone at every net where there is one. */
function benchQuantities({ circuit }: UnitDocument): Quantity[] {
  const volts = voltageQuantities(circuit);
  const tones = volts.flatMap((q): Quantity[] =>
    q.kind === 'dcv' ? [{ kind: 'level', net: q.net, frequencyHz: 1000 }] : [],
  );
  return circuit.parts.some((p) => p.kind === 'signal') ? [...volts, ...tones] : volts;
}

/** Every so many faults are planted. */
const SAMPLE = 6;

describe.each(DEMO_UNITS.map((unit) => [unit.document.unit.name ?? '', unit] as const))(
  'faults of %s',
  (_, unit) => {
    it('are found by a fault dictionary: the guilty part is in the first group of nine in ten', () => {
      const { document } = unit;
      const random = seededRandom(4);
      const quantities = benchQuantities(document);
      const dictionary = faultDictionary(resolveLayer(document.circuit, 'marked'), quantities);
      const faults = dictionary.flatMap((e) => (e.fault ? [e.fault] : [])).filter((_, i) => i % SAMPLE === 0);
      const missed: string[] = [];
      for (const fault of faults) {
        const parts = document.circuit.parts.map((p) =>
          p.kind === 'resistor' || p.kind === 'capacitor'
            ? { ...p, marked: Number(markedValue(p)) * (1 + usualTolerance(p) * (2 * random() - 1)) }
            : p,
        );
        const drawn = resolveLayer({ ...document.circuit, parts }, 'marked');
        const real = faultDictionary(fault.apply(drawn), quantities, { refs: [] })[0];
        const seen = real?.predicted.map((p) => (p?.value ?? 0) * (1 + 0.005 * (2 * random() - 1)));
        const [group] = seen ? searchParts(dictionary, quantities, seen).groups : [];
        if (!group?.members.some((m) => m.ref === fault.ref)) missed.push(`${fault.ref} ${fault.mode}`);
      }
      expect(missed.length / faults.length, missed.join(', ')).toBeLessThanOrEqual(0.1);
    }, 600_000);
  },
);

describe('Wren talkback intercom', () => {
  const path = preparePath(wrenTalkback.document.path!, wrenTalkback.document.circuit);

  it('has a path without a problem, every part in one block, every fault to be found', () => {
    const { path: data, circuit } = wrenTalkback.document;
    expect(checkPath(data!, circuit)).toEqual([]);
    expect(data!.blocks.flatMap((b) => b.parts ?? []).sort()).toEqual(circuit.parts.map((p) => p.ref).sort());
    expect(drill(path, { random: seededRandom(1) }).foundShare).toBe(1);
  });

  it('leads from hum and no speech to the filter of the first stage in three tests', () => {
    const evidence = [
      { at: 'TP6', saw: 'hum' as const },
      { at: 'TP7', saw: 'good' as const },
      { at: 'TP8', saw: 'none' as const },
    ];
    const { suspects } = searchState(path, { ...wrenTalkback.document, evidence });
    expect(path.blocks[suspects[0]!.block]!.id).toBe('filter');
    expect(suspects[0]!.probability).toBeGreaterThan(0.7);
  });
});

describe('Lark 3 disc preamp', () => {
  const document = measured(larkDiscPreamp);
  const found = (id: string) => {
    const answer = readoutTable(document).find((r) => r.id === id)!.answers.found;
    return answer.ok ? answer.value : Number.NaN;
  };

  it('is dull and quiet on the left, and right on the right', () => {
    expect(found('gainL')).toBeLessThan(35.5);
    expect(found('curveL10000')).toBeLessThan(-1.5);
    expect(found('gainR')).toBeCloseTo(37.4, 1);
    expect(Math.abs(found('curveR10000'))).toBeLessThan(0.5);
  });

  it('comes back into range when the drifted parts are made good', () => {
    const { proposals } = solve({
      circuit: document.circuit,
      readouts: document.readouts,
      layer: 'planned',
      goals: [{ readoutId: 'gainL', want: { target: 37.5, within: 1 } }],
      may: ['R104', 'R109', 'C102'],
      series: 'E24',
      withPairs: false,
      most: 5,
    });
    const [best] = proposals;
    expect(best!.isInside).toBe(true);
    expect(best!.harms).toEqual([]);
    expect(best!.mends).toContain('curveL10000');
  });
});

describe('what the overdrive is built with', () => {
  const { circuit, wires, boards, panels } = droverOverdrive.document;
  const planned = resolveLayer(circuit, 'planned');

  it('is right: its board is the circuit, and its wires join no two nets', () => {
    expect(checkBoard(planned, boards![0]!, wires).problems).toEqual([]);
    const { problems } = checkWiring(planned, wires!, boards!);
    expect(problems.filter((p) => p.code !== 'alike')).toEqual([]);
  });

  it('has a lid of which one control meets a capacitor, which is seen before it is drilled', () => {
    const found = checkFit(panels![0]!, standingUnder(panels![0]!, boards!, planned));
    expect(found.filter((p) => p.code === 'collision').map((p) => [p.controls, p.meets])).toEqual([
      [['c2'], ['C1']],
    ]);
  });
});

describe('stages of the demo units on a board', () => {
  it('are proposed for every block of up to twenty parts, or it is said why not', () => {
    for (const { document } of DEMO_UNITS) {
      const planned = resolveLayer(document.circuit, 'planned');
      const blocks = document.path?.blocks ?? [];
      const groups = blocks.map((b) => b.parts ?? []).filter((p) => p.length > 1 && p.length <= 20);
      const whole = planned.parts.map((p) => p.ref);
      for (const refs of groups.length > 0 ? groups : [whole.slice(0, 20)]) {
        const stage = { ...planned, parts: planned.parts.filter((p) => refs.includes(p.ref)) };
        const proposal = proposeBoard(stage, [], {
          style: 'strip',
          columns: 30,
          rows: 20,
          seed: 1,
          effort: 0.15,
        });
        if (proposal.ok) expect(checkBoard(stage, proposal.board).problems, refs.join()).toEqual([]);
        else
          expect(proposal.why, refs.join()).toMatch(
            /is an? .*: it is not made for a board of holes|No part of the circuit/,
          );
      }
    }
  });
});
