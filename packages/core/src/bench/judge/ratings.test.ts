import { describe, expect, it } from 'vitest';
import { circuitOf, markedCircuitOf } from '../../testing/circuits.ts';
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

  it('of an opamp are passed by too low a supply: a TL072 needs 7 V (data sheets)', () => {
    const follower = (rail: string) =>
      said(
        `V1 ${rail} vp 0\nR1 100k vp h\nR2 100k h 0\nU1 TL072 plus=h minus=out out=out vplus=vp vminus=0\nR3 10k out 0`,
      );
    expect(follower('9V')).toEqual([]);
    expect(follower('5V')).toEqual([expect.stringMatching(/U1.*5 V.*at least 7 V/)]);
  });

  it('of a clock are the resistors between which it runs, whatever makes them up', () => {
    const clock = (series: string) =>
      said(
        `V1 5V vcc 0\nR1 ${series} rs a\nR2 2k a 0\nCLK1 kind=clock rset=rs gnd=0 vcc=vcc ratedHz=100000 ratedOhm=20000 minOhm=10000 maxOhm=80000`,
      );
    expect(clock('18k')).toEqual([]);
    expect(clock('4k7')).toEqual([expect.stringMatching(/CLK1.*6.7 kΩ.*10 kΩ it glitches/)]);
    expect(clock('100k')).toEqual([expect.stringMatching(/CLK1.*102 kΩ.*80 kΩ it stops/)]);
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
