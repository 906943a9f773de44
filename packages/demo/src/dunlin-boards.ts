import type { DemoPhoto } from './demo-unit.ts';

const WIDTH = 1200;
const HEIGHT = 800;

type Place = readonly [x: number, y: number];

/** Pads of a part's two ends. */
const ENDS: Readonly<Record<string, readonly [Place, Place]>> = {
  C1: [
    [200, 200],
    [320, 200],
  ],
  R1: [
    [320, 270],
    [320, 390],
  ],
  R2: [
    [520, 180],
    [680, 180],
  ],
  R3: [
    [440, 270],
    [440, 390],
  ],
  R4: [
    [800, 270],
    [960, 270],
  ],
  R5: [
    [960, 330],
    [960, 390],
  ],
  C101: [
    [200, 600],
    [320, 600],
  ],
  R101: [
    [320, 530],
    [320, 430],
  ],
  R102: [
    [520, 620],
    [680, 620],
  ],
  R103: [
    [440, 530],
    [440, 430],
  ],
  R104: [
    [800, 530],
    [960, 530],
  ],
  R105: [
    [960, 470],
    [960, 430],
  ],
};
/** Pins of the dual in-line package, pin 1 first, its notch to the left. */
const CHIP: readonly Place[] = [
  [540, 450],
  [580, 450],
  [620, 450],
  [660, 450],
  [660, 330],
  [620, 330],
  [580, 330],
  [540, 330],
];

const BANDS: Readonly<Record<string, readonly string[]>> = {
  R1: ['#6b3f1d', '#1b1b1b', '#e0b52c', '#b08a2e'],
  R2: ['#b3261e', '#b3261e', '#d0732a', '#b08a2e'],
  R3: ['#6b3f1d', '#1b1b1b', '#d0732a', '#b08a2e'],
  R4: ['#6b3f1d', '#1b1b1b', '#6b3f1d', '#b08a2e'],
  R5: ['#6b3f1d', '#1b1b1b', '#e0b52c', '#b08a2e'],
};
const bandsOf = (ref: string) => BANDS[`R${Number(ref.slice(1)) % 100}`]!;

/** A part lying between its pads, drawn along the line from one to the other. */
function body(ref: string, [[x1, y1], [x2, y2]]: readonly [Place, Place]): string {
  const length = Math.hypot(x2 - x1, y2 - y1);
  const turn = (Math.atan2(y2 - y1, x2 - x1) * 180) / Math.PI;
  const half = Math.min(34, length / 2 - 8);
  const shape = ref.startsWith('C')
    ? `<rect x="${-half}" y="-19" width="${2 * half}" height="38" rx="6" fill="#b5482f"/><rect x="${-half}" y="-19" width="${2 * half}" height="10" rx="4" fill="#c96a52"/>`
    : `<rect x="${-half}" y="-11" width="${2 * half}" height="22" rx="9" fill="#d9b98a"/>${bandsOf(ref)
        .map(
          (colour, i) =>
            `<rect x="${half * (-0.75 + 0.42 * i)}" y="-11" width="6" height="22" fill="${colour}"/>`,
        )
        .join('')}`;
  return `<g transform="translate(${(x1 + x2) / 2} ${(y1 + y2) / 2}) rotate(${turn})"><path d="M${-length / 2} 0H${length / 2}" stroke="#c9ccd1" stroke-width="5"/>${shape}</g>`;
}

/** Copper of the left channel and of what both share; the right one is its mirror image. */
const TRACKS: readonly (readonly Place[])[] = [
  [
    [110, 200],
    [200, 200],
  ],
  [
    [320, 200],
    [320, 270],
  ],
  [
    [320, 270],
    [390, 270],
    [390, 300],
    [500, 300],
    [500, 410],
    [620, 410],
    [620, 450],
  ],
];
const mirrored = ([x, y]: Place): Place => [x, HEIGHT - y];

const pads = [...Object.values(ENDS).flat(), ...CHIP];
const fromBelow = ([x, y]: Place): Place => [WIDTH - x, y];
const pathOf = (places: readonly Place[]) => `M${places.map(([x, y]) => `${x} ${y}`).join('L')}`;

const frame = (board: string, drawn: string) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}" height="${HEIGHT}" viewBox="0 0 ${WIDTH} ${HEIGHT}" font-family="sans-serif">
  <rect width="${WIDTH}" height="${HEIGHT}" fill="#4a4640"/>
  <rect x="40" y="60" width="${WIDTH - 80}" height="${HEIGHT - 120}" rx="10" fill="${board}"/>
  ${drawn}
</svg>`;

const hole = ([x, y]: Place) =>
  `<circle cx="${x}" cy="${y}" r="13" fill="#c8a75c"/><circle cx="${x}" cy="${y}" r="5" fill="#2a2018"/>`;

const above = frame(
  '#2f6b4e',
  `${pads.map(hole).join('')}
  ${Object.entries(ENDS)
    .map(([ref, ends]) => body(ref, ends))
    .join('')}
  <rect x="524" y="346" width="152" height="88" rx="5" fill="#22252a"/><circle cx="524" cy="390" r="11" fill="#3a3f47"/><circle cx="544" cy="428" r="4" fill="#8d939d"/>
  ${Object.entries(ENDS)
    .map(
      ([ref, [[x1, y1], [x2, y2]]]) =>
        `<text x="${(x1 + x2) / 2 + (x1 === x2 ? 24 : 0)}" y="${(y1 + y2) / 2 - (x1 === x2 ? -6 : 24)}" font-size="20" fill="#e8e3d8" text-anchor="${x1 === x2 ? 'start' : 'middle'}">${ref}</text>`,
    )
    .join('')}
  <text x="600" y="396" font-size="22" fill="#c9ccd1" text-anchor="middle">U1</text>`,
);

const below = frame(
  '#8a6a35',
  `${[...TRACKS, ...TRACKS.map((t) => t.map(mirrored))].map((t) => `<path d="${pathOf(t.map(fromBelow))}" stroke="#b98f3e" stroke-width="15" fill="none" stroke-linejoin="round" stroke-linecap="round"/>`).join('')}
  ${pads.map(fromBelow).map(hole).join('')}`,
);

const at = (target: string, [x, y]: Place) => ({ target, x: x / WIDTH, y: y / HEIGHT });
const PIN_NAMES = [
  'U1A.out',
  'U1A.minus',
  'U1A.plus',
  'U1A.vminus',
  'U1B.plus',
  'U1B.minus',
  'U1B.out',
  'U1A.vplus',
];

/** Two places that both photos show, in fractions. */
const [cornerA, cornerB]: readonly [Place, Place] = [
  [200, 200],
  [960, 530],
];
const place = ([x, y]: Place) => ({ x: x / WIDTH, y: y / HEIGHT });

/** The line driver's board from both sides, lined up; the pads of the left channel and of the chip are marked. */
export const dunlinBoards: readonly DemoPhoto[] = [
  {
    name: 'Parts side',
    svg: above,
    points: [
      ...Object.entries(ENDS)
        .filter(([ref]) => Number(ref.slice(1)) < 100)
        .flatMap(([ref, [a, b]]) => [at(`${ref}.a`, a), at(`${ref}.b`, b)]),
      ...CHIP.map((pin, i) => at(PIN_NAMES[i]!, pin)),
    ],
  },
  {
    name: 'Solder side',
    svg: below,
    points: [],
    overlay: {
      side: 'solder',
      link: {
        photoId: 'Parts side',
        here: [place(fromBelow(cornerA)), place(fromBelow(cornerB))],
        there: [place(cornerA), place(cornerB)],
      },
    },
  },
];
