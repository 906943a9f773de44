import { formatDecibel, formatQuantity } from '@zemble/core';

/** Room around every chart. */
export const CHART_MARGIN = { top: 8, right: 26, bottom: 0, left: 0 } as const;
/** The numbers at an axis. */
export const TICK = { fontSize: 11, fill: 'var(--zb-dim)' } as const;

/** The audible decades, on a logarithm. */
export const FREQUENCY_AXIS = {
  dataKey: 'f',
  type: 'number' as const,
  scale: 'log' as const,
  domain: [10, 100_000] as [number, number],
  ticks: [10, 100, 1000, 10_000, 100_000],
  tickFormatter: (f: number) => formatQuantity(f, 'Hz'),
  stroke: 'var(--zb-dim)',
  tick: TICK,
};

/** A gain, dB. */
export const LEVEL_AXIS = {
  tickFormatter: (db: number) => `${formatDecibel(db, 0)} dB`,
  stroke: 'var(--zb-dim)',
  tick: TICK,
};
