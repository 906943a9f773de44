import { describe, expect, it } from 'vitest';
import { AnalysisSession } from '../../analysis/analysis/index.ts';
import { resolveLayer } from '../changes/index.ts';
import { checkCircuit, KINDS } from '../circuit/index.ts';
import { MODELS } from '../models/index.ts';
import { parseChangeLine, parseSheetLine } from '../../sheet/sheet/index.ts';
import { circuitOf } from '../../testing/circuits.ts';
import {
  findPin,
  numberOfPin,
  outlineNamed,
  outlinePins,
  OUTLINES,
  pinPlace,
  PINOUTS,
  pinWords,
  probePlaces,
  usualSurroundings,
  type Packaged,
} from './index.ts';

const place = (name: string, pin: number) => pinPlace(outlineNamed(name)!, pin);
const part = (line: string) => {
  const read = parseSheetLine(line);
  if (!read.ok) throw new Error(read.problem.message);
  return read.part;
};

describe('outlines', () => {
  it('are counted as their standards say: a DIP up the right side, a valve clockwise from below, a TO-92 from the left', () => {
    // JEDEC MS-001: pin 1 left of the notch, counted counter-clockwise from above.
    expect(place('DIP-8', 1)).toBe('first from the notch, left side');
    expect(place('DIP-8', 4)).toBe('fourth from the notch, left side');
    expect(place('DIP-8', 5)).toBe('fourth from the notch, right side');
    expect(place('DIP-8', 8)).toBe('first from the notch, right side');
    expect(place('DIP-14', 8)).toBe('seventh from the notch, right side');
    // IEC 60067: the pins of a base are counted clockwise, seen from below.
    expect(place('B9A', 7)).toBe('seventh clockwise from the gap, seen from below');
    expect(place('octal', 1)).toBe('first clockwise from the key, seen from below');
    expect(place('TO-92', 1)).toContain('left leg, flat face towards you');
    expect(place('to92', 3)).toContain('right leg');
    expect(outlineNamed('nothing')).toBeUndefined();
    // IEC 60130-9: 1-4-2-5-3 around the arc; ribbon connectors are counted from the marked edge (common practice).
    expect(place('din5', 4)).toBe('between 1 and the middle of the arc');
    expect(place('IDC-10', 10)).toBe('tenth wire from the marked edge');
    expect(place('dual pot', 5)).toContain('middle lug of the rear gang');
    expect(place('axial', 1)).toContain('left leg, the end with the band');
    expect(place('radial', 2)).toContain('right leg, the long leg to the left');
  });

  it('leave the lugs of a jack their names: no standard numbers them', () => {
    const jack = part('J1 jack tip=in sleeve=0 ring=r');
    expect(place('jack', 3)).toBe('lug of the sleeve, at the bush, seen from behind, the bush down');
    expect(numberOfPin(jack, 'sleeve')).toBeUndefined();
    expect(probePlaces([jack], '0')).toMatchObject([{ short: 'J1.sleeve', words: 'J1, its pin sleeve' }]);
    expect(findPin([jack], 'J1.1').ok).toBe(false);
    const known = outlinePins([jack], 'J1')!;
    expect(known.outline.name).toBe('jack');
    expect(known.labels.map((l) => l.net)).toEqual(['in', 'r', '0', null, null]);
  });

  it('have a place for every pin, each its own', () => {
    for (const outline of OUTLINES) {
      const places = Array.from({ length: outline.pins }, (_, i) => pinPlace(outline, i + 1));
      expect(new Set(places).size, outline.name).toBe(outline.pins);
      expect(places.join(' ')).not.toContain('undefined');
    }
  });
});

describe('surroundings of a pin', () => {
  it('stand at pins that the type has, and read as notes', () => {
    for (const { kind, types, surroundings = {} } of PINOUTS)
      for (const [pin, note] of Object.entries(surroundings)) {
        expect(KINDS[kind].pins, types.join()).toContain(pin);
        expect(note).toMatch(/^to \S+ through \S+: \S/);
      }
  });

  it('are those of the data sheets (facts from memory)', () => {
    expect(usualSurroundings(part('U1 555 a b c d e f g h')).notes).toMatchObject({
      ctrl: expect.stringContaining('to gnd through 10n'),
    });
    expect(usualSurroundings({ ref: 'U2', kind: 'regulator', model: '7812' }).notes).toMatchObject({
      in: expect.stringContaining('330n'),
      out: expect.stringContaining('100n'),
    });
    expect(usualSurroundings({ ref: 'R1', kind: 'resistor' })).toEqual({ notes: {}, origin: '' });
  });
});

