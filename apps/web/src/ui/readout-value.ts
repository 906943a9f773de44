import { formatDecibel, formatQuantity, type ReadoutAnswer, type Unit } from '@halfsplit/core';

/** A readout's number as it stands in a column; its unit follows, decibels with a fixed decimal. */
export function readoutText(value: number | null | undefined, unit: Unit): string {
  if (value === null || value === undefined) return '–';
  return unit === 'dB' ? `${formatDecibel(value, 1)} dB` : formatQuantity(value, unit);
}

export const answerText = (answer: ReadoutAnswer | undefined, unit: Unit): string =>
  answer?.ok ? readoutText(answer.value, unit) : '–';
