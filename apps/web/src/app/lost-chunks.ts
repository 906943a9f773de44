const TRIED_KEY = 'zemble.reloaded-at';
/** Within this time a second reload would not help: the piece is gone for good, ms. */
const ONCE_MS = 60_000;

/**
 * A page that stayed open over an upgrade asks for pieces of the version before, which are gone: it is loaded anew, once. What is
 * entered is kept by the outbox.
 */
export function reloadForLostChunks(): void {
  addEventListener('vite:preloadError', (event) => {
    const last = Number(sessionStorage.getItem(TRIED_KEY) ?? 0);
    if (Date.now() - last < ONCE_MS) return;
    sessionStorage.setItem(TRIED_KEY, String(Date.now()));
    event.preventDefault();
    location.reload();
  });
}
