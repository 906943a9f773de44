import { describe, expect, it } from 'vitest';
import { transient } from '../../analysis/analysis/index.ts';
import { circuitOf, sessionOf } from '../../testing/circuits.ts';

const solved = (lines: string) => {
  const session = sessionOf(circuitOf(lines));
  const x = session.operatingPoint();
  return {
    session,
    volt: (net: string) => x[session.system.node(net)]!,
    part: (ref: string) => session.system.device(ref).report(x),
  };
};

describe('an opamp and its supply', () => {
  const FOLLOWER = (load: string, iq = '2m') =>
    `V1 12V vp 0\nV2 12V 0 vm\nV3 5V in 0\nU1 opamp AOL=1e6 IQ=${iq} minSupply=7 plus=in minus=out out=out vplus=vp vminus=vm\nR1 ${load} out 0`;

  it('takes what it gives, and its quiescent current, from its supply pins (Kirchhoff)', () => {
    const { part } = solved(FOLLOWER('500'));
    // 10 mA into the load come from vplus; both pins pass IQ as well, less what the output's own share covers.
    const [plus, minus] = [-part('V1').current, -part('V2').current];
    expect(plus - minus).toBeCloseTo(10e-3, 6);
    expect(plus).toBeGreaterThan(10e-3);
    expect(plus).toBeLessThan(12.1e-3);
  });

  it('turns into heat what the supplies give and the load does not take (conservation of energy)', () => {
    const { part } = solved(FOLLOWER('500'));
    const given = ['V1', 'V2', 'V3'].reduce((sum, ref) => sum + part(ref).power, 0);
    expect(part('U1').power).toBeCloseTo(given - part('R1').power, 9);
    expect(part('U1').power).toBeGreaterThan((12 - 5) * 10e-3);
  });

  it('at rest draws IQ from one supply into the other', () => {
    const { part } = solved(FOLLOWER('100M'));
    expect(-part('V1').current).toBeCloseTo(2e-3, 6);
    expect(-part('V2').current).toBeCloseTo(2e-3, 6);
  });

  it('stops below its least supply', () => {
    const starved = solved(
      'V1 5V vp 0\nV3 2V in 0\nU1 opamp AOL=1e6 IQ=2m minSupply=7 plus=in minus=out out=out vplus=vp vminus=0\nR1 1k out 0',
    );
    expect(Math.abs(starved.volt('out'))).toBeLessThan(1e-3);
    expect(starved.part('U1').region).toBe('starved');
  });
});

describe('a transformer with coupling 1', () => {
  it('is exact: no voltage is lost whatever its inductance, and the load comes back by n squared', () => {
    const lines = 'G1 1V in 0 resistance=1\nT1 10 lp=1 coupling=1 p1=in p2=0 s1=out s2=0\nR1 8 out 0';
    const session = sessionOf(circuitOf(lines));
    const driven = session.smallSignal.at(10_000).drive('G1');
    const [vin, vout] = ['in', 'out'].map((n) => driven.voltage(session.system.node(n)));
    expect(Math.hypot(vin!.re, vin!.im) / Math.hypot(vout!.re, vout!.im)).toBeCloseTo(10, 8);
    // 1 ohm into 800 ohm beside 1 H at 10 kHz.
    const reactance = 2 * Math.PI * 10_000;
    const y = { re: 1 / 800, im: -1 / reactance };
    expect(Math.hypot(vin!.re, vin!.im)).toBeCloseTo(1 / Math.hypot(1 + y.re, y.im), 8);
  });
});

