import type { Change, Step } from '@zemble/contract';
import { describe, expect, it } from 'vitest';
import type { Circuit, UnitDocument } from '../circuit/index.ts';
import { meterReading } from '../../analysis/meter/index.ts';
import { plainDocument, readoutTable, type Readout } from '../../analysis/readouts/index.ts';
import { circuitOf } from '../../testing/circuits.ts';
import { resolveLayer } from './layer.ts';
import { withActiveSet, withControls } from './position.ts';

const change = (steps: readonly Step[], about: Partial<Change> = {}): Change => ({
  id: 'c',
  name: 'A change',
  purpose: 'modification',
  state: 'planned',
  steps,
  ...about,
});
const voltage = (net: string): Readout => ({ id: net, name: net, kind: 'voltage', net });
/** The voltages of nets on the planned layer; null where there is none. */
const planned = (circuit: Circuit, ...nets: string[]) =>
  readoutTable({ unit: {}, circuit, readouts: nets.map(voltage) }).map(({ answers }) =>
    answers.planned.ok ? answers.planned.value : null,
  );

const divider = circuitOf('V1 10V vcc 0\nR1 1k vcc a\nR2 1k a 0\nC1 1u a out\nR3 1k out 0');

describe('what is computed of a changed circuit', () => {
  it('follows from every kind of step, by the divider', () => {
    const after = (...steps: Step[]) => planned({ ...divider, changes: [change(steps)] }, 'a')[0];
    expect(after({ do: 'fit', ref: 'R2', value: 3000 })).toBeCloseTo(7.5, 9);
    expect(
      after({ do: 'add', part: { ref: 'R9', kind: 'resistor', pins: { a: 'a', b: '0' }, marked: 1000 } }),
    ).toBeCloseTo(10 / 3, 9);
    expect(after({ do: 'remove', ref: 'R2' })).toBeCloseTo(10, 6);
    expect(after({ do: 'lift', pin: 'R2.b' })).toBeCloseTo(10, 6);
    expect(after({ do: 'cut', net: 'a', pins: ['R2.a', 'C1.a'], as: 'a2' })).toBeCloseTo(10, 6);
    expect(after({ do: 'join', net: 'a', to: 'out' })).toBeCloseTo(10 / 3, 9);
    expect(after({ do: 'move', pin: 'R3.a', to: 'a' })).toBeCloseTo(10 / 3, 9);
  });

  it('goes on where a leg hangs in the air, of a capacitor too', () => {
    for (const pin of ['C1.a', 'C1.b', 'R3.a', 'R1.a', 'V1.plus'])
      expect(planned({ ...divider, changes: [change([{ do: 'lift', pin }])] }, 'a')[0], pin).not.toBeNull();
    const lifted = { ...divider, changes: [change([{ do: 'lift', pin: 'C1.b' }])] };
    expect(planned(lifted, 'a', 'out')).toEqual([expect.closeTo(5, 9), expect.closeTo(0, 9)]);
    // What hangs on a lifted leg rests with it.
    const filter = circuitOf('V1 10V vcc 0\nR1 1k vcc a\nR2 1k a 0\nR3 1k a b\nC2 1u b 0');
    const held = { ...filter, changes: [change([{ do: 'lift', pin: 'R3.a' }])] };
    expect(planned(held, 'a', 'b')).toEqual([expect.closeTo(5, 9), expect.closeTo(0, 9)]);
    // A circuit that came so has nothing in the air: nothing sets the voltage between two capacitors.
    const cut = { ...divider, changes: [change([{ do: 'remove', ref: 'R3' }])] };
    expect(planned(cut, 'out')[0]).not.toBeNull();
    const both = circuitOf('V1 10V vcc 0\nC1 1u vcc a\nC2 1u a 0');
    expect(planned(both, 'a')).toEqual([null]);
  });

  it('answers to the old name of a net that a wire joined, in readouts and for the meter', () => {
    const circuit = { ...divider, changes: [change([{ do: 'join', net: 'out', to: 'a' }])] };
    expect(planned(circuit, 'a', 'out')).toEqual([expect.closeTo(10 / 3, 9), expect.closeTo(10 / 3, 9)]);
    const layer = resolveLayer(circuit, 'planned');
    expect(meterReading(layer, 'dcv', 'out', '0').reading).toBeCloseTo(10 / 3, 3);
  });

  it('is the same of the layer written down plainly', () => {
    const document: UnitDocument = {
      unit: {},
      circuit: {
        ...divider,
        changes: [
          change([
            { do: 'join', net: 'out', to: 'a' },
            { do: 'fit', ref: 'R1', value: 2200 },
          ]),
        ],
      },
      readouts: [voltage('a'), voltage('out')],
    };
    const before = readoutTable(document).map((r) => r.answers.planned);
    const plain = readoutTable(plainDocument(document, 'planned'));
    expect(plain.map((r) => r.answers.marked)).toEqual(before);
    expect(plain.map((r) => r.answers.planned)).toEqual(before);
  });

  it('follows the set and the controls that are asked for', () => {
    const add = (ref: string, marked: number): Step => ({
      do: 'add',
      part: { ref, kind: 'resistor', pins: { a: 'x', b: '0' }, marked },
    });
    const circuit: Circuit = {
      ...divider,
      sets: [{ id: 'A', active: true }, { id: 'B' }],
      changes: [
        change([{ do: 'add', part: { ref: 'S1', kind: 'switch', pins: { a: 'a', b: 'x' }, closed: true } }]),
        change([add('R8', 1000)], { id: 'a', set: 'A' }),
        change([add('R9', 500)], { id: 'b', set: 'B' }),
      ],
    };
    const at = (c: Circuit) => planned(c, 'a')[0];
    expect(at(circuit)).toBeCloseTo(10 / 3, 2);
    expect(at(withActiveSet(circuit, 'B'))).toBeCloseTo(2.5, 2);
    expect(at(withControls(circuit, { S1: false }))).toBeCloseTo(5, 6);
    expect(() => withControls(circuit, { S2: true })).toThrow('S2');
    expect(() => withControls(circuit, { S1: 0.5 })).toThrow('it cannot stand at 0.5');
    expect(() => withActiveSet(circuit, 'C')).toThrow('There is no set "C".');
  });

  it('with a leg in the air, costs nothing of what was exact', () => {
    const circuit = circuitOf('V1 10V vcc 0\nR1 1G vcc a\nR2 1G a 0\nR3 1k a 0');
    const lifted = { ...circuit, changes: [change([{ do: 'lift', pin: 'R3.b' }])] };
    expect(planned(lifted, 'a')[0]).toBeCloseTo(5, 9);
  });
});
