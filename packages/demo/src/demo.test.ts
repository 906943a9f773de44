import {
  checkCircuit,
  foundValue,
  layoutCircuit,
  outsideBy,
  readoutTable,
  solve,
  type UnitDocument,
} from '@halfsplit/core';
import { describe, expect, it } from 'vitest';
import { DEMO_UNITS, larkDiscPreamp, type DemoUnit } from './index.ts';

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
    expect(checkCircuit(unit.document.circuit, unit.document.readouts)).toEqual([]);
  });

  it('is a working design: as marked, every readout is in its wanted range', () => {
    for (const row of readoutTable(unit.document)) {
      const readout = unit.document.readouts.find((r) => r.id === row.id)!;
      const answer = row.answers.marked;
      expect(answer.ok, readout.name).toBe(true);
      expect(answer.ok && outsideBy(answer.value, readout.want), readout.name).toBe(0);
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
    const [best] = solve({
      circuit: document.circuit,
      readouts: document.readouts,
      layer: 'planned',
      goal: { readoutId: 'gainL', want: { target: 37.5, within: 1 } },
      may: ['R104', 'R109', 'C102'],
      series: 'E24',
      withPairs: false,
      most: 5,
    });
    expect(best!.missBy).toBe(0);
    expect(best!.harms).toEqual([]);
    expect(best!.mends).toContain('curveL10000');
  });
});
