import type { Board, Panel, Wire } from '@zemble/contract';

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
  columns: 17,
  rows: 5,
  places: [
    { ref: 'R1', holes: { a: [5, 0], b: [7, 0] } },
    { ref: 'R2', holes: { a: [10, 0], b: [10, 1] } },
    { ref: 'C1', holes: { a: [8, 0], b: [8, 1] } },
    { ref: 'C2', holes: { a: [0, 0], b: [0, 2] } },
    { ref: 'R3', holes: { a: [9, 2], b: [9, 0] } },
    {
      ref: 'U1',
      holes: {
        '5': [4, 1],
        '6': [4, 2],
        '7': [4, 3],
        out: [7, 4],
        minus: [7, 3],
        plus: [7, 2],
        vminus: [7, 1],
        vplus: [4, 4],
      },
    },
    { ref: 'R4', holes: { a: [13, 3], b: [13, 4] } },
    { ref: 'C3', holes: { a: [14, 4], b: [14, 1] } },
    { ref: 'R5', holes: { a: [15, 3], b: [15, 2] } },
    { ref: 'D1', holes: { a: [10, 3], k: [10, 4] } },
    { ref: 'D2', holes: { a: [8, 4], k: [8, 3] } },
    { ref: 'R6', holes: { a: [11, 4], b: [11, 2] } },
    { ref: 'C4', holes: { a: [13, 2], b: [13, 0] } },
    { ref: 'C5', holes: { a: [2, 1], b: [2, 3] } },
    { ref: 'R7', holes: { a: [15, 0], b: [15, 1] } },
  ],
  cuts: [
    [2, 0],
    [6, 0],
    [11, 0],
    [14, 0],
    [3, 1],
    [5, 1],
    [3, 2],
    [5, 2],
    [10, 2],
    [14, 2],
    [3, 3],
    [5, 3],
    [5, 4],
    [12, 4],
  ],
  links: [
    { from: [3, 0], to: [3, 4] },
    { from: [1, 1], to: [12, 2] },
    { from: [2, 2], to: [8, 2] },
  ],
  terminals: [
    { net: '0', hole: [16, 1] },
    { net: 'vcc', hole: [0, 4] },
    { net: 'in', hole: [1, 0] },
    { net: 'd', hole: [9, 4] },
    { net: 'q', hole: [16, 2] },
    { net: 'y', hole: [12, 0] },
    { net: 'w', hole: [0, 3] },
    { net: 'out', hole: [16, 0] },
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
    { id: 'c1', ref: 'P1', at: { x: 22, y: 18 }, holeMm: 7, lengthMm: 17, widthMm: 22, depthMm: 14 },
    { id: 'c2', ref: 'P2', at: { x: 44, y: 33 }, holeMm: 7, lengthMm: 17, widthMm: 22, depthMm: 14 },
    { id: 'c3', ref: 'P3', at: { x: 98, y: 18 }, holeMm: 7, lengthMm: 17, widthMm: 22, depthMm: 14 },
  ],
  board: { id: 'b1', at: { x: 24, y: 40 }, quarters: 0 },
};
