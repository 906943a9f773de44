/** A page's clock may be ahead of the server's by this, ms. */
const AHEAD_MS = 5 * 60_000;

/** Nothing on a bench was read before. */
const EARLIEST = Date.UTC(1970, 0, 1);

/** When something was read, as the page says: it may have been away for hours. Now when it says nothing, or what cannot be. */
export function timeOf(takenAt: string | undefined): Date {
  const now = new Date();
  if (takenAt === undefined) return now;
  const said = new Date(takenAt);
  return said.getTime() > now.getTime() + AHEAD_MS || said.getTime() < EARLIEST ? now : said;
}
