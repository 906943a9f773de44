/** Where a pointer is, in the units of a drawing. */
export function svgPoint(
  svg: SVGSVGElement,
  { clientX, clientY }: { readonly clientX: number; readonly clientY: number },
): { readonly x: number; readonly y: number } {
  const matrix = svg.getScreenCTM()!.inverse();
  const { x, y } = new DOMPoint(clientX, clientY).matrixTransform(matrix);
  return { x, y };
}