describe('a regulator', () => {
  const WITH = (input: string, load: string) =>
    `V1 ${input} in 0\nREG1 5V in=in out=out gnd=0 dropout=2 limit=1\nR1 ${load} out 0`;

  it('holds its nominal voltage, and takes what flows out and its own consumption', () => {
    const { volt, part } = solved(WITH('9V', '50'));
    expect(volt('out')).toBeCloseTo(5, 6);
    expect(-part('V1').current).toBeCloseTo(0.1 + 5e-3, 6);
    expect(part('REG1').power).toBeCloseTo(4 * 0.1 + 9 * 5e-3, 5);
    expect(part('REG1').region).toBe('regulating');
  });

  it('follows its input less the dropout, and gives no more than its limit', () => {
    const low = solved(WITH('6V', '50'));
    expect(low.volt('out')).toBeCloseTo(4, 6);
    expect(low.part('REG1').region).toBe('dropping out');
    const short = solved(WITH('9V', '1'));
    expect(short.volt('out')).toBeCloseTo(1, 4);
    expect(short.part('REG1').region).toBe('limiting');
  });

  it('is its mirror image for a negative voltage', () => {
    const { volt } = solved('V1 15V 0 in\nREG1 -12V in=in out=out gnd=0 dropout=2 limit=1\nR1 120 out 0');
    expect(volt('out')).toBeCloseTo(-12, 6);
  });

  it('takes hum off its output in AC', () => {
    const session = sessionOf(circuitOf(WITH('9V', '50')));
    const driven = session.smallSignal.at(100).drive('V1');
    expect(Math.abs(driven.voltage(session.system.node('out')).re)).toBeLessThan(1e-6);
  });
});

describe('contacts', () => {
  it('of a changeover switch lead to the throw it stands at, or to none', () => {
    const at = (position: string) => {
      const { volt } = solved(`V1 9V c 0\nCO1 c x y position=${position}\nR1 1k x 0\nR2 1k y 0`);
      return [volt('x'), volt('y')].map((v) => Math.round(v));
    };
    expect(at('a')).toEqual([9, 0]);
    expect(at('b')).toEqual([0, 9]);
    expect(at('open')).toEqual([0, 0]);
  });

  it('of a jack are opened by a plug, and a mono plug joins ring to sleeve', () => {
    const at = (words: string) => {
      const { volt } = solved(
        `V1 9V t 0\nJK1 tip=t sleeve=0 ring=r tipSwitch=n ringSwitch=m ${words}\nR1 1k n 0\nR2 1k vb r\nV2 5V vb 0\nR3 1k m 0`,
      );
      return [volt('n'), volt('r'), volt('m')].map((v) => Number(v.toFixed(2)));
    };
    expect(at('inserted=no')).toEqual([9, 2.5, 2.5]);
    expect(at('inserted=yes plug=mono')).toEqual([0, 0, 0]);
    expect(at('inserted=yes plug=stereo')).toEqual([0, 5, 0]);
  });

  it('of a relay follow its coil, with the gap between pulling in and releasing', () => {
    const { part, volt } = solved(
      'V1 12V c 0\nRE1 coilA=c coilB=0 com=v no=x nc=y coilOhm=120 pullInV=9 dropOutV=3\nV2 5V v 0\nR1 1k x 0\nR2 1k y 0',
    );
    expect(part('RE1').current).toBeCloseTo(0.1, 9);
    expect([volt('x'), volt('y')].map((v) => Math.round(v))).toEqual([5, 0]);
    // Up and down in a triangle of 10 V: in at 9 V, out at 3 V, each once a period.
    const session = sessionOf(
      circuitOf(
        'G1 10V 1Hz triangle c 0\nRE1 coilA=c coilB=0 com=v no=x coilOhm=120 pullInV=9 dropOutV=3 operateS=0 releaseS=0\nV2 5V v 0\nR1 1k x 0',
      ),
    );
    const edges: number[] = [];
    let before = 0;
    const x = session.system.node('x');
    transient(session, {
      stopS: 0.5,
      stepS: 1e-3,
      onPoint: (t, at) => {
        if (before > 2.5 !== at[x]! > 2.5) edges.push(t);
        before = at[x]!;
      },
    });
    // A triangle rises to its peak in a quarter of its period.
    expect(edges).toHaveLength(2);
    expect(edges[0]).toBeCloseTo(0.25 * 0.9, 2);
    expect(edges[1]).toBeCloseTo(0.5 - 0.25 * 0.3, 2);
  });
});