describe('a box in a known case', () => {
  it('has its pins by number, where hands find them', () => {
    const chip: Packaged = { ref: 'X1', kind: 'box', package: 'DIP-14' };
    expect(numberOfPin(chip, '9')).toBe(9);
    expect(pinWords(chip, '9')).toBe('pin 9, sixth from the notch, right side');
    expect(numberOfPin({ ...chip, package: undefined }, '9')).toBeUndefined();
  });
});

describe('pinouts', () => {
  it('name pins that their kinds have, each once, in outlines that have as many', () => {
    for (const { kind, types, package: name, variants, origin } of PINOUTS)
      for (const variant of variants) {
        const label = `${types.join()} ${variant.name}`;
        expect(outlineNamed(name)!.pins, label).toBe(variant.pins.length);
        const named = variant.pins.filter((p) => p !== '-');
        expect(new Set(named).size, label).toBe(named.length);
        for (const entry of named) expect(KINDS[kind].pins, label).toContain(entry.replace(/^[A-D]\./, ''));
        expect(origin).not.toBe('');
      }
  });

  it('are there for every transistor, valve and chip that models are shipped of', () => {
    const kinds = new Set(['bjt', 'jfet', 'mosfet', 'triode', 'pentode', 'opamp']);
    for (const { name, kind } of MODELS.filter((m) => kinds.has(m.kind)))
      expect(
        PINOUTS.some((p) => p.kind === kind && p.types.includes(name.toUpperCase())),
        name,
      ).toBe(true);
  });

  it('agree with data sheets (facts from memory)', () => {
    const number = (line: string, pin: string) => numberOfPin(part(line), pin);
    expect(['out', 'minus', 'plus', 'vminus', 'vplus'].map((p) => number('U1A TL072 a b c', p))).toEqual([
      1, 2, 3, 4, 8,
    ]);
    expect(['plus', 'minus', 'out'].map((p) => number('U1B TL072 a b c', p))).toEqual([5, 6, 7]);
    expect(['minus', 'plus', 'vminus', 'out', 'vplus'].map((p) => number('U1 UA741 a b c d e', p))).toEqual([
      2, 3, 4, 6, 7,
    ]);
    expect(['vplus', 'vminus', 'out'].map((p) => number('U1D LM324 a b c', p))).toEqual([4, 11, 14]);
    expect(['a', 'g', 'k'].map((p) => number('V1A 12AX7 a g k', p))).toEqual([1, 2, 3]);
    expect(['a', 'g', 'k'].map((p) => number('V1B 12AX7 a g k', p))).toEqual([6, 7, 8]);
    expect(['a', 'g2', 'g', 'k'].map((p) => number('V2 EL84 a g2 g k', p))).toEqual([7, 9, 2, 3]);
    expect(['e', 'b', 'c'].map((p) => number('Q1 2N3904 c b e', p))).toEqual([1, 2, 3]);
    expect(['c', 'b', 'e'].map((p) => number('Q1 BC547B c b e', p))).toEqual([1, 2, 3]);
  });
});

const BOARD =
  circuitOf(`V1 9V vcc 0\nU1A TL072 plus=in minus=m out=m vplus=vcc vminus=0\nU1B TL072 plus=x minus=y out=z
  Q2 2N3904 c b e\nQ3 2N3904 pinout=E-B-C c3 b3 e3\nV2A 12AX7 a1 g1 k1\nV2B 12AX7 a2 g2 k2\nC4 10u polarised p q\nD1 1N4148 an ca\nR7 1k r s\nP1 10k 1=t 2=w 3=0`);
const at = (text: string) => {
  const found = findPin(BOARD.parts, text);
  return found.ok ? `${found.ref}.${found.pin}=${found.net}` : found.problem.message;
};

