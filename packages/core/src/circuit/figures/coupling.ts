import { net, part, type Pattern } from './elements.ts';

/** Coupling by a transformer. */
export const COUPLING: readonly Pattern[] = [
  {
    id: 'transformer-coupling',
    name: 'transformer coupling',
    elements: [part('T', ['transformer'], { p1: 'p1', p2: 'p2', s1: 's1', s2: 's2' })],
    named: ['T'],
    isIt: (m, s) =>
      [net(m, 'p1'), net(m, 'p2')].some((at) => !s.isRail(at)) &&
      [net(m, 's1'), net(m, 's2')].some((at) => !s.isRail(at)),
  },
];
