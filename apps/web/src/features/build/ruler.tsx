const RULER_MM = 50;

/** A line of 50 mm: measured on paper it tells whether the printer kept the size. */
export function Ruler() {
  return (
    <figure>
      <svg
        viewBox={`-1 0 ${RULER_MM + 12} 6`}
        width={`${RULER_MM + 12}mm`}
        height="6mm"
        role="img"
        aria-label="A ruler of 50 mm"
      >
        <path
          d={`M 0 3 H ${RULER_MM} ${Array.from({ length: 6 }, (_, i) => `M ${i * 10} 1.5 V 4.5`).join(' ')}`}
          stroke="currentColor"
          strokeWidth={0.25}
          fill="none"
        />
        <text x={0} y={1.4} fontSize={1.8} fill="currentColor">
          0
        </text>
        <text x={RULER_MM} y={1.4} fontSize={1.8} fill="currentColor">
          50 mm
        </text>
      </svg>
      <figcaption>Print at 100 %: this line is 50 mm long.</figcaption>
    </figure>
  );
}
