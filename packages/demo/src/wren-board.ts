import type { DemoPhoto } from './demo-unit.ts';

const WIDTH = 1200;
const HEIGHT = 800;

interface Placed {
  readonly ref: string;
  readonly x: number;
  readonly y: number;
  readonly draw: string;
  /** Where its name is printed, from its middle. */
  readonly label?: readonly [x: number, y: number];
}

const resistor = (
  ref: string,
  x: number,
  y: number,
  bands: readonly string[],
  isUpright = false,
): Placed => ({
  ref,
  x,
  y,
  label: isUpright ? [-34, 8] : [0, -20],
  draw: `<g transform="rotate(${isUpright ? 90 : 0})"><path d="M-52 0H52" stroke="#c9ccd1" stroke-width="5"/><rect x="-32" y="-11" width="64" height="22" rx="9" fill="#d9b98a"/>${bands
    .map((c, i) => `<rect x="${-24 + i * 13}" y="-11" width="7" height="22" fill="${c}"/>`)
    .join('')}</g>`,
});
const can = (ref: string, x: number, y: number, radius: number): Placed => ({
  ref,
  x,
  y,
  label: [0, radius + 24],
  draw: `<circle r="${radius}" fill="#20304f"/><circle r="${radius - 7}" fill="#b9bec7"/><path d="M-${radius * 0.4} -${radius * 0.4}L${radius * 0.4} ${radius * 0.4}M${radius * 0.4} -${radius * 0.4}L-${radius * 0.4} ${radius * 0.4}" stroke="#8d939d" stroke-width="3"/><path d="M${-radius + 4} -12a${radius} ${radius} 0 0 0 0 24" stroke="#dfe3ea" stroke-width="5" fill="none"/>`,
});
const film = (ref: string, x: number, y: number): Placed => ({
  ref,
  x,
  y,
  draw: `<rect x="-34" y="-17" width="68" height="34" rx="5" fill="#b5482f"/><rect x="-34" y="-17" width="68" height="9" rx="4" fill="#c96a52"/>`,
});
const transistor = (ref: string, x: number, y: number): Placed => ({
  ref,
  x,
  y,
  draw: `<path d="M-26 12A28 28 0 1 1 26 12Z" fill="#22252a"/><path d="M-16 12v14M0 12v14M16 12v14" stroke="#c9ccd1" stroke-width="4"/>`,
});
const diode = (ref: string, x: number, y: number): Placed => ({
  ref,
  x,
  y,
  label: [62, 8],
  draw: `<path d="M-40 0H40" stroke="#c9ccd1" stroke-width="4"/><rect x="-18" y="-8" width="36" height="16" rx="6" fill="#c2622b"/><rect x="8" y="-8" width="5" height="16" fill="#16181b"/>`,
});
const terminal = (ref: string, x: number, y: number): Placed => ({
  ref,
  x,
  y,
  draw: `<rect x="-38" y="-26" width="76" height="52" rx="4" fill="#2f6b4e"/><circle cx="-17" r="11" fill="#c7ccd3"/><circle cx="17" r="11" fill="#c7ccd3"/>`,
});

const [BROWN, RED, YELLOW, VIOLET, BLUE, BLACK, GREY, GOLD, ORANGE] = [
  '#6b3f1d',
  '#b3261e',
  '#e0b52c',
  '#6d4aa0',
  '#2d5aa0',
  '#1b1b1b',
  '#7c7f84',
  '#b08a2e',
  '#d0732a',
];

