import {
  formatDecibel,
  formatPlain,
  formatQuantity,
  NOTHING_DB,
  type ReadoutAnswer,
  type Unit,
} from '@zemble/core';

/** A readout's number as it stands in a column; its unit follows, decibels with a fixed decimal, ratios in per cent. */
export function readoutText(value: number | null | undefined, unit: Unit): string {
  if (value === null || value === undefined) return '–';
  if (unit === 'dB' && Math.abs(value) >= NOTHING_DB) return 'nothing arrives';
  if (unit === 'dB') return `${formatDecibel(value, 1)} dB`;
  if (unit === 's' && value === 0) return 'at once';
  if (unit === 'ratio') return `${formatPlain(100 * value, 3)} %`;
  return unit === 's' && value >= LONG_S ? longTime(value) : formatQuantity(value, unit);
}

/** From here on a time is told in minutes and hours, s. */
const LONG_S = 120;
const longTime = (seconds: number): string => {
  const minutes = Math.round(seconds / 60);
  return minutes < 120 ? `${minutes} min` : `${formatPlain(minutes / 60, 3)} h`;
};

/** An answer as it stands in a column; a range with both its ends. */
export function answerText(answer: ReadoutAnswer | undefined, unit: Unit): string {
  if (!answer?.ok) return '–';
  const { value, range } = answer;
  if (!range) return readoutText(value, unit);
  const [low, high] = [readoutText(range.min, unit), readoutText(range.max, unit)];
  // A unit that both ends share is said once: "1.11 … 1.73 Hz".
  const ends = [low, high].map((text) => text.slice(text.indexOf(' ')));
  return `${ends[0] === ends[1] && low.includes(' ') ? low.slice(0, low.indexOf(' ')) : low} … ${high}`;
}
