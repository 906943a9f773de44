import { once } from 'node:events';
import { Worker } from 'node:worker_threads';
import { Matrix, solve as solveDense } from 'ml-matrix';
import {
  AnalysisSession,
  benchSteps,
  checkBoard,
  evaluateReadout,
  faultDictionary,
  formNets,
  layoutCircuit,
  nextBeep,
  naturalFrequencies,
  noiseAt,
  posteriorOf,
  preparePath,
  proposeBoard,
  readEvidence,
  resolveLayer,
  solve,
  transient,
  voltageQuantities,
  type Circuit,
  type Readout,
  type SmallSignal,
} from '../src/index.ts';
import { DEMO_UNITS } from '../../demo/src/index.ts';
import { circuitOf, randomCircuit } from '../src/testing/circuits.ts';
import { untraced } from '../src/testing/beeping.ts';
import { reliabilityOf } from './reliability.ts';

/** Median time of a call in microseconds over several runs after a warm-up, each run long enough to be told. */
function medianUs(work: () => void, runs = 7): number {
  const timed = () => {
    let count = 1;
    for (;;) {
      const start = performance.now();
      for (let i = 0; i < count; i += 1) work();
      const took = performance.now() - start;
      if (took > 30) return (took * 1000) / count;
      count *= 2;
    }
  };
  timed();
  const times = Array.from({ length: runs }, timed).sort((a, b) => a - b);
  return times[Math.floor(runs / 2)]!;
}

interface Row {
  readonly what: string;
  readonly us: number;
  readonly note?: string;
}

const rows: Row[] = [];
const add = (what: string, us: number, note = '') => rows.push({ what, us, note });

const table = Float64Array.from({ length: 64 }, (_, i) => -i / 8);
const exponentials = new Float64Array(table.length);
add(
  'this machine: one exponential, to compare machines by',
  medianUs(() => {
    for (let i = 0; i < table.length; i += 1) exponentials[i] = Math.exp(table[i]!);
  }) / table.length,
);

const ladder = (nodes: number): Circuit =>
  circuitOf(
    [
      'G1 1V n0 0',
      ...Array.from({ length: nodes }, (_, i) => `R${i + 1} 1k n${i} n${i + 1}\nC${i + 1} 10n n${i + 1} 0`),
    ].join('\n'),
  );

/** One frequency of a complex system as a dense real one of twice the size, by a general library. */
function denseSolve(signal: SmallSignal, omega: number): () => void {
  const n = signal.system.size;
  const real = Matrix.zeros(2 * n, 2 * n);
  const { rows: r, columns: c } = signal.system.pattern;
  for (let s = 1; s < r.length; s += 1) {
    const [i, j] = [r[s]! - 1, c[s]! - 1];
    real.set(i, j, signal.g[s]!);
    real.set(i + n, j + n, signal.g[s]!);
    real.set(i, j + n, -omega * signal.c[s]!);
    real.set(i + n, j, omega * signal.c[s]!);
  }
  const b = Matrix.zeros(2 * n, 1);
  b.set(n - 1, 0, 1);
  return () => void solveDense(real, b);
}

const sessionOf = (circuit: Circuit) => new AnalysisSession(resolveLayer(circuit, 'marked'));

for (const nodes of [10, 20, 40, 80]) {
  const model = sessionOf(ladder(nodes));
  const signal = model.smallSignal;
  let f = 100;
  const us = medianUs(() => {
    f = f > 1e4 ? 100 : f * 1.01;
    signal.at(f).drive('G1');
  });
  const dense = medianUs(denseSolve(signal, 2 * Math.PI * 1000), 3);
  add(
    `AC, one frequency, ladder of ${nodes} nodes`,
    us,
    `general library ${dense.toFixed(0)} µs, ${(dense / us).toFixed(0)} times`,
  );
}

