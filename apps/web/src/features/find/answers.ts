import type { SawWord } from '@zemble/contract';
import type { Test } from '@zemble/core';

/** What can be seen at a place, with the key that records it. */
export interface Answer {
  readonly key: string;
  readonly saw: SawWord;
  readonly word: string;
}

const AUDIO: readonly Answer[] = [
  { key: 'g', saw: 'good', word: 'there' },
  { key: 'w', saw: 'weak', word: 'weak' },
  { key: 'd', saw: 'distorted', word: 'distorted' },
  { key: 'h', saw: 'hum', word: 'hum' },
  { key: 'n', saw: 'none', word: 'nothing' },
];
const SUPPLY: readonly Answer[] = [
  { key: 'g', saw: 'good', word: 'right' },
  { key: 'l', saw: 'low', word: 'low' },
  { key: 'h', saw: 'hum', word: 'ripple' },
  { key: 'n', saw: 'none', word: 'nothing' },
];
const PULSES: readonly Answer[] = [
  { key: 'p', saw: 'pulsing', word: 'pulsing' },
  { key: 'h', saw: 'high', word: 'stuck high' },
  { key: 'l', saw: 'low', word: 'stuck low' },
  { key: 'f', saw: 'floating', word: 'floating' },
];
const CONTROL: readonly Answer[] = [
  { key: 'g', saw: 'good', word: 'right' },
  { key: 'n', saw: 'none', word: 'wrong' },
  { key: 'f', saw: 'floating', word: 'floating' },
];
const CHECK: readonly Answer[] = [
  { key: 'g', saw: 'good', word: 'good' },
  { key: 'n', saw: 'none', word: 'bad' },
];

/** The answers that fit a test. */
export function answersFor(test: Pick<Test, 'how' | 'carries'>): readonly Answer[] {
  if (test.how === 'check') return CHECK;
  switch (test.carries) {
    case 'supply':
      return SUPPLY;
    case 'clock':
    case 'data':
      return PULSES;
    case 'control':
      return CONTROL;
    case 'audio':
      return AUDIO;
  }
}

/** A key pressed while no field is being typed in. */
export function isFree(event: KeyboardEvent): boolean {
  const { target } = event;
  if (event.ctrlKey || event.metaKey || event.altKey) return false;
  return !(
    target instanceof HTMLElement &&
    target.closest('input, textarea, select, [contenteditable], [role="combobox"], .ant-modal, .ant-drawer')
  );
}
