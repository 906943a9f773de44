import type { LayerPart } from '../../circuit/circuit/index.ts';
import { byDifferences, VT, type Element } from './element.ts';
import { parameter } from './parameters.ts';
import { exponential, unpowered } from './unpowered.ts';

/** An EMF behind a little resistance. */
const electromotive = (plus: string, minus: string, volt: number, ohm: number): Element => ({
  nets: [plus, minus],
  law: ([u = 0, v = 0]) => ({
    i: [(u - v - volt) / ohm, (v + volt - u) / ohm],
    g: [
      [1 / ohm, -1 / ohm],
      [-1 / ohm, 1 / ohm],
    ],
  }),
});

/** An amplifier that gives what it can between its rails, softly at the limits. */
function amplifier(p: LayerPart, gain: number): Element {
  const { plus, minus, out, vplus, vminus } = p.pins as Record<
    'plus' | 'minus' | 'out' | 'vplus' | 'vminus',
    string
  >;
  const [ohm, high, low] = [
    parameter(p, 'ROUT', 75),
    parameter(p, 'headroomHigh', 1.5),
    parameter(p, 'headroomLow', 1.5),
  ];
  return {
    nets: [plus, minus, out, vplus, vminus],
    inputV: 1 / gain,
    law: ([a = 0, b = 0, o = 0, top = 0, bottom = 0]) => {
      const [most, least] = [top - high, bottom + low];
      const [middle, swing] = [(most + least) / 2, Math.max(1e-3, (most - least) / 2)];
      const bent = Math.tanh((gain * (a - b) - middle) / swing);
      const target = top - bottom < 2 ? o : middle + swing * bent;
      const slope = top - bottom < 2 ? 0 : gain * (1 - bent * bent);
      const i = (o - target) / ohm;
      const [byTop, byBottom] = [-0.5 / ohm, -0.5 / ohm];
      const row = [-slope / ohm, slope / ohm, 1 / ohm, byTop, byBottom];
      // What it gives comes from the ground: the rails are stiff here.
      return {
        i: [0, 0, i, 0, 0],
        g: [[0, 0, 0, 0, 0], [0, 0, 0, 0, 0], row, [0, 0, 0, 0, 0], [0, 0, 0, 0, 0]],
      };
    },
  };
}

/** Koren's valves (1996). */
function valve(p: LayerPart): Element {
  const of = (name: string, usual: number) => parameter(p, name, usual);
  const [mu, ex, kg1, kp, kvb] = [
    of('MU', 100),
    of('EX', 1.4),
    of('KG1', 1060),
    of('KP', 600),
    of('KVB', 300),
  ];
  const soft = (u: number) => (u > 40 ? u : Math.log1p(Math.exp(u)));
  if (p.kind === 'triode') {
    const { a, g, k } = p.pins as Record<'a' | 'g' | 'k', string>;
    return byDifferences([a, g, k], 2, ([va = 0, vg = 0, vk = 0]) => {
      const [ak, gk] = [va - vk, vg - vk];
      const e1 = ak <= 0 ? 0 : (ak / kp) * soft(kp * (1 / mu + gk / Math.sqrt(kvb + ak * ak)));
      const ia = e1 > 0 ? (2 * e1 ** ex) / kg1 : 0;
      const ig = gk > 0 ? gk ** 1.5 / of('RGI', 2000) : 0;
      return [ia, ig, -ia - ig];
    });
  }
  const { a, g2, g, k } = p.pins as Record<'a' | 'g2' | 'g' | 'k', string>;
  return byDifferences([a, g2, g, k], 2, ([va = 0, vs = 0, vg = 0, vk = 0]) => {
    const [ak, sk, gk] = [va - vk, vs - vk, vg - vk];
    const e1 = sk <= 0 ? 0 : (sk / kp) * soft(kp * (1 / mu + gk / sk));
    const ia = e1 > 0 && ak > 0 ? ((2 * e1 ** ex) / kg1) * Math.atan(ak / kvb) : 0;
    const drive = Math.max(0, gk + sk / mu);
    const is = drive ** ex / of('KG2', 4200);
    return [ia, is, 0, -ia - is];
  });
}

/** What a part is while the unit is on; undefined where this bench has nothing for it. */
export function poweredElements(p: LayerPart, gain: number): Element[] | undefined {
  const value = typeof p.value === 'number' ? p.value : 0;
  switch (p.kind) {
    case 'supply':
      return [electromotive(p.pins.plus!, p.pins.minus!, value, Math.max(0.02, p.resistance ?? 0))];
    case 'signal':
      return [electromotive(p.pins.plus!, p.pins.minus!, p.offset ?? 0, Math.max(0.02, p.resistance ?? 0))];
    case 'opamp':
      return [amplifier(p, gain)];
    case 'triode':
    case 'pentode':
      return [valve(p)];
    case 'zener': {
      const { a, k } = p.pins as Record<'a' | 'k', string>;
      const [is, n, bv] = [parameter(p, 'IS', 1e-14), parameter(p, 'N', 1), value || parameter(p, 'BV', 5)];
      return [
        byDifferences([a, k], 2 * VT, ([u = 0, v = 0]) => {
          const [forward] = exponential(u - v, is, n * VT);
          const [backward] = exponential(v - u - bv, parameter(p, 'IBV', 1e-3), VT);
          return [forward - backward, backward - forward];
        }),
      ];
    }
    case 'timer555':
    case 'clock':
    case 'regulator':
    case 'relay':
      return undefined;
    case 'mosfet':
      return undefined;
    default:
      return unpowered(p);
  }
}