describe('a pin as it is written', () => {
  it('is named by letter, by number, by package and unit, by its sign', () => {
    expect(['Q2.b', 'q2.B', 'U1A.plus', 'u1b.OUT'].map(at)).toEqual([
      'Q2.b=b',
      'Q2.b=b',
      'U1A.plus=in',
      'U1B.out=z',
    ]);
    expect(['U1.3', 'U1.7', 'U1.8', 'U1A.6', 'V2.7', 'V2.8', 'V2B.8'].map(at)).toEqual([
      'U1A.plus=in',
      'U1B.out=z',
      'U1A.vplus=vcc',
      'U1B.minus=y',
      'V2B.g=g2',
      'V2B.k=k2',
      'V2B.k=k2',
    ]);
    expect(['C4+', 'C4-', 'C4.1', 'D1k', 'R7.2', 'P1.2', 'Q3.1', 'U1.vplus'].map(at)).toEqual([
      'C4.a=p',
      'C4.b=q',
      'C4.a=p',
      'D1.k=ca',
      'R7.b=s',
      'P1.2=w',
      'Q3.e=e3',
      'U1A.vplus=vcc',
    ]);
  });

  it('has no number where orders differ and none was said, nor at a heater, nor on a diode', () => {
    expect(at('Q2.1')).toBe('Q2: a 2N3904 comes as E-B-C and C-B-E, so its pins have no sure numbers.');
    expect(at('V2.9')).toContain('V2 has no pin "9"');
    expect(at('D1.1')).toContain('D1 has no pin "1"');
    expect(at('U1.out')).toContain('U1 has no pin "out"');
    expect(at('U9.1')).toContain('U9');
    for (const odd of [
      '',
      '.',
      'R7.',
      '.b',
      'R7.999999999999',
      'constructor.a',
      'R7.__proto__',
      'U1.',
      'U1.constructor',
      'U1.__proto__',
      'V2.toString',
    ])
      expect(findPin(BOARD.parts, odd).ok, odd).toBe(false);
  });

  it('is said as hands find it, with the order that was taken where there are several', () => {
    expect(pinWords(part('U1A TL072 a b c'), 'plus')).toBe('pin 3, third from the notch, left side');
    expect(pinWords(part('Q1 BC547B c b e'), 'c')).toBe(
      'pin 1, left leg, flat face towards you, legs down (if it is C-B-E: it also comes as E-B-C)',
    );
    expect(pinWords(part('Q1 BC547B pinout=e-b-c c b e'), 'c')).toContain('pin 3, right leg');
    expect(pinWords(part('R1 1k a b'), 'a')).toBeUndefined();
  });

  it('is taken in lines of the sheet and in changes, and kept by its name', () => {
    expect(part('U2A NE5532 3=in 2=fb 1=out').pins).toEqual({ plus: 'in', minus: 'fb', out: 'out' });
    expect(part('U2B NE5532 5=in 6=fb 7=out 8=vcc').pins).toEqual({
      plus: 'in',
      minus: 'fb',
      out: 'out',
      vplus: 'vcc',
    });
    expect(part('V1A 12AX7 1=p 2=g 3=k').pins).toEqual({ a: 'p', g: 'g', k: 'k' });
    expect(part('Q9 2N3904 pinout=C-B-E 1=x 2=y 3=z').pins).toEqual({ c: 'x', b: 'y', e: 'z' });
    expect(parseSheetLine('Q9 2N3904 1=x 2=y 3=z').ok).toBe(false);
    const change = parseChangeLine('lift U1.3; C4- to 0', BOARD);
    expect(change.ok && change.steps).toEqual([
      { do: 'lift', pin: 'U1A.plus' },
      { do: 'move', pin: 'C4.b', to: '0' },
    ]);
  });
});

describe('a package as it is looked at', () => {
  it('has every pin of all its units with their nets, and says which order it is where there are several', () => {
    const dual = outlinePins(resolveLayer(BOARD, 'marked').parts, 'U1B')!;
    expect(dual.words).toBe('U1 TL072');
    expect(dual.outline.name).toBe('DIP-8');
    expect(dual.labels.map((l) => l.words)).toEqual([
      'A out: m',
      'A minus: m',
      'A plus: in',
      'vminus: 0',
      'B plus: x',
      'B minus: y',
      'B out: z',
      'vplus: vcc',
    ]);
    expect(dual.others).toEqual([]);
    expect(outlinePins(BOARD.parts, 'Q2')).toMatchObject({ order: 'E-B-C', others: ['C-B-E'] });
    expect(outlinePins(BOARD.parts, 'Q3')).toMatchObject({ order: 'E-B-C', others: [] });
    expect(outlinePins(BOARD.parts, 'V2A')!.labels.map((l) => l.net)).toEqual([
      'a1',
      'g1',
      'k1',
      null,
      null,
      'a2',
      'g2',
      'k2',
      null,
    ]);
    expect(outlinePins(BOARD.parts, 'R7')).toBeUndefined();
    expect(outlinePins(BOARD.parts, 'none')).toBeUndefined();
  });
});

