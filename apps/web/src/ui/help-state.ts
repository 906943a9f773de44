/** Anybody may ask for help: a header, a key, the field that goes to anything. */
const asked = new EventTarget();

/** @param word that is to stand first among the words */
export const openHelp = (word?: string): void =>
  void asked.dispatchEvent(new CustomEvent('open', { detail: word }));

/** Tells when help is asked for; answers how to stop listening. */
export function onHelpOpen(listener: (word: string | undefined) => void): () => void {
  const onOpen = (event: Event) => listener((event as CustomEvent<string | undefined>).detail);
  asked.addEventListener('open', onOpen);
  return () => asked.removeEventListener('open', onOpen);
}
