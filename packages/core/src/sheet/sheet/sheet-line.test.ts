import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { besideLine, formatSheetLine, parseSheetLine, partWords } from './index.ts';

const part = (line: string) => {
  const read = parseSheetLine(line);
  if (!read.ok) throw new Error(read.problem.message);
  return read.part;
};
const refused = (line: string) => {
  const read = parseSheetLine(line);
  return read.ok ? null : read.problem.message;
};

describe('a word for the ground', () => {
  it('is the ground, whatever that is called, but where a net has the word for its name', () => {
    const earth = part('R1 10 chassis earthed');
    const known = { ground: 'com', parts: [{ ...earth, pins: { a: 'com', b: 'earth' } }] };
    const nets = (line: string) => {
      const read = parseSheetLine(line, known);
      return read.ok ? Object.values(read.part.pins) : read.problem.message;
    };
    expect(nets('R9 1k a gnd')).toEqual(['a', 'com']);
    expect(nets('R9 1k a GROUND')).toEqual(['a', 'com']);
    // A protective earth stays what it is.
    expect(nets('R9 1k earth gnd')).toEqual(['earth', 'com']);
    expect(nets('R9 1k a 0')).toEqual(['a', '0']);
  });
});

describe('parseSheetLine', () => {
  it.each([
    ['R4 47k in n2', { ref: 'R4', kind: 'resistor', marked: 47_000, pins: { a: 'in', b: 'n2' } }],
    ['r4 4K7 10% in n2', { ref: 'r4', kind: 'resistor', marked: 4700, tolerance: 0.1 }],
    [
      'C2 10u polarised 25V e1 0 esr=2',
      { kind: 'capacitor', marked: 10e-6, voltage: 25, esr: 2, polarised: true, pins: { a: 'e1', b: '0' } },
    ],
    ['C9 104K a b', { marked: 100e-9, tolerance: 0.1 }],
    ['L1 10mH a b dcr=4', { kind: 'inductor', marked: 0.01, dcr: 4 }],
    ['V1 24V vcc 0', { kind: 'supply', marked: 24, pins: { plus: 'vcc', minus: '0' } }],
    ['V2 10mV 1kHz in 0', { kind: 'signal', marked: 0.01, frequency: 1000 }],
    ['Q1 2N3904 c1 b1 e1', { kind: 'bjt', model: '2N3904', pins: { c: 'c1', b: 'b1', e: 'e1' } }],
    ['Q1 2N3904 b=n1 c=n2 e=0', { pins: { c: 'n2', b: 'n1', e: '0' } }],
    ['Q2 pnp BF=250 c b e', { kind: 'bjt', polarity: 'pnp', params: { BF: 250 } }],
    ['U1 TL072 plus=a minus=b out=b vplus=vcc vminus=0', { kind: 'opamp', model: 'TL072' }],
    [
      'P1 100k log a w b position=0.3',
      { kind: 'potentiometer', taper: 'log', position: 0.3, pins: { 1: 'a', 2: 'w', 3: 'b' } },
    ],
    ['D1 1N4148 a 0', { kind: 'diode', model: '1N4148', pins: { a: 'a', k: '0' } }],
    ['Z1 5V1 0 a', { kind: 'zener', marked: 5.1 }],
    ['LED1 red a 0', { kind: 'led', model: 'red' }],
    ['S1 open a b', { kind: 'switch', closed: false }],
    ['X1 box left right ground', { kind: 'box', pins: { 1: 'left', 2: 'right', 3: '0' } }],
    ['C9 10u b cap', { marked: 1e-5, pins: { a: 'b', b: 'cap' } }],
    ['C8 10u polarised b cap', { polarised: true, pins: { a: 'b', b: 'cap' } }],
    ['C7 10u polarised b mic', { polarised: true, pins: { a: 'b', b: 'mic' } }],
    ['R7 1k pot mic', { pins: { a: 'pot', b: 'mic' } }],
    ['C1 10u 25V 105C a GND', { marked: 1e-5, voltage: 25, ratedC: 105, pins: { a: 'a', b: '0' } }],
    ['C1 10u bipolar a b', { polarised: false, technology: 'electrolytic' }],
    ['C1 10uF/25V a b', { marked: 1e-5, voltage: 25 }],
    ['r4: 47k in n2', { kind: 'resistor', marked: 47_000, pins: { a: 'in', b: 'n2' } }],
    ['R4 = 47k in n2', { ref: 'R4', marked: 47_000, pins: { a: 'in', b: 'n2' } }],
    ['V1 24 V vcc 0', { marked: 24, pins: { plus: 'vcc', minus: '0' } }],
    ['R1 10,000 ohm a b', { marked: 10_000 }],
    ['C4 .0022 mfd a b', { marked: 2.2e-9 }],
    ['C4 .0022 mf a b', { marked: 2.2e-9 }],
    ['T1 10:1 p1 p2 s1 s2', { kind: 'transformer', marked: 10 }],
    // Regulators by their numbers, with their own sign.
    ['REG1 7805 in out 0', { kind: 'regulator', model: '7805', marked: 5 }],
    ['REG1 model=7805 in out 0', { kind: 'regulator', marked: 5 }],
    ['U3 LM7912CT in out gnd', { kind: 'regulator', model: '7912', marked: -12, pins: { gnd: '0' } }],
    ['REG1 5V in out 0 model=7905', { kind: 'regulator', marked: -5 }],
    ['THING1 resistor 1k a b', { kind: 'resistor', marked: 1000 }],
    // Words of the grammar are words only after the nets, or behind "=".
    ['R1 1k a led', { kind: 'resistor', marked: 1000, pins: { a: 'a', b: 'led' } }],
    ['C2 1u out load', { kind: 'capacitor', marked: 1e-6, pins: { a: 'out', b: 'load' } }],
    ['R3 8 speaker 0', { kind: 'resistor', marked: 8, pins: { a: 'speaker', b: '0' } }],
    ['R5 600 a 0', { kind: 'resistor', marked: 600 }],
    [
      'C10 470u 16V feed2 0 polarised',
      { kind: 'capacitor', marked: 470e-6, voltage: 16, polarised: true, pins: { a: 'feed2', b: '0' } },
    ],
    ['P1 A10k a w b', { kind: 'potentiometer', marked: 10_000, taper: 'log' }],
    ['P1 10kB a w b', { kind: 'potentiometer', marked: 10_000, taper: 'linear' }],
    ['P1 C100k a w b', { kind: 'potentiometer', marked: 100_000, taper: 'antilog' }],
    ['R7 brown black orange gold a b', { kind: 'resistor', marked: 10_000, tolerance: 0.05 }],
    ['R8 0R a b', { ref: 'R8', kind: 'jumper', pins: { a: 'a', b: 'b' } }],
    ['CO1 c x y', { kind: 'changeover', pins: { com: 'c', a: 'x', b: 'y' } }],
    ['REG1 5V in out 0', { kind: 'regulator', marked: 5, pins: { in: 'in', out: 'out', gnd: '0' } }],
    ['R1 1 2', { kind: 'resistor', marked: null, pins: { a: '1', b: '2' } }],
  ])('reads %j', (line, expected) => {
    expect(part(line)).toMatchObject(expected);
  });

  it.each([
    ['J1 jack tip=in sleeve=0', 'jack', { tip: 'in', sleeve: '0' }],
    ['J1 jack in 0', 'jack', { tip: 'in', sleeve: '0' }],
    ['J1 jack in 0 r', 'jack', { tip: 'in', sleeve: '0', ring: 'r' }],
    ['JK2 jack in 0', 'jack', { tip: 'in', sleeve: '0' }],
    ['JK2 in 0 r', 'jack', { tip: 'in', sleeve: '0', ring: 'r' }],
    // Two nets and no more: what the designator says holds.
    ['J1 jack in', 'jumper', { a: 'jack', b: 'in' }],
    ['J1 a b', 'jumper', { a: 'a', b: 'b' }],
  ])('takes a word for the kind, and not for a net of it, in %j', (line, kind, pins) => {
    expect(part(line)).toMatchObject({ kind });
    expect(part(line).pins).toEqual(pins);
  });

  it.each([
    ['', 'The line is empty.'],
    ['4R 3k a b', '"4R" is not a designator: it begins with a letter, as R4 does.'],
    ['R4 47q in out', 'R4: "47q" is neither a value nor one of its 2 nets.'],
    ['R4 47k in', 'R4: a resistor has the pins a, b; only one net is given for 2.'],
    ['R4', 'R4: a resistor has the pins a, b; none is connected.'],
    ['R1 47k a b c', 'R1: "a" is one word too many; a resistor has the pins a, b.'],
    ['R9 0 a b', 'R9: a resistor of 0 is not above zero.'],
    ['Q3 2N3904 c=a b=b', 'Q3: a transistor has the pins c, b, e; no net is given for 1.'],
    ['C1 1u a b foo=3', 'C1: it has neither a pin nor a field "foo"; its pins are a, b.'],
    ['C1 1u a b esr=lots', 'C1: "lots" cannot be read as a value.'],
    ['YY7 3 a b', 'YY7: the letters do not tell what it is. Add a word such as "resistor" or "box".'],
  ])('says what is wrong with %j', (line, sentence) => {
    expect(refused(line)).toBe(sentence);
  });

  const lines = [
    'R4 47k 5% in n2',
    'C2 10u polarised esr=2 voltage=25 e1 0',
    'V2 10mV frequency=1k in 0',
    'Q1 2N3904 c=c1 b=b1 e=e1',
    'Q2 pnp BF=250 IS=1e-14 c=x b=y e=z',
    'U1 TL072 plus=a minus=b out=b vplus=vcc vminus=0',
    'P1 100k log position=0.3 1=a 2=w 3=b',
    'Z1 5.1V 0 a',
    'S1 open a b',
    'C8 47u 25V electrolytic maker=Vale series=K2 a 0',
    'R6 1M carbon 10% a 0',
    'X1 box 1=left 2=right 3=ground',
    'T1 10 lp=5 p1=a p2=0 s1=b s2=c',
    'J1 jack tip=in sleeve=0',
    'J1 jack tip=in sleeve=0 tipSwitch=n',
  ];
  it.each(lines)('writes a line that reads back as the same part: %s', (line) => {
    const first = part(line);
    expect(part(formatSheetLine(first))).toEqual(first);
  });

  it('tells what a line does not say, so that editing loses nothing', () => {
    const made = {
      ...part('C8 47u 25V electrolytic a 0'),
      proven: 100e-6,
      maker: 'Vale and Moor',
      board: 'left',
    };
    expect(besideLine(made)).toEqual({ proven: 100e-6, maker: 'Vale and Moor', board: 'left' });
    expect(besideLine(part('R4 47k 5% maker=Vale in n2'))).toEqual({});
  });

  it('reads back any resistor, capacitor or inductor it wrote', () => {
    const any = fc.record({
      letter: fc.constantFrom('R', 'C', 'L'),
      number: fc.nat(999),
      value: fc
        .tuple(fc.integer({ min: 1, max: 9999 }), fc.integer({ min: -9, max: -3 }))
        .map(([m, e]) => Number(`${m}e${e}`)),
      nets: fc.tuple(fc.stringMatching(/^[a-z][a-z0-9]{0,4}$/), fc.stringMatching(/^[a-z][a-z0-9]{0,4}$/)),
    });
    fc.assert(
      fc.property(any, ({ letter, number, value, nets }) => {
        const kind = ({ R: 'resistor', C: 'capacitor', L: 'inductor' } as const)[letter as 'R' | 'C' | 'L'];
        const marked = letter === 'R' ? Number((value * 1e6).toPrecision(6)) : value;
        const made = { ref: `${letter}${number}`, kind, pins: { a: nets[0], b: nets[1] }, marked };
        expect(part(formatSheetLine(made))).toEqual(made);
      }),
    );
  });

  it('never throws, whatever is typed', () => {
    const words = fc.array(
      fc.oneof(
        fc.string({ maxLength: 8 }),
        fc.constantFrom('R1', '47k', '=', 'a=', '=b', '%', 'c=1', 'box', 'open'),
      ),
      { maxLength: 8 },
    );
    fc.assert(fc.property(words, (list) => typeof parseSheetLine(list.join(' ')).ok === 'boolean'));
  });
});

