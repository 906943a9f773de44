import { CHANGE_PURPOSES, CHANGE_STATES } from '@zemble/contract';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Part, UnitDocument } from '../../circuit/circuit/index.ts';
import { circuitOf } from '../../testing/circuits.ts';
import { formatWant, parseWant, readUnitFile, unitDocumentFrom, writeUnitFile } from './index.ts';

const file = (circuit: object, rest: object = {}) =>
  JSON.stringify({ format: 'zemble/unit', version: 1, circuit, ...rest });
const refused = (text: string) => {
  const read = readUnitFile(text);
  return read.ok ? [] : read.problems.map((p) => p.message);
};

const name = fc.stringMatching(/^[a-z][a-z0-9]{0,5}$/);
const layerValue = fc.oneof(
  fc.double({ min: 1e-12, max: 1e9, noNaN: true }),
  fc.constantFrom('open' as const, 'short' as const, null),
);
const part: fc.Arbitrary<Part> = fc.record(
  {
    ref: fc.stringMatching(/^R[0-9]{1,3}$/),
    kind: fc.constant('resistor' as const),
    pins: fc.record({ a: name, b: name }),
    marked: layerValue,
    found: layerValue,
    proven: layerValue,
    tolerance: fc.double({ min: 0, max: 1, noNaN: true }),
    note: fc.string({ maxLength: 30 }),
    laterField: fc.jsonValue({ maxDepth: 2 }),
  },
  { requiredKeys: ['ref', 'kind', 'pins'] },
) as fc.Arbitrary<Part>;
const pin = fc.tuple(name, name).map((names) => names.join('.'));
const step = fc.oneof(
  fc.record(
    {
      do: fc.constant('fit' as const),
      ref: fc.stringMatching(/^R[0-9]{1,3}$/),
      value: fc.double({ min: 1e-12, max: 1e9, noNaN: true }),
      part: fc.record({ power: fc.double({ min: 0.1, max: 9, noNaN: true }), laterField: fc.string() }),
    },
    { requiredKeys: ['do', 'ref'] },
  ),
  fc.record({ do: fc.constant('add' as const), part }),
  fc.record({ do: fc.constant('remove' as const), ref: name }),
  fc.record({ do: fc.constant('lift' as const), pin }),
  fc.record({
    do: fc.constant('cut' as const),
    net: name,
    pins: fc.array(pin, { minLength: 1, maxLength: 3 }),
    as: name,
  }),
  fc.record({ do: fc.constant('join' as const), net: name, to: name }),
  fc.record({ do: fc.constant('move' as const), pin, to: name }),
);
const change = fc.record(
  {
    id: name,
    name,
    purpose: fc.constantFrom(...CHANGE_PURPOSES),
    state: fc.constantFrom(...CHANGE_STATES),
    set: name,
    why: fc.string({ maxLength: 30 }),
    steps: fc.array(step, { minLength: 1, maxLength: 4 }),
    predicted: fc.dictionary(name, fc.option(fc.double({ noNaN: true, noDefaultInfinity: true }))),
    since: fc.constant('2026-03-01T10:00:00.000Z'),
    laterField: fc.jsonValue({ maxDepth: 1 }),
  },
  { requiredKeys: ['id', 'name', 'purpose', 'state', 'steps'] },
);
const document: fc.Arbitrary<UnitDocument> = fc.record({
  unit: fc.record({ name: fc.string({ maxLength: 40 }), laterFact: fc.jsonValue({ maxDepth: 1 }) }),
  circuit: fc.record({
    ground: name,
    parts: fc.array(part, { maxLength: 12 }),
    changes: fc.uniqueArray(change, { selector: (c) => c.id, minLength: 1, maxLength: 3 }),
    sets: fc.uniqueArray(fc.record({ id: name, name, active: fc.constant(false) }), {
      selector: (c) => c.id,
      minLength: 1,
      maxLength: 3,
    }),
  }),
  readouts: fc.uniqueArray(
    fc.record({
      id: name,
      name: fc.stringMatching(/^[a-zA-Z][a-zA-Z ]{0,10}[a-z]$/),
      kind: fc.constant('gain' as const),
      from: name,
      to: name,
      frequencyHz: fc.double({ min: 1, max: 1e6, noNaN: true }),
    }),
    { selector: (r) => r.id, maxLength: 4 },
  ),
  laterSection: fc.jsonValue({ maxDepth: 2 }),
}) as fc.Arbitrary<UnitDocument>;

