import { describe, expect, it } from 'vitest';
import { evaluateAll, layoutCircuit, resolveLayer, unitDocumentFrom } from '../index.ts';
import { preparePath, proposePath, searchState, shownVolts, tellingReadings, weighDrifts } from '../index.ts';

/** Names that every object of the language has already. */
const ODD = ['__proto__', 'constructor', 'hasOwnProperty', 'toString', 'valueOf'];

const unitNamed = (name: string) =>
  unitDocumentFrom({
    format: 'zemble/unit',
    version: 1,
    unit: { name },
    circuit: {
      ground: '0',
      parts: [
        { ref: 'V1', kind: 'supply', marked: 9, pins: { plus: 'vcc', minus: '0' } },
        { ref: 'R1', kind: 'resistor', marked: '10k', found: '14k', pins: { a: 'vcc', b: name } },
        { ref: 'R2', kind: 'resistor', marked: '10k', pins: { a: name, b: '0' } },
      ],
    },
    readouts: [{ id: name, name, kind: 'voltage', net: name, want: { target: 4.5, within: 0.1 } }],
    path: {
      blocks: [
        { id: 'a', name: 'First', parts: ['V1'] },
        { id: name, name, kind: name, parts: ['R1', 'R2'] },
      ],
      links: [{ from: 'a', to: name, carries: 'supply' }],
      testPoints: [{ id: '1', name: 'middle', edge: ['a', name], net: name }],
    },
    evidence: [{ at: '1', saw: 'none' }],
  });

describe.each(ODD)('a net, readout and block called %s', (name) => {
  it('is drawn, computed, searched and weighed as any other', () => {
    const read = unitNamed(name);
    expect(read.ok ? [] : read.problems).toEqual([]);
    if (!read.ok) return;
    const { document } = read;
    const { circuit, readouts, path } = document;
    const [answer] = evaluateAll(resolveLayer(circuit, 'found'), readouts);
    expect(answer).toMatchObject({ ok: true, value: expect.closeTo(3.75, 6) as number });
    expect(layoutCircuit(circuit, { nameNets: [name] }).symbols).toHaveLength(3);
    expect(new Map(shownVolts(resolveLayer(circuit, 'found'))).get(name)).toBeCloseTo(3.75, 2);
    expect(weighDrifts(circuit, readouts).drifts.map((d) => d.ref)).toEqual(['R1']);
    const state = searchState(preparePath(path!, circuit), document, {});
    expect(state.suspects.map((s) => s.block).sort()).toEqual([0, 1]);
    for (const { probability } of state.suspects) expect(probability).toBeGreaterThan(0);
    expect(proposePath(circuit).blocks.length).toBeGreaterThan(0);
    expect(tellingReadings(resolveLayer(circuit, 'found'), [])).toEqual([]);
  });
});