describe('what a line was understood as', () => {
  it.each([
    ['R5 600 a 0', 'R5: 600 Ω resistor; a, 0'],
    ['R4 473 5% in n2', 'R4: 47 kΩ resistor, tolerance 5 %; in, n2'],
    ['P1 A10k a w b', 'P1: 10 kΩ potentiometer, log; 1 a, 2 w, 3 b; clockwise w goes from a to b'],
    // A rheostat from 1 to 2: its track grows from pin 1.
    ['P2 100k in w w', 'P2: 100 kΩ potentiometer; 1 in, 2 w, 3 w; clockwise it is more'],
    ['P2 100k in in w', 'P2: 100 kΩ potentiometer; 1 in, 2 in, 3 w; clockwise it is less'],
    ['R8 0R a b', 'R8: jumper; a, b'],
    ['C1 470u 16V polarised a 0', 'C1: 470 µF capacitor, rated voltage 16 V, polarised; a, 0'],
    ['Q2 pnp BF=250 c b e', 'Q2: transistor, pnp, BF 250; c c, b b, e e'],
    ['S1 open a b', 'S1: switch, not closed; a, b'],
    [
      'U1 TL072 plus=a minus=b out=b vplus=v vminus=0',
      'U1: operational amplifier TL072; plus a, minus b, out b, vplus v, vminus 0',
    ],
  ])('%s', (line, words) => {
    expect(partWords(part(line))).toBe(words);
  });
});
