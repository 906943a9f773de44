export function BoardPrint() {
  return null;
}