describe('where a net is touched', () => {
  it('is a pin with a number first, then the end of a part', () => {
    const lines =
      'R1 1k in a\nU1A TL072 plus=a minus=m out=m vplus=p vminus=n\nP1 10k 1=a 2=w 3=0\nD1 1N4148 x k1\nR2 1k k1 0';
    const words = (net: string) => probePlaces(circuitOf(lines).parts, net).map((p) => p.words);
    expect(words('a')).toEqual([
      'U1 pin 3, third from the notch, left side',
      'P1 pin 1, left lug, shaft towards you, lugs down, counted from the left',
      'R1, its end b',
    ]);
    expect(words('k1')).toEqual(['R2, its end a', 'D1, the end with the band']);
    expect(words('nowhere')).toEqual([]);
  });
});

describe('units of one package', () => {
  it('share their supply: what one says holds for the other', () => {
    const dual =
      circuitOf(`V1 12V vcc 0\nR1 10k vcc h\nR2 10k h 0\nU1A TL072 plus=h minus=o1 out=o1 vplus=vcc vminus=0
      U1B TL072 plus=o1 minus=o2 out=o2\nR3 10k o2 0`);
    const planned = resolveLayer(dual, 'marked');
    expect(planned.parts.find((p) => p.ref === 'U1B')!.pins).toMatchObject({ vplus: 'vcc', vminus: '0' });
    // What it draws is drawn twice: both halves are fed.
    const session = new AnalysisSession(planned);
    const x = session.operatingPoint();
    expect(x[session.system.node('o2')]).toBeCloseTo(6, 2);
    const supply = session.system.device('V1').report(x).current;
    expect(Math.abs(supply)).toBeGreaterThan(2 * 1.4e-3);
    expect(checkCircuit(dual)).toEqual([]);
  });

  it('share it as the changes leave it: a unit that is added, a supply pin that is lifted or moved', () => {
    const half = circuitOf(
      'V1 12V vcc 0\nV2 9V low 0\nR1 10k vcc h\nR2 10k h 0\nU1A TL072 plus=h minus=o1 out=o1 vplus=vcc vminus=0\nR3 10k o1 0',
    );
    const after = (line: string) => {
      const read = parseChangeLine(line, half);
      if (!read.ok) throw new Error(read.problem.message);
      const change = {
        id: 'm',
        name: 'm',
        purpose: 'modification',
        state: 'planned',
        steps: read.steps,
      } as const;
      const { parts } = resolveLayer({ ...half, changes: [change] }, 'planned');
      return ['U1A', 'U1B'].map((ref) => parts.find((p) => p.ref === ref)?.pins.vplus);
    };
    const added = '+U1B TL072 plus=o1 minus=o2 out=o2';
    expect(after(added)).toEqual(['vcc', 'vcc']);
    expect(after(`${added}; U1.8 to low`)).toEqual(['low', 'low']);
    expect(after(`${added}; lift U1.8`)).toEqual(['U1A.vplus', 'U1A.vplus']);
  });

  it('cannot be of two types or on two supplies, and parts that only look alike are none', () => {
    const said = (lines: string) =>
      checkCircuit(circuitOf(lines)).flatMap((p) => (p.code === 'circuit/package' ? [p.message] : []));
    const halves = (b: string) =>
      `V1 9V vcc 0\nU1A TL072 plus=0 minus=m out=m vplus=vcc vminus=0\n${b}\nR1 1k m 0`;
    expect(said(halves('U1B NE5532 plus=0 minus=n out=n'))).toEqual([
      'U1 is one package: U1A is of type TL072 and U1B of type NE5532.',
    ]);
    expect(said(halves('U1B TL072 plus=0 minus=n out=n vplus=n vminus=0'))).toEqual([
      'U1 is one package: its pin vplus cannot be on vcc for U1A and on n for U1B.',
    ]);
    expect(said(halves('U2B NE5532 plus=0 minus=n out=n'))).toEqual([]);
    expect(said('R1A 1k a 0\nR1B 2k a 0')).toEqual([]);
  });
});