const PLACED: readonly Placed[] = [
  terminal('MIC', 95, 640),
  terminal('12V', 95, 130),
  terminal('LS1', 1105, 640),
  can('C1', 250, 150, 66),
  resistor('R1', 400, 150, [BROWN, BLACK, RED, GOLD]),
  can('C2', 545, 150, 48),
  film('C3', 240, 640),
  resistor('R2', 360, 520, [YELLOW, VIOLET, YELLOW, GOLD]),
  resistor('R3', 400, 330, [YELLOW, VIOLET, RED, GOLD], true),
  transistor('Q1', 400, 640),
  resistor('R4', 500, 690, [RED, RED, BROWN, GOLD], true),
  film('C4', 545, 520),
  {
    ref: 'P1',
    x: 650,
    y: 660,
    draw: `<rect x="-46" y="-40" width="92" height="80" rx="6" fill="#3d5f96"/><circle r="26" fill="#dfe3ea"/><path d="M0 0L14 -20" stroke="#22252a" stroke-width="5"/>`,
  },
  film('C5', 700, 520),
  resistor('R5', 780, 400, [YELLOW, VIOLET, ORANGE, GOLD]),
  resistor('R6', 790, 690, [BROWN, RED, ORANGE, GOLD], true),
  transistor('Q2', 850, 560),
  resistor('R7', 880, 690, [RED, RED, BLACK, GOLD], true),
  resistor('R8', 760, 150, [BLUE, GREY, BROWN, GOLD]),
  diode('D1', 860, 270),
  diode('D2', 860, 320),
  transistor('Q3', 980, 170),
  transistor('Q4', 980, 440),
  resistor('R9', 1010, 270, [BROWN, BLACK, GOLD, GOLD]),
  resistor('R10', 1010, 330, [BROWN, BLACK, GOLD, GOLD]),
  can('C6', 1085, 480, 56),
  {
    ref: 'K1',
    x: 150,
    y: 480,
    draw: `<rect x="-40" y="-24" width="80" height="48" rx="4" fill="#4b5058"/><rect x="-14" y="-34" width="28" height="30" rx="3" fill="#cfd3d9"/>`,
  },
];

const TRACES = [
  'M95 130H250V84H1020V140',
  'M316 150H348M452 150H545V330H400V278',
  'M95 640H206M274 640H374V520',
  'M400 382V612M412 520H511',
  'M579 520H650V620M690 620H700V537M734 520H824V560',
  'M780 400H1010V300M728 400V640H790',
  'M850 590V640H880M850 534V320H820',
  'M812 150H860V270H820M900 270H954V196',
  'M1010 300H1085V424M1085 536V640H1067',
];

const picture = `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}" height="${HEIGHT}" viewBox="0 0 ${WIDTH} ${HEIGHT}" font-family="sans-serif">
  <defs><radialGradient id="lamp" cx="0.35" cy="0.25" r="1"><stop offset="0" stop-color="#fff" stop-opacity="0.22"/><stop offset="1" stop-color="#000" stop-opacity="0.25"/></radialGradient></defs>
  <rect width="${WIDTH}" height="${HEIGHT}" fill="#5c4632"/>
  <rect x="26" y="26" width="${WIDTH - 52}" height="${HEIGHT - 52}" rx="14" fill="#8a6a35"/>
  ${TRACES.map((d) => `<path d="${d}" stroke="#a98a4c" stroke-width="16" fill="none" stroke-linejoin="round"/>`).join('')}
  ${[
    [60, 60],
    [1140, 60],
    [60, 740],
    [1140, 740],
  ]
    .map(
      ([x, y]) =>
        `<circle cx="${x}" cy="${y}" r="17" fill="#3a2c1c"/><circle cx="${x}" cy="${y}" r="26" fill="none" stroke="#c8a75c" stroke-width="6"/>`,
    )
    .join('')}
  ${PLACED.map(({ ref, x, y, draw, label = [0, -44] }) => `<g transform="translate(${x} ${y})">${draw}<text x="${label[0]}" y="${label[1]}" text-anchor="middle" font-size="21" fill="#f5ecd6">${ref}</text></g>`).join('')}
  <text x="600" y="765" text-anchor="middle" font-size="22" fill="#e6d6ae">WREN TOWER 3</text>
  <rect width="${WIDTH}" height="${HEIGHT}" fill="url(#lamp)"/>
</svg>`;

const point = (target: string, x: number, y: number) => ({ target, x: x / WIDTH, y: y / HEIGHT });

/** The board of the intercom, drawn as it lies on the bench, with its test points. */
export const wrenBoard: DemoPhoto = {
  name: 'Board, parts side',
  svg: picture,
  points: [
    point('TP1', 230, 605),
    point('TP2', 400, 575),
    point('TP3', 655, 590),
    point('TP4', 850, 350),
    point('TP5', 1085, 400),
    point('TP6', 1085, 600),
    point('TP7', 330, 90),
    point('TP8', 480, 150),
  ],
};
