/**
 * Puts text where it can be pasted from. On a page that came without TLS, as on a phone in the workshop, browsers have no
 * clipboard for scripts; the older way of selecting and copying works there.
 */
export async function copyText(text: string): Promise<void> {
  // Typed as always there; it is not on such a page.
  const clipboard = navigator.clipboard as Clipboard | undefined;
  if (clipboard) return clipboard.writeText(text);
  const field = document.createElement('textarea');
  field.value = text;
  field.style.position = 'fixed';
  document.body.append(field);
  field.select();
  document.execCommand('copy');
  field.remove();
}
