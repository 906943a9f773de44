const KEY = 'zemble.speak';

/** Whether verdicts are read out; off until it is asked for. */
export const speaks = (): boolean => localStorage.getItem(KEY) === 'on';
export const setSpeaks = (isOn: boolean): void => localStorage.setItem(KEY, isOn ? 'on' : 'off');

/** Reads a sentence out, ending the one before. */
export function speak(sentence: string): void {
  if (!speaks() || !('speechSynthesis' in window)) return;
  speechSynthesis.cancel();
  speechSynthesis.speak(new SpeechSynthesisUtterance(sentence.replace(/Ω/g, 'ohm').replace(/µ/g, 'micro')));
}
