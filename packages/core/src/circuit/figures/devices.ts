import { apart, c, isDrivenBy, net, of, q, r, sameType, value, type Pattern } from './elements.ts';
import { otherEnd } from './pattern.ts';
import { PAIRS } from './stages.ts';

/** Emitter resistors of an output stage are not larger than this, ohm; those of drivers are. */
const EMITTER_OHM = 22;

/** Figures of several transistors, those that stand for plainer ones before them. */
export const DEVICES: readonly Pattern[] = [
  {
    id: 'complementary-output',
    inner: ['out'],
    name: 'complementary output',
    elements: [
      q('QN', 'top', 'bn', 'en'),
      r('RN', 'en', 'out'),
      r('RP', 'out', 'ep'),
      q('QP', 'low', 'bp', 'ep'),
    ],
    named: ['QN', 'QP'],
    isIt: (m, s) =>
      !s.isP(of(m, 'QN')) &&
      value(of(m, 'RN')) <= EMITTER_OHM &&
      value(of(m, 'RP')) <= EMITTER_OHM &&
      s.isRail(net(m, 'top')) &&
      s.isRail(net(m, 'low')) &&
      apart(m, 'top', 'low') &&
      apart(m, 'bn', 'bp', 'out'),
    insteadOf: ['emitter-follower', 'common-emitter'],
  },
  {
    id: 'complementary-output',
    inner: ['out'],
    name: 'complementary output',
    elements: [q('QN', 'top', 'bn', 'out'), q('QP', 'low', 'bp', 'out')],
    named: ['QN', 'QP'],
    isIt: (m, s) =>
      !s.isP(of(m, 'QN')) &&
      s.isP(of(m, 'QP')) &&
      s.isRail(net(m, 'top')) &&
      s.isRail(net(m, 'low')) &&
      apart(m, 'top', 'low'),
    insteadOf: ['emitter-follower', 'common-emitter'],
  },
  {
    id: 'complementary-drivers',
    inner: ['en', 'ep', 'out'],
    name: 'complementary drivers',
    elements: [
      q('QN', 'top', 'bn', 'en'),
      r('RN', 'en', 'out'),
      r('RP', 'out', 'ep'),
      q('QP', 'low', 'bp', 'ep'),
    ],
    named: ['QN', 'QP'],
    isIt: (m, s) =>
      !s.isP(of(m, 'QN')) &&
      s.isP(of(m, 'QP')) &&
      value(of(m, 'RN')) > EMITTER_OHM &&
      value(of(m, 'RP')) > EMITTER_OHM &&
      s.isRail(net(m, 'top')) &&
      s.isRail(net(m, 'low')) &&
      apart(m, 'top', 'low', 'out'),
    insteadOf: ['emitter-follower', 'common-emitter'],
  },
  ...PAIRS,
  {
    id: 'current-mirror',
    inner: ['b'],
    name: 'current mirror',
    elements: [q('Q1', 'b', 'b', 'e1'), q('Q2', 'out', 'b', 'e2')],
    named: ['Q1', 'Q2'],
    isIt: (m, s) => {
      const [one, other] = [net(m, 'e1'), net(m, 'e2')];
      const footOf = (at: string) =>
        s.isRail(at)
          ? at
          : s.at(at).flatMap((p) => (p.kind === 'resistor' ? (otherEnd(p, at) ?? []) : []))[0];
      return (
        sameType(m, s, 'Q1', 'Q2') &&
        net(m, 'out') !== net(m, 'b') &&
        footOf(one) !== undefined &&
        footOf(one) === footOf(other)
      );
    },
    insteadOf: ['common-emitter'],
  },
  {
    id: 'darlington',
    inner: ['m'],
    name: 'Darlington pair',
    elements: [q('Q1', 'c', 'b', 'm'), q('Q2', 'c', 'm', 'e')],
    named: ['Q1', 'Q2'],
    isIt: (m, s) => sameType(m, s, 'Q1', 'Q2') && apart(m, 'b', 'm', 'e') && !s.isRail(net(m, 'm')),
    insteadOf: ['emitter-follower'],
  },
  {
    id: 'feedback-pair',
    inner: ['m', 'x'],
    name: 'complementary feedback pair',
    elements: [q('Q1', 'm', 'b', 'x'), q('Q2', 'x', 'm', 'e')],
    named: ['Q1', 'Q2'],
    isIt: (m, s) => !sameType(m, s, 'Q1', 'Q2') && !s.isRail(net(m, 'x')) && apart(m, 'b', 'm', 'x', 'e'),
    insteadOf: ['common-emitter', 'emitter-follower'],
  },
  {
    id: 'vbe-multiplier',
    inner: ['top', 'b', 'low'],
    name: 'Vbe multiplier',
    elements: [q('Q', 'top', 'b', 'low'), r('R1', 'top', 'b'), r('R2', 'b', 'low')],
    named: ['Q'],
    isIt: (m, s) => !s.isRail(net(m, 'top')) && !s.isRail(net(m, 'low')),
    insteadOf: ['common-emitter', 'emitter-follower'],
  },
  {
    id: 'cascode',
    inner: ['m'],
    name: 'cascode',
    elements: [q('Q1', 'm', 'b1', 'e1'), q('Q2', 'c', 'b2', 'm')],
    named: ['Q1', 'Q2'],
    isIt: (m, s) =>
      sameType(m, s, 'Q1', 'Q2') &&
      s.at(net(m, 'm')).length === 2 &&
      s.isQuiet(net(m, 'b2')) &&
      !s.isQuiet(net(m, 'b1')) &&
      !s.isRail(net(m, 'c')),
    insteadOf: ['common-emitter'],
  },
  {
    id: 'bootstrap',
    inner: ['out', 'm', 'x'],
    name: 'bootstrap',
    elements: [c('C', 'out', 'm'), r('R1', 'rail', 'm'), r('R2', 'm', 'x')],
    named: ['C'],
    isIt: (m, s) =>
      s.isRail(net(m, 'rail')) &&
      !s.isQuiet(net(m, 'out')) &&
      !s.isRail(net(m, 'x')) &&
      apart(m, 'out', 'm', 'x') &&
      s.at(net(m, 'm')).length === 3 &&
      isDrivenBy(s, net(m, 'out')) &&
      s.at(net(m, 'x')).some((p) => p.kind === 'bjt'),
  },
];
