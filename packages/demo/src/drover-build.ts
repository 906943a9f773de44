import type { Board, Panel, Wire } from '@halfsplit/contract';

/** The wires of the overdrive box: its three controls and the battery. */
export const DROVER_WIRES: readonly Wire[] = [
  { id: 'w1', colour: 'red', from: 'V1.plus', to: 'board.vcc', length: 90 },
  { id: 'w2', colour: 'black', from: 'V1.minus', to: 'board.0', length: 90 },
  { id: 'w3', colour: 'white', from: 'P1.1', to: 'board.q', length: 60 },
  { id: 'w4', colour: 'yellow', from: 'P1.2', to: 'board.d', length: 60 },
  { id: 'w5', colour: 'yellow', from: 'P1.2', to: 'P1.3', note: 'on the lugs' },
  { id: 'w6', colour: 'green', from: 'P2.1', to: 'board.y', length: 70 },
  { id: 'w7', colour: 'black', from: 'P2.2', to: 'P2.3' },
  { id: 'w8', colour: 'black', from: 'P2.3', to: 'P3.1', length: 40 },
  { id: 'w9', colour: 'black', from: 'P3.1', to: 'board.0', length: 80 },
  { id: 'w10', colour: 'blue', from: 'P3.3', to: 'board.w', length: 80 },
  { id: 'w11', colour: 'orange', from: 'P3.2', to: 'board.out', length: 80 },
];

/** Its board, on strips. */
export const DROVER_BOARD: Board = {
  id: 'b1',
  style: 'strip',
  columns: 20,
  rows: 4,
  places: [
    { ref: 'R1', holes: { a: [2, 3], b: [2, 1] } },
    { ref: 'R2', holes: { a: [6, 1], b: [6, 3] } },
    { ref: 'C1', holes: { a: [5, 1], b: [5, 3] } },
    { ref: 'C2', holes: { a: [1, 0], b: [1, 2] } },
    { ref: 'R3', holes: { a: [3, 2], b: [3, 1] } },
    {
      ref: 'U1',
      holes: {
        '5': [11, 0],
        '6': [11, 1],
        '7': [11, 2],
        out: [14, 3],
        minus: [14, 2],
        plus: [14, 1],
        vminus: [14, 0],
        vplus: [11, 3],
      },
    },
    { ref: 'R4', holes: { a: [8, 0], b: [8, 1] } },
    { ref: 'C3', holes: { a: [9, 1], b: [9, 3] } },
    { ref: 'R5', holes: { a: [7, 0], b: [7, 2] } },
    { ref: 'D1', holes: { a: [15, 2], k: [15, 3] } },
    { ref: 'D2', holes: { a: [16, 3], k: [16, 2] } },
    { ref: 'R6', holes: { a: [17, 3], b: [17, 0] } },
    { ref: 'C4', holes: { a: [18, 0], b: [18, 2] } },
    { ref: 'C5', holes: { a: [16, 0], b: [16, 1] } },
    { ref: 'R7', holes: { a: [4, 0], b: [4, 3] } },
  ],
  cuts: [
    [2, 0],
    [5, 0],
    [10, 0],
    [12, 0],
    [15, 0],
    [7, 1],
    [10, 1],
    [12, 1],
    [15, 1],
    [6, 2],
    [9, 2],
    [12, 2],
    [17, 2],
    [3, 3],
    [10, 3],
    [13, 3],
  ],
  links: [
    { from: [9, 0], to: [13, 2] },
    { from: [13, 0], to: [8, 3] },
    { from: [13, 1], to: [5, 2] },
    { from: [1, 3], to: [12, 3] },
  ],
  terminals: [
    { net: '0', hole: [7, 3] },
    { net: 'vcc', hole: [0, 3] },
    { net: 'in', hole: [0, 0] },
    { net: 'd', hole: [19, 3] },
    { net: 'q', hole: [8, 2] },
    { net: 'y', hole: [19, 2] },
    { net: 'w', hole: [19, 1] },
    { net: 'out', hole: [3, 0] },
  ],
  name: 'Overdrive',
};

/** Its lid over the board: one control stands over a capacitor that is too tall for it. */
export const DROVER_LID: Panel = {
  id: 'lid',
  name: 'Lid',
  widthMm: 120,
  heightMm: 72,
  gapMm: 24,
  controls: [
    { id: 'c1', ref: 'P1', at: { x: 22, y: 20 }, holeMm: 7, lengthMm: 17, widthMm: 22, depthMm: 14 },
    { id: 'c2', ref: 'P2', at: { x: 37, y: 35 }, holeMm: 7, lengthMm: 17, widthMm: 22, depthMm: 14 },
    { id: 'c3', ref: 'P3', at: { x: 98, y: 20 }, holeMm: 7, lengthMm: 17, widthMm: 22, depthMm: 14 },
  ],
  board: { id: 'b1', at: { x: 24, y: 40 }, quarters: 0 },
};
