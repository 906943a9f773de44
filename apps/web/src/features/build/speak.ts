/** Reads a text aloud, in place of what is being read; nothing where the browser has no voice. */
export function speak(text: string): void {
  if (!('speechSynthesis' in window)) return;
  window.speechSynthesis.cancel();
  const words = new SpeechSynthesisUtterance(text);
  words.lang = 'en';
  window.speechSynthesis.speak(words);
}
