import { describe, expect, it } from 'vitest';
import { circuitOf, markedCircuitOf } from '../testing/circuits.ts';
import { checkRatings, checkUnit } from './index.ts';

const said = (lines: string) => checkRatings(markedCircuitOf(lines)).map((p) => p.message);

describe('ratings', () => {
  it('are kept by a working circuit', () => {
    expect(said('V1 9V vcc 0\nC1 100u 16V polarised vcc 0\nR1 1k power=0.25 vcc 0')).toEqual([]);
  });

  it('of a capacitor are passed by its direct voltage, or with the signal on top', () => {
    expect(said('V1 24V vcc 0\nC1 100u 16V polarised vcc 0')).toEqual([
      expect.stringMatching(/C1.*24 V.*16 V/),
    ]);
    const driven = (peak: string) => said(`V1 12V vcc 0\nG1 ${peak} 1kHz in 0\nR1 1k in a\nC1 1n 16V vcc a`);
    expect(driven('1V')).toEqual([]);
    expect(driven('6V')).toEqual([expect.stringMatching(/C1.*18.*16 V/)]);
  });

  it('of a polarised capacitor are passed the wrong way round', () => {
    expect(said('V1 9V vcc 0\nR1 1k vcc a\nC1 10u 25V polarised 0 a')).toEqual([
      expect.stringMatching(/C1.*polarised.*below its minus/),
    ]);
  });

  it('of a resistor are passed by its heat: V²/R (textbook)', () => {
    // 20 V over 1k make 0.4 W.
    expect(said('V1 20V vcc 0\nR1 1k power=0.25 vcc 0')).toEqual([
      expect.stringMatching(/R1.*400 mW.*250 mW/),
    ]);
  });

  it('of a small opamp are passed into 8 ohm: it gives about 20 mA (usual data sheets)', () => {
    const lines = (load: string) =>
      `V1 9V vp 0\nV2 9V 0 vm\nG1 1V 1kHz in 0\nU1 TL072 plus=in minus=out out=out vplus=vp vminus=vm\nR1 ${load} out 0`;
    expect(said(lines('1k'))).toEqual([]);
    expect(said(lines('8'))).toEqual([expect.stringMatching(/U1.*mA/)]);
  });
});

describe('checking a unit', () => {
  const check = (lines: string, change: (part: object) => object = (p) => p) => {
    const circuit = circuitOf(lines);
    const parts = circuit.parts.map((p) => change(p)) as typeof circuit.parts;
    return checkUnit({
      unit: { name: 'Unit' },
      circuit: { ...circuit, parts },
      readouts: [],
    } as Parameters<typeof checkUnit>[0]).map((p) => p.message);
  };
  const STAGE =
    'V1 9V vcc 0\nR1 1k vcc b\nR2 1k b 0\nU1 TL072 plus=b minus=o out=o vplus=vcc vminus=0\nR3 1k o 0';

  it('lists a field that its kind does not have, with the one that was meant', () => {
    const messages = check(STAGE, (p) => ('model' in p ? { ...p, GBP: 3e6 } : p));
    expect(messages).toEqual([expect.stringMatching(/U1.*GBP.*GBW/)]);
  });

  it('says which type is not known, and what is computed for it', () => {
    expect(check(STAGE.replace('TL072', 'TL07Z'))).toEqual([expect.stringMatching(/TL07Z.*TL072/)]);
  });
});