const active = randomCircuit(7, 6);
const activeModel = sessionOf(active);
let frequency = 100;
add(
  `AC, one frequency, active circuit of ${active.parts.length} parts`,
  medianUs(() => {
    frequency = frequency > 1e4 ? 100 : frequency * 1.01;
    activeModel.smallSignal.at(frequency).drive('G1');
  }),
);
add(
  `operating point from zero, ${active.parts.length} parts`,
  medianUs(() => void sessionOf(active).tryOperatingPoint()),
);
for (const { document } of DEMO_UNITS) {
  add(
    `operating point from zero, ${document.unit.name ?? ''}`,
    medianUs(() => void sessionOf(document.circuit).tryOperatingPoint()),
  );
}
for (const stages of [7, 9, 45]) {
  const circuit = randomCircuit(5, stages);
  add(
    `layout of ${circuit.parts.length} parts`,
    medianUs(() => void layoutCircuit(circuit), 5),
  );
  const board = untraced(circuit);
  add(
    `nets and next beep of ${circuit.parts.length} parts`,
    medianUs(() => void nextBeep(board, formNets(board)), 5),
  );
}
const gain: Readout = { id: 'g', name: 'g', kind: 'gain', from: 'in', to: 'out', frequencyHz: 1000 };
const resistor = active.parts.find((p) => p.kind === 'resistor')!;
let value = 1000;
add(
  'one readout after turning a value',
  medianUs(() => {
    value = value > 1e5 ? 1000 : value * 1.1;
    evaluateReadout(activeModel.with({ values: new Map([[resistor.ref, value]]) }), gain);
  }),
);
add(
  'value search over two parts',
  medianUs(
    () =>
      void solve({
        circuit: active,
        readouts: [gain],
        layer: 'planned',
        goals: [{ readoutId: 'g', want: { min: -200, max: 200 } }],
        may: active.parts
          .filter((p) => p.kind === 'resistor')
          .slice(0, 2)
          .map((p) => p.ref),
        series: 'E24',
        withPairs: true,
        most: 10,
      }),
    3,
  ),
);

const STAGE = circuitOf(`
  V1 9V vcc 0
  G1 10mV 1kHz in 0
  C1 1u in b
  R1 470k vcc b
  R2 68k b 0
  Q1 2N3904 c b e
  R3 10k vcc c
  R4 820 e 0
  Q2 2N3904 vcc c e2
  R5 4k7 e2 0
  C2 10u e2 out
  R6 47k out 0`);
const CLIPPER = circuitOf(`
  V1 9V vp 0
  V2 9V 0 vm
  G1 100mV 1kHz in 0
  R1 4k7 m 0
  U1 TL072 plus=in minus=m out=out vplus=vp vminus=vm
  R2 100k m out
  C1 100p m out
  D1 1N4148 m out
  D2 1N4148 out m`);
const RUN_S = 0.05;
for (const [name, circuit] of [
  ['two-transistor stage', STAGE],
  ['opamp clipper', CLIPPER],
] as const) {
  const model = sessionOf(circuit);
  for (const [how, options] of [
    ['steps by error', {}],
    ['every 1/48000 s', { stepS: 1 / 48_000 }],
    ['every 1/48000 s, local error 2e-4', { stepS: 1 / 48_000, relativeError: 2e-4 }],
  ] as const) {
    const us = medianUs(() => {
      transient(model, { stopS: RUN_S, ...options, onPoint: () => undefined });
    }, 3);
    add(
      `transient of ${name}, ${how}, 50 ms of 1 kHz`,
      us,
      `${((RUN_S * 1e6) / us).toFixed(2)} times real time`,
    );
  }
}

