/** The number on a unit's tag; one that the server has not seen yet has none. */
export function UnitNumber({ number }: { number: number }) {
  return <span className="zb-tag-number">{number > 0 ? `#${number}` : 'new'}</span>;
}
