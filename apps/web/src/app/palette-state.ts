const OPEN_EVENT = 'zemble:palette';

/** Opens the palette from anywhere. */
export const openPalette = (): void => void window.dispatchEvent(new Event(OPEN_EVENT));

export function onPaletteOpen(listener: () => void): () => void {
  window.addEventListener(OPEN_EVENT, listener);
  return () => window.removeEventListener(OPEN_EVENT, listener);
}