describe('changes in a unit file', () => {
  const circuit = {
    ground: '0',
    parts: [
      { ref: 'R1', kind: 'resistor', pins: { a: 'a', b: '0' }, marked: '1k', planned: '820' },
      { ref: 'C1', kind: 'capacitor', pins: { a: 'a', b: '0' }, marked: '100n', planned: null },
    ],
  };
  const change = (steps: unknown[], about: object = {}) => ({
    id: 'm1',
    name: 'Slow switch',
    purpose: 'modification',
    state: 'planned',
    steps,
    ...about,
  });
  const read = (text: string) => {
    const result = readUnitFile(text);
    if (!result.ok) throw new Error(result.problems.map((p) => p.message).join(' '));
    return result.document.circuit;
  };

  it('are read with every notation of the trade, by the kind of the part that a step is for', () => {
    const steps = [
      { do: 'add', part: { ref: 'C30', kind: 'capacitor', pins: { a: 'x', b: 'a' }, marked: '470n' } },
      { do: 'fit', ref: 'C30', value: '0.022u', part: { voltage: '63V', technology: 'film' } },
      { do: 'fit', ref: 'R1', value: '4k7' },
    ];
    const { changes } = read(file({ ...circuit, parts: circuit.parts }, { changes: [change(steps)] }));
    expect(changes!.at(-1)!.steps).toEqual([
      { do: 'add', part: { ref: 'C30', kind: 'capacitor', pins: { a: 'x', b: 'a' }, marked: 470e-9 } },
      { do: 'fit', ref: 'C30', value: 22e-9, part: { voltage: 63, technology: 'film' } },
      { do: 'fit', ref: 'R1', value: 4700 },
    ]);
  });

  it('a planned value of a part is short for a fit of purpose repair', () => {
    const { changes, parts } = read(file(circuit));
    expect(changes).toMatchObject([
      { purpose: 'repair', state: 'planned', steps: [{ do: 'fit', ref: 'R1', value: 820 }] },
    ]);
    for (const part of parts) expect(part).not.toHaveProperty('planned');
  });

  it('that are temporary may be a name alone, with the condition that holds while they are in force', () => {
    const off = { purpose: 'diagnosis', state: 'done', condition: 'disconnected: amp' };
    const { changes } = read(file({ ...circuit, parts: [] }, { changes: [change([], off)] }));
    expect(changes).toMatchObject([{ name: 'Slow switch', steps: [], condition: 'disconnected: amp' }]);
  });

  it('are refused with their place and what is wrong', () => {
    const wrong = (changes: unknown[], rest: object = {}) => refused(file(circuit, { changes, ...rest }))[0];
    expect(wrong([change([])])).toBe(
      'At changes[0].steps: a change has at least one step; only something temporary may be its name alone.',
    );
    expect(wrong([change([{ do: 'solder', ref: 'R1' }])])).toBe(
      'At changes[0].steps[0] (R1).do: it is no step; there are fit, add, remove, lift, cut, join, move.',
    );
    expect(wrong([change([{ do: 'lift', pin: 'C7' }])])).toContain('as C7.a');
    expect(wrong([change([{ do: 'fit', ref: 'R1', value: 'lots' }])])).toContain(
      'changes[0] (Slow switch).steps[0].value',
    );
    const one = change([{ do: 'remove', ref: 'R1' }]);
    expect(wrong([one, one])).toBe('At changes: the id "m1" is there more than once.');
    const sets = [
      { id: 'A', active: true },
      { id: 'B', active: true },
    ];
    expect(wrong([one], { sets })).toBe('At sets: more than one set is active.');
  });
});

