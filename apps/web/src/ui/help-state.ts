/** Anybody may ask for help: a header, a key, the field that goes to anything. */
const asked = new EventTarget();

export const openHelp = (): void => void asked.dispatchEvent(new Event('open'));

/** Tells when help is asked for; answers how to stop listening. */
export function onHelpOpen(listener: () => void): () => void {
  asked.addEventListener('open', listener);
  return () => asked.removeEventListener('open', listener);
}
