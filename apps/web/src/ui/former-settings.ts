import { FORMER_NAME } from '@zemble/contract';

/** What this browser kept under the product's former name (light or dark, the meter, what is folded) goes on under that of now. */
export function takeFormerSettings(): void {
  try {
    for (const key of Object.keys(localStorage)) {
      if (!key.startsWith(`${FORMER_NAME}.`)) continue;
      const now = `zemble${key.slice(FORMER_NAME.length)}`;
      if (localStorage.getItem(now) === null) localStorage.setItem(now, localStorage.getItem(key)!);
      localStorage.removeItem(key);
    }
  } catch {
    // A browser that keeps nothing has nothing to take over.
  }
}