describe('unit file', () => {
  it('reads back exactly what it wrote, unknown fields included', () => {
    fc.assert(
      fc.property(document, (original) => {
        const text = writeUnitFile(original);
        const read = readUnitFile(text);
        expect(read.ok).toBe(true);
        if (!read.ok) return;
        // JSON knows no minus zero and no undefined: compare what a file can say.
        expect(JSON.parse(JSON.stringify(read.document))).toEqual(JSON.parse(JSON.stringify(original)));
        expect(writeUnitFile(read.document)).toBe(text);
      }),
    );
  });

  it('takes values as numbers or as text in any notation', () => {
    const read = readUnitFile(
      file({
        ground: '0',
        parts: [
          {
            ref: 'R1',
            kind: 'resistor',
            pins: { a: 'x', b: '0' },
            marked: '4k7',
            found: 5100,
            proven: 'open',
          },
          {
            ref: 'C1',
            kind: 'capacitor',
            pins: { a: 'x', b: '0' },
            marked: '104',
            esr: '0.1',
            leakage: '1M',
          },
          { ref: 'V1', kind: 'supply', pins: { plus: 'x', minus: '0' }, marked: '9V' },
          {
            ref: 'Q1',
            kind: 'bjt',
            pins: { c: 'x', b: 'x', e: '0' },
            polarity: 'npn',
            params: { BF: '250', IS: 1e-14 },
          },
        ],
      }),
    );
    expect(read.ok && read.document.circuit.parts).toMatchObject([
      { marked: 4700, found: 5100, proven: 'open' },
      { marked: 1e-7, esr: 0.1, leakage: 1e6 },
      { marked: 9 },
      { params: { BF: 250, IS: 1e-14 } },
    ]);
  });

  it('reads readouts written with units', () => {
    const read = readUnitFile(
      file(
        { ground: '0', parts: [] },
        {
          readouts: [
            {
              id: 'g',
              name: 'gain',
              kind: 'gain',
              from: 'a',
              to: 'b',
              frequencyHz: '1 kHz',
              want: { target: '38 dB', within: 1 },
            },
          ],
        },
      ),
    );
    expect(read.ok && read.document.readouts[0]).toMatchObject({
      frequencyHz: 1000,
      want: { target: 38, within: 1 },
    });
  });

  it.each([
    ['', 'This is not a unit file: it is empty.'],
    ['hello', 'This is not a unit file: it does not begin with "{".'],
    [
      '{"format":"zemble/unit","vers',
      'This is not a unit file: it ends in the middle, as a file does that was cut short.',
    ],
    ['{"a":1,\n "b":,}', 'This is not a unit file: its JSON is broken at line 2, column 6.'],
    ['\uFFFDPNG\r\n\u001a', 'This is not a unit file: it is a picture or another kind of file.'],
    ['[]', 'This is not a unit file: it holds no object.'],
    ['{"version":1}', 'This is not a unit file: "format" is missing.'],
    [
      '{"format":"zemble/unit","version":2}',
      'This unit file is of version 2, and this program reads version 1.',
    ],
  ])('says what is wrong with %j', (text, sentence) => {
    expect(refused(text)[0]).toBe(sentence);
  });

  it('opens a file of the former name, and writes it under that of now', () => {
    const text = file({ ground: '0', parts: [] });
    const former = readUnitFile(text.replace('zemble/', 'halfsplit/'));
    expect(former).toEqual(readUnitFile(text));
    expect(former.ok && JSON.parse(writeUnitFile(former.document))).toMatchObject({ format: 'zemble/unit' });
  });

  it.each(['halfsplit', 'halfsplit/units', 'Zemble/unit', 'halfsplit/bench', 5, null])(
    'does not take %j for its format',
    (format) => {
      expect(unitDocumentFrom({ ...JSON.parse(file({ ground: '0', parts: [] })), format }).ok).toBe(false);
    },
  );

  it('says where in the file a value cannot be read', () => {
    const bad = { ref: 'R7', kind: 'resistor', pins: { a: 'x', b: '0' }, marked: '4x7' };
    expect(refused(file({ ground: '0', parts: [bad] }))).toEqual([
      'At circuit.parts[0] (R7).marked: "4x7" cannot be read as a value.',
    ]);
    expect(refused(file({ ground: '0', parts: [{ ...bad, kind: 'flux' }] }))[0]).toMatch(
      /^At circuit\.parts\[0\] \(R7\)\.kind: /,
    );
    expect(refused(file({ parts: [] }))[0]).toMatch(/^At circuit\.ground: /);
    const twice = { id: 'g', name: 'g', kind: 'gain' };
    expect(refused(file({ ground: '0', parts: [] }, { readouts: [twice, twice] }))[0]).toMatch(
      /"g" is there more than once/,
    );
  });

  const onePart = (part: object) => file({ ground: '0', parts: [{ ref: 'X1', ...part }] });
  const opamp = { kind: 'opamp', pins: { plus: 'a', minus: 'b', out: 'b' } };
  const transistor = { kind: 'bjt', pins: { c: 'c', b: 'b', e: 'e' } };
  const pot = { kind: 'potentiometer', pins: { 1: 'a', 2: 'b', 3: '0' }, marked: 1e4 };
  const signal = { kind: 'signal', pins: { plus: 'a', minus: '0' }, marked: 1 };

  it.each([
    ['a parameter in any notation', { ...opamp, GBW: '10M' }, { params: { GBW: 10e6 } }],
    ['the same in params', { ...opamp, params: { GBW: '10M' } }, { params: { GBW: 10e6 } }],
    ['a polarity in capitals', { ...transistor, polarity: 'PNP' }, { polarity: 'pnp' }],
    ['a waveform in capitals', { ...signal, waveform: 'Square' }, { waveform: 'square' }],
    ['a taper by its word', { ...pot, taper: 'audio' }, { taper: 'log' }],
    ['a taper by its short word', { ...pot, taper: 'Linear' }, { taper: 'linear' }],
  ])('reads %s', (_, part, expected) => {
    const read = readUnitFile(onePart(part));
    expect(read.ok && read.document.circuit.parts[0]).toMatchObject(expected);
  });

  it.each([
    ['a letter for a digit', { ...transistor, BF: '2OO' }, /\(X1\)\.BF: "2OO" cannot be read/],
    ['a polarity that is none', { ...transistor, polarity: 'ppn' }, /polarity: .*npn, pnp/],
    ['a taper letter, which makers use both ways', { ...pot, taper: 'A' }, /taper: .*A/],
    ['a negative gain-bandwidth product', { ...opamp, params: { GBW: -1 } }, /GBW/],
    ['a parameter that is not a number', { ...opamp, params: { AOL: 'lots' } }, /AOL/],
  ])('refuses %s', (_, part, sentence) => {
    expect(refused(onePart(part))[0]).toMatch(sentence);
  });

  it('keeps what it does not know under its name, whatever that is', () => {
    for (const name of ['GBP', 'colour', 'constructor']) {
      const read = readUnitFile(onePart({ ...opamp, [name]: 3 }));
      expect(read.ok && Object.entries(read.document.circuit.parts[0]!)).toContainEqual([name, 3]);
    }
  });

  const readoutOf = (fields: object) =>
    file(
      { ground: '0', parts: [] },
      { readouts: [{ id: 'x', name: 'X', kind: 'corner', from: 'a', to: 'b', side: 'low', ...fields }] },
    );
  it.each([
    [{ want: { minimum: 3 } }, /want/],
    [{ want: { min: 5, max: 3 } }, /min.*max|above/],
    [{ side: 'sideways' }, /side: .*low, high/],
    [{ kind: 'noise', out: 'b', weighting: 'Z' }, /weighting: .*none, A, 468/],
    [{ kind: 'loudness' }, /kind/],
    [{ dropDb: 'much' }, /dropDb/],
  ])('refuses the readout %j', (fields, sentence) => {
    expect(refused(readoutOf(fields))[0]).toMatch(sentence);
  });
  it.each(['upper', 'Treble', 'HIGH'])('takes the side %s for the treble', (side) => {
    const read = readUnitFile(readoutOf({ side }));
    expect(read.ok && read.document.readouts[0]).toMatchObject({ side: 'high' });
  });

  it('never throws, whatever text it is given', () => {
    const almost = fc.json().map((text) => text.replace(/^\{/, '{"format":"zemble/unit","version":1,'));
    fc.assert(
      fc.property(
        fc.oneof(fc.string(), fc.json(), almost),
        (text) => typeof readUnitFile(text).ok === 'boolean',
      ),
    );
  });

  it('refuses what is too large before reading it', () => {
    expect(refused(' '.repeat(10_000_001))[0]).toMatch(/at most 10 MB/);
  });
});

describe('wanted ranges as text', () => {
  it.each([
    ['38 ± 1 dB', 'level', { target: 38, within: 1 }],
    ['38 +- 1', 'level', { target: 38, within: 1 }],
    ['26', 'level', { target: 26, within: 0.5 }],
    ['30 Hz', 'frequency', { target: 30, within: 1.5 }],
    ['< 20 Hz', 'frequency', { max: 20 }],
    ['at least 47k', 'resistor', { min: 47_000 }],
    ['8 .. 12 V', 'voltage', { min: 8, max: 12 }],
    ['1 … 2 kHz', 'frequency', { min: 1000, max: 2000 }],
    ['1k ± 10 %', 'resistor', { target: 1000, within: 100 }],
    ['± 0.5 dB', 'level', { target: 0, within: 0.5 }],
    ['', 'level', {}],
  ] as const)('reads %j', (text, kind, want) => {
    expect(parseWant(text, kind)).toEqual(want);
  });

  it.each(['loud', '12 .. 8', '< ', '3 ± x'])('refuses %j', (text) => {
    expect(parseWant(text, 'level')).toBeUndefined();
  });

  it('reads back what it wrote', () => {
    for (const want of [
      { target: 37.5, within: 1 },
      { max: 20 },
      { min: 11, max: 17 },
      { min: -0.5, max: 0.5 },
      { target: 0, within: 0.5 },
    ]) {
      const read = parseWant(formatWant(want, 'dB'), 'level')!;
      const range = (w: typeof read) => [
        w.min ?? (w.target === undefined ? null : w.target - (w.within ?? 0)),
        w.max ?? (w.target === undefined ? null : w.target + (w.within ?? 0)),
      ];
      expect(range(read)).toEqual(range(want));
    }
  });
});

describe('a wanted range with a unit', () => {
  it.each([
    [{ target: 4.5, within: 0.2 }, 'V', '4.5 ± 0.2 V'],
    [{ min: 0.3, max: 2 }, 'Hz', '0.3 … 2 Hz'],
    [{ min: 0.3 }, 'Hz', '> 300 mHz'],
    [{ min: 800, max: 12_000 }, 'Hz', '0.8 … 12 kHz'],
    [{ min: 1e-9, max: 5 }, 'V', '1 nV … 5 V'],
    [{ target: 0.05, within: 0.005 }, 'ratio', '5 ± 0.5 %'],
    [{ max: 7200 }, 's', '< 7200 s'],
    [{ min: -0.012, max: 0.012 }, 'V', '± 12 mV'],
  ] as const)('%j in %s is "%s"', (want, unit, text) => {
    expect(formatWant(want, unit)).toBe(text);
  });

  it('reads back what it wrote, in every unit, whatever the sizes of its numbers', () => {
    const kinds = [
      ['V', 'voltage'],
      ['A', 'current'],
      ['Hz', 'frequency'],
      ['ohm', 'resistor'],
      ['s', 'time'],
      ['ratio', 'ratio'],
      ['dB', 'level'],
    ] as const;
    const size = fc
      .tuple(fc.double({ min: 1, max: 9.99, noNaN: true }), fc.integer({ min: -9, max: 6 }))
      .map(([digits, exponent]) => Number(`${digits.toPrecision(3)}e${exponent}`));
    fc.assert(
      fc.property(fc.constantFrom(...kinds), size, size, fc.nat(3), ([unit, kind], a, b, shape) => {
        // Nobody measures, or wants, a microohm.
        fc.pre(unit !== 'ohm' || Math.min(a, b) >= 1e-3);
        const [low, high] = a < b ? [a, b] : [b, a];
        const want = [{ target: a, within: b }, { min: low, max: high }, { max: a }, { min: a }][shape]!;
        const read = parseWant(formatWant(want, unit), kind);
        expect(Object.keys(read ?? {}).sort()).toEqual(Object.keys(want).sort());
        for (const [end, value] of Object.entries(want))
          expect(new Map(Object.entries(read!)).get(end)! / value).toBeCloseTo(1, 4);
      }),
    );
  });
});

describe('a part line inside a document', () => {
  it('keeps every typed field through a file', () => {
    const circuit = circuitOf('C1 4.7u polarised 20% esr=0.4 voltage=25 x 0\nP1 100k log position=0.3 x y 0');
    const read = readUnitFile(file(circuit));
    expect(read.ok && read.document.circuit).toEqual(circuit);
  });
});
