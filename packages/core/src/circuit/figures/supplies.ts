import { apart, c, d, inOrder, isControl, maybe, net, of, r, value, type Pattern } from './elements.ts';
import { otherEnd } from './pattern.ts';

/** The resistor of a Zobel network is not larger than this, ohm. */
const ZOBEL_OHM = 100;
/** A reservoir is at least this, F. */
const RESERVOIR_F = 10e-6;
/** What holds a net still is at least this, F. */
const HELD_F = 1e-6;

/** Rectifiers, clippers, cells and dividers. */
export const SUPPLIES: readonly Pattern[] = [
  {
    id: 'bridge-rectifier',
    name: 'bridge rectifier',
    elements: [
      d('D1', 'x', 'top'),
      d('D2', 'y', 'top'),
      d('D3', 'low', 'x'),
      d('D4', 'low', 'y'),
      maybe(c('C', 'top', 'low')),
    ],
    named: ['D1', 'D2', 'D3', 'D4'],
    isIt: (m) => apart(m, 'x', 'y', 'top', 'low'),
    insteadOf: ['rectifier'],
  },
  {
    id: 'rectifier',
    name: 'rectifier and reservoir',
    elements: [d('D', 'x', 'top'), c('C', 'top', 'ground')],
    named: ['D', 'C'],
    isIt: (m, s) =>
      s.isGround(net(m, 'ground')) &&
      value(of(m, 'C')) >= RESERVOIR_F &&
      s.at(net(m, 'x')).some((p) => p.kind === 'transformer' || p.kind === 'signal'),
  },
  {
    id: 'clipping-diodes',
    name: 'clipping diodes',
    elements: [d('D1', 'x', 'y'), d('D2', 'y', 'x')],
    named: ['D1', 'D2'],
    isIt: (m) => apart(m, 'x', 'y') && inOrder(m, 'D1', 'D2'),
  },
  {
    id: 'zobel',
    inner: ['z'],
    name: 'Zobel network',
    elements: [r('R', 'out', 'z'), c('C', 'z', 'ground')],
    named: ['R', 'C'],
    isIt: (m, s) =>
      s.isGround(net(m, 'ground')) &&
      s.at(net(m, 'z')).length === 2 &&
      value(of(m, 'R')) <= ZOBEL_OHM &&
      value(of(m, 'C')) <= HELD_F &&
      s.at(net(m, 'out')).some((p) => ['speaker', 'load', 'headphone'].includes(p.kind)),
  },
  {
    id: 'supply-cell',
    inner: ['to'],
    name: 'RC cell in the supply',
    elements: [r('R', 'from', 'to'), c('C', 'to', 'ground')],
    named: ['R', 'C'],
    isIt: (m, s) =>
      s.isGround(net(m, 'ground')) &&
      !s.isGround(net(m, 'from')) &&
      s.isQuiet(net(m, 'from')) &&
      !s.isRail(net(m, 'to')) &&
      s.isQuiet(net(m, 'to')) &&
      s.at(net(m, 'to')).length > 2 &&
      !s.at(net(m, 'to')).some((p) => p.kind === 'resistor' && s.isGround(otherEnd(p, net(m, 'to')) ?? '')),
  },
  {
    id: 'half-supply',
    inner: ['x'],
    name: 'reference between the rails',
    elements: [r('R1', 'rail', 'x'), r('R2', 'x', 'ground'), c('C', 'x', 'ground')],
    named: ['R1', 'R2'],
    isIt: (m, s) =>
      s.isGround(net(m, 'ground')) &&
      s.isRail(net(m, 'rail')) &&
      !s.isGround(net(m, 'rail')) &&
      !s.isRail(net(m, 'x')) &&
      s.isQuiet(net(m, 'x')),
    insteadOf: ['divider-bias'],
  },
  {
    id: 'divider-bias',
    inner: ['x'],
    name: 'divider bias',
    elements: [r('R1', 'rail', 'x'), r('R2', 'x', 'low')],
    named: ['R1', 'R2'],
    isIt: (m, s) =>
      s.isRail(net(m, 'low')) &&
      s.isQuiet(net(m, 'rail')) &&
      apart(m, 'rail', 'low') &&
      !s.isGround(net(m, 'rail')) &&
      !s.isRail(net(m, 'x')) &&
      isControl(s, net(m, 'x')),
  },
];