const spreadCircuit = randomCircuit(11, 3);
const three: Readout[] = [
  gain,
  { ...gain, id: 'g2', frequencyHz: 100 },
  { id: 'v', name: 'v', kind: 'voltage', net: 'c0' },
];
const RUNS = 10_000;
for (const count of [1, 2]) {
  const workers = await Promise.all(
    Array.from({ length: count }, async (_, seed) => {
      const worker = new Worker(new URL('./spread-worker.mjs', import.meta.url), {
        workerData: { circuit: spreadCircuit, readouts: three, seed },
      });
      await once(worker, 'message');
      return worker;
    }),
  );
  const times: number[] = [];
  for (let turn = 0; turn < 3; turn += 1) {
    const start = performance.now();
    await Promise.all(
      workers.map((worker) => {
        worker.postMessage(RUNS / count);
        return once(worker, 'message');
      }),
    );
    times.push((performance.now() - start) * 1000);
  }
  await Promise.all(workers.map((w) => w.terminate()));
  add(
    `Monte Carlo, 10,000 runs of three readouts, ${spreadCircuit.parts.length} parts, ${count === 1 ? 'one worker' : 'two workers'}`,
    times.sort((x, y) => x - y)[1]!,
  );
}
add(
  'natural frequencies, active circuit',
  medianUs(() => void naturalFrequencies(activeModel)),
);
add(
  'noise, 20 Hz to 20 kHz, active circuit',
  medianUs(() => void noiseAt(activeModel, { out: 'out' }), 3),
);

const manyBlocks = Array.from({ length: 200 }, (_, i) => ({ id: `b${i}`, kind: 'stage' }));
const manyLinks = manyBlocks.slice(1).map((b, i) => ({ from: `b${i}`, to: b.id, carries: 'audio' as const }));
const feeds = manyBlocks
  .filter((_, i) => i % 10 === 5)
  .map((b) => ({ from: 'b0', to: b.id, carries: 'supply' as const }));
const large = preparePath({ blocks: manyBlocks, links: [...manyLinks, ...feeds] });
const sixty = Array.from({ length: 60 }, (_, i) => ({
  at: `b${3 * i}`,
  saw: i < 31 ? ('good' as const) : ('none' as const),
}));
const { observations } = readEvidence(large, sixty);
add(
  'posterior of 200 blocks, all pairs, 60 observations',
  medianUs(() => void posteriorOf(large, observations), 5),
);
add(
  'posterior of 200 blocks, all pairs, nothing observed',
  medianUs(() => void posteriorOf(large, []), 5),
);
const larkUnit = DEMO_UNITS.find((u) => u.document.circuit.parts.length >= 37)!.document.circuit;
const dictionaryUs = medianUs(
  () => void faultDictionary(resolveLayer(larkUnit, 'found'), voltageQuantities(larkUnit)),
  3,
);
add(`fault dictionary of ${larkUnit.parts.length} parts, voltages at every net, one worker`, dictionaryUs);

const drover = DEMO_UNITS.find((u) => u.document.boards !== undefined)!.document;
const planned = resolveLayer(drover.circuit, 'planned');
const [laid] = drover.boards!;
add(
  `check of a board with ${laid!.places.length} parts, as at every move`,
  medianUs(() => void checkBoard(planned, laid!, drover.wires)),
);
for (const parts of [8, 12, 20]) {
  const circuit = resolveLayer(randomCircuit(parts, Math.ceil(parts / 4)), 'planned');
  const few = { ...circuit, parts: circuit.parts.slice(0, parts) };
  add(
    `board proposed for ${few.parts.length} parts, strips`,
    medianUs(() => void proposeBoard(few, [], { style: 'strip', columns: 30, rows: 20, seed: 1 }), 3),
  );
}
add(
  `bench steps of a whole unit of ${drover.circuit.parts.length} parts`,
  medianUs(() => void benchSteps(drover, { isWhole: true }), 3),
);

const width = Math.max(...rows.map((r) => r.what.length));
for (const { what, us, note } of rows) {
  const time =
    us < 1
      ? `${(us * 1000).toFixed(1)} ns`
      : us < 1000
        ? `${us.toFixed(1)} µs`
        : `${(us / 1000).toFixed(2)} ms`;
  process.stdout.write(`${what.padEnd(width)}  ${time.padStart(10)}  ${note}\n`);
}
for (const line of reliabilityOf(
  DEMO_UNITS.map((u) => u.document.circuit),
  1,
))
  process.stdout.write(`${line}\n`);
process.stdout.write(`memory in use ${(process.memoryUsage().heapUsed / 1e6).toFixed(0)} MB\n`);
