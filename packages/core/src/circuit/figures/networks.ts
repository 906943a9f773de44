import { apart, c, maybe, nearly, net, of, part, r, u, value, type Pattern } from './elements.ts';
import { otherEnd } from './pattern.ts';

/** Networks about opamps, and tone and phase-shift networks. */
export const NETWORKS: readonly Pattern[] = [
  {
    id: 'all-pass',
    inner: ['m', 'p'],
    name: 'all-pass stage',
    elements: [
      u('p', 'm', 'out'),
      r('R1', 'in', 'm'),
      r('R2', 'm', 'out'),
      c('C', 'in', 'p'),
      maybe(r('R3', 'p', 'foot')),
      maybe(part('J', ['jfet', 'mosfet'], { d: 'p', s: 'foot' })),
    ],
    named: ['U'],
    isIt: (m) => apart(m, 'in', 'm', 'p', 'out') && nearly(value(of(m, 'R1')), value(of(m, 'R2'))),
    insteadOf: ['inverting', 'non-inverting'],
  },
  {
    id: 'wien',
    inner: ['x', 'p'],
    name: 'Wien network',
    elements: [
      u('p', 'm', 'out'),
      r('R1', 'out', 'x'),
      c('C1', 'x', 'p'),
      r('R2', 'p', 'quiet'),
      c('C2', 'p', 'quiet'),
    ],
    named: ['U'],
    isIt: (m, s) => s.isQuiet(net(m, 'quiet')) && apart(m, 'x', 'p', 'out', 'm'),
  },
  {
    id: 'opamp-follower',
    inner: ['out'],
    name: 'follower',
    elements: [u('p', 'out', 'out')],
    named: ['U'],
    isIt: (m) => apart(m, 'p', 'out'),
    insteadOf: ['inverting', 'non-inverting'],
  },
  {
    id: 'integrator',
    inner: ['m', 'out'],
    name: 'integrator',
    elements: [u('p', 'm', 'out'), r('R', 'in', 'm'), c('C', 'm', 'out')],
    named: ['U'],
    isIt: (m, s) =>
      s.isQuiet(net(m, 'p')) &&
      apart(m, 'in', 'm', 'out') &&
      !s.isQuiet(net(m, 'in')) &&
      !s.at(net(m, 'm')).some((p) => p.kind === 'resistor' && otherEnd(p, net(m, 'm')) === net(m, 'out')),
  },
  {
    id: 'inverting',
    inner: ['m', 'out'],
    name: 'inverting amplifier',
    elements: [u('p', 'm', 'out'), r('RG', 'in', 'm'), r('RF', 'm', 'out'), maybe(c('CF', 'm', 'out'))],
    named: ['U'],
    isIt: (m, s) => s.isQuiet(net(m, 'p')) && !s.isQuiet(net(m, 'in')) && apart(m, 'in', 'm', 'out'),
  },
  {
    id: 'non-inverting',
    inner: ['m', 'out'],
    name: 'non-inverting amplifier',
    elements: [u('p', 'm', 'out'), r('RF', 'm', 'out'), r('RG', 'm', 'g'), maybe(c('CF', 'm', 'out'))],
    named: ['U'],
    isIt: (m, s) => {
      const g = net(m, 'g');
      const isHeld =
        s.isQuiet(g) || s.at(g).some((p) => p.kind === 'capacitor' && s.isQuiet(otherEnd(p, g) ?? g));
      return isHeld && !s.isQuiet(net(m, 'p')) && apart(m, 'p', 'm', 'out', 'g');
    },
  },
  {
    id: 'phase-shift',
    inner: ['x1', 'x2', 'x3'],
    name: 'phase-shift ladder',
    elements: [
      c('C1', 'x0', 'x1'),
      r('R1', 'x1', 'quiet'),
      c('C2', 'x1', 'x2'),
      r('R2', 'x2', 'quiet'),
      c('C3', 'x2', 'x3'),
      r('R3', 'x3', 'quiet'),
    ],
    named: ['C1', 'C2', 'C3'],
    isIt: (m, s) =>
      s.isQuiet(net(m, 'quiet')) && apart(m, 'x0', 'x1', 'x2', 'x3', 'quiet') && !s.isQuiet(net(m, 'x0')),
  },
  {
    id: 'bass-control',
    inner: ['a', 'w', 'b'],
    name: 'bass control',
    elements: [
      part('P', ['potentiometer'], { 1: 'a', 2: 'w', 3: 'b' }),
      c('C1', 'a', 'w'),
      c('C2', 'w', 'b'),
    ],
    named: ['P'],
    isIt: (m) => apart(m, 'a', 'w', 'b'),
  },
  {
    id: 'treble-control',
    inner: ['a', 'w', 'b'],
    name: 'treble control',
    elements: [
      part('P', ['potentiometer'], { 1: 'a', 2: 'w', 3: 'b' }),
      c('C1', 'in', 'a'),
      c('C2', 'b', 'out'),
    ],
    named: ['P'],
    isIt: (m, s) =>
      apart(m, 'in', 'a', 'w', 'b', 'out') &&
      s.at(net(m, 'a')).length === 2 &&
      s.at(net(m, 'b')).length === 2,
  },
];
