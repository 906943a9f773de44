import { randomUUID } from 'node:crypto';
import { rmSync } from 'node:fs';
import { Cluster, throwawayFolder } from './postgres.mjs';
import { choosePort, startServer } from './server.mjs';

const STAGES = 16;
const READINGS = 500;
/** A short run shows that the bench runs to its end, and no more. */
const IS_SHORT = process.argv.includes('--short');
const ENTRIES = IS_SHORT ? 2 : 9;
const SCROLL_STEP = 120;

/** A unit of many stages with many readings, as a unit file. */
function largeUnit() {
  const parts = [{ ref: 'V1', kind: 'supply', marked: 24, pins: { plus: 'vcc', minus: '0' } }];
  const part = (ref, kind, marked, a, b) => parts.push({ ref, kind, marked, pins: { a, b } });
  for (let s = 0; s < STAGES; s += 1) {
    const [i, b, c, e] = [s === 0 ? 'in' : `c${s - 1}`, `b${s}`, `c${s}`, `e${s}`];
    part(`C${s}1`, 'capacitor', '1u', i, b);
    part(`R${s}1`, 'resistor', '220k', 'vcc', b);
    part(`R${s}2`, 'resistor', '47k', b, '0');
    part(`R${s}3`, 'resistor', '4k7', 'vcc', c);
    part(`R${s}4`, 'resistor', '1k', e, '0');
    part(`C${s}2`, 'capacitor', '22u', e, '0');
    parts.push({ ref: `Q${s}`, kind: 'bjt', model: '2N3904', pins: { b, c, e } });
  }
  const measurable = parts.filter((p) => p.kind === 'resistor' || p.kind === 'capacitor');
  const suffix = { u: 1e-6, k: 1e3 };
  const valueOf = (text) => Number(text.replace(/[uk]/, '.')) * suffix[/[uk]/.exec(text)[0]];
  const readings = Array.from({ length: READINGS }, (_, i) => {
    const p = measurable[i % measurable.length];
    return {
      ref: p.ref,
      value: valueOf(p.marked) * (1 + 0.03 * Math.sin(i)),
      condition: i % 5 === 0 ? 'in circuit' : 'leg lifted',
      takenAt: new Date(Date.UTC(2026, 0, 1) + i * 1000).toISOString(),
    };
  });
  return {
    format: 'zemble/unit',
    version: 1,
    unit: { name: 'Many stages' },
    circuit: { ground: '0', parts },
    readouts: [{ id: 'c0', name: 'First collector', kind: 'voltage', net: 'c0' }],
    readings,
  };
}

const middle = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];

/**
 * Times the real page on a unit of 500 readings, on one of 200 parts, and the demo's disc preamp while a value is turned; and
 * how long a large file takes to open.
 *
 * @returns rows `{ what, ms, note }`
 */
export async function benchPage() {
  const folder = throwawayFolder();
  const cluster = await Cluster.open({ folder });
  const server = startServer({ databaseUrl: cluster.url, port: await choosePort(4990), demo: 'first' });
  try {
    return await timePage(await server.listening);
  } finally {
    await server.stop();
    await cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}

async function timePage(address) {
  const { chromium } = await import('@playwright/test');
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu'],
  });
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, baseURL: address });
    return [
      ...(await timeReadings(page)),
      ...(await timeSheet(page)),
      ...(await timeTurning(page)),
      ...(IS_SHORT ? [] : await timeLarge(page)),
    ];
  } finally {
    await browser.close();
  }
}

/** Opens a unit file through the API: its id, and how long that took. */
async function open(page, file) {
  const text = JSON.stringify(file);
  const start = performance.now();
  const answer = await page.request.post('/api/v1/units/import', {
    headers: { 'idempotency-key': randomUUID() },
    data: { text },
    timeout: 120_000,
  });
  const { unitId } = await answer.json();
  return { unitId, ms: performance.now() - start };
}

async function timeReadings(page) {
  const { unitId } = await open(page, largeUnit());
  await page.goto(`/units/${unitId}/measure`);
  const rows = [];
  for (const [condition, ref] of [
    ['leg lifted', 'R31'],
    ['in circuit', 'R53'],
  ]) {
    const times = [];
    for (let i = 0; i <= ENTRIES; i += 1) times.push(await timeEntry(page, ref, condition, i));
    rows.push({
      what: `page, ${READINGS} readings: Enter to verdict, ${condition}`,
      ms: middle(times.slice(1)),
    });
  }
  const frames = await scrollFrames(page);
  rows.push({
    what: `page, ${READINGS} readings: longest of ${frames.length} frames while the list scrolls`,
    ms: Math.max(...frames),
    note: `middle ${middle(frames).toFixed(1)} ms`,
  });
  return rows;
}

/** A ladder of sections, so that any number of parts has a circuit that can be solved. */
function ladderUnit(partCount, readingCount = 0, logCount = 0) {
  const parts = [{ ref: 'V1', kind: 'supply', marked: 9, pins: { plus: 'n0', minus: '0' } }];
  for (let i = 1; parts.length < partCount; i += 1) {
    parts.push({ ref: `R${i}`, kind: 'resistor', marked: 1000, pins: { a: `n${i - 1}`, b: `n${i}` } });
    if (parts.length < partCount)
      parts.push({ ref: `C${i}`, kind: 'capacitor', marked: 1e-8, pins: { a: `n${i}`, b: '0' } });
  }
  const at = (i) => new Date(Date.UTC(2026, 0, 1) + i * 1000).toISOString();
  return {
    format: 'zemble/unit',
    version: 1,
    unit: { name: `Ladder of ${partCount}` },
    circuit: { ground: '0', parts },
    readouts: [{ id: 'v', name: 'Second node', kind: 'voltage', net: 'n2' }],
    readings: Array.from({ length: readingCount }, (_, i) => {
      const part = parts[1 + (i % (parts.length - 1))];
      return {
        ref: part.ref,
        value: part.marked * (1 + 0.01 * Math.sin(i)),
        condition: 'leg lifted',
        takenAt: at(i),
      };
    }),
    log: Array.from({ length: logCount }, (_, i) => ({ at: at(i), kind: 'note', summary: `Note ${i}.` })),
  };
}

const KEYS = 'R900 4k7 in n2';

/** What a key costs in the sheet until the page is laid out again, and Enter until the row is there. */
async function timeSheet(page) {
  const { unitId } = await open(page, ladderUnit(200));
  await page.goto(`/units/${unitId}/trace`);
  await page.getByLabel('Type a part').waitFor();
  await page.evaluate(() => new Promise((resolve) => requestIdleCallback(resolve)));
  const keys = [];
  const enters = [];
  for (let round = 0; round < 5; round += 1) {
    const timed = await page.evaluate(
      async (line) => {
        const field = document.querySelector('.zb-entry input');
        const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set;
        const frame = () => new Promise((resolve) => requestAnimationFrame(() => setTimeout(resolve)));
        const costs = [];
        field.focus();
        for (let i = 1; i <= line.length; i += 1) {
          await frame();
          const start = performance.now();
          set.call(field, line.slice(0, i));
          field.dispatchEvent(new Event('input', { bubbles: true }));
          void document.body.offsetHeight;
          costs.push(performance.now() - start);
        }
        await frame();
        const ref = line.split(' ')[0];
        const list = document.querySelector('.zb-sheet');
        const start = performance.now();
        const shown = new Promise((resolve) => {
          const look = () => {
            if (!list.querySelector(`[aria-label="Change ${ref}"]`)) return;
            observer.disconnect();
            void document.body.offsetHeight;
            resolve(performance.now() - start);
          };
          const observer = new MutationObserver(look);
          observer.observe(list, { childList: true, subtree: true });
        });
        field.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true, cancelable: true }));
        return { costs, enter: await shown };
      },
      KEYS.replace('900', String(900 + round)),
    );
    keys.push(...timed.costs);
    enters.push(timed.enter);
    await page.locator('.saving-saving[data-state=saved]').waitFor();
  }
  return [
    {
      what: 'page, 200 parts: a key in the sheet',
      ms: middle(keys),
      note: `longest ${Math.max(...keys).toFixed(1)} ms`,
    },
    {
      what: 'page, 200 parts: Enter to the row',
      ms: middle(enters),
      note: `longest ${Math.max(...enters).toFixed(1)} ms`,
    },
  ];
}

const TURNS = IS_SHORT ? 8 : 60;

/** A value of the disc preamp turned click by click: until every readout, and until every curve, is the new one. */
async function timeTurning(page) {
  const { units } = await (await page.request.get('/api/v1/units')).json();
  const { id } = units.find((u) => u.name.startsWith('Lark'));
  await page.goto(`/units/${id}/rework`);
  await page.getByRole('button', { name: 'Readouts' }).waitFor();
  await page.locator('[data-curve]').first().waitFor();
  await page.getByRole('spinbutton', { name: 'Value of R109' }).focus();
  const timed = await page.evaluate(async (turns) => {
    const dial = document.activeElement;
    const table = document.querySelector('.readouts-dock-table tbody');
    const chart = document.querySelector('.zb-chart');
    const planned = () => [...table.querySelectorAll('tr td:nth-child(5)')].map((c) => c.textContent).join();
    const curve = () => [...chart.querySelectorAll('[data-curve]')].map((p) => p.getAttribute('d')).join();
    const until = (root, state, start) =>
      new Promise((resolve) => {
        const before = state();
        const observer = new MutationObserver(() => {
          if (state() === before) return;
          observer.disconnect();
          void document.body.offsetHeight;
          resolve(performance.now() - start);
        });
        observer.observe(root, { childList: true, subtree: true, characterData: true, attributes: true });
      });
    const readouts = [];
    const curves = [];
    for (let i = 0; i < turns; i += 1) {
      await new Promise((resolve) => setTimeout(resolve, 60));
      const start = performance.now();
      const both = [until(table, planned, start), until(chart, curve, start)];
      const key = Math.floor(i / 8) % 2 === 0 ? 'ArrowUp' : 'ArrowDown';
      dial.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
      const [readout, line] = await Promise.all(both);
      readouts.push(readout);
      curves.push(line);
    }
    return { readouts: readouts.slice(5), curves: curves.slice(5) };
  }, TURNS);
  const row = (what, times) => {
    const sorted = [...times].sort((a, b) => a - b);
    const p95 = sorted[Math.floor(0.95 * sorted.length)];
    return { what, ms: middle(times), note: `95th percentile ${p95.toFixed(1)} ms` };
  };
  return [
    row('page, disc preamp: a value turned, to every readout', timed.readouts),
    row('page, disc preamp: a value turned, to every curve', timed.curves),
  ];
}

/** Files at ten times the usual size, and a unit of 2,000 parts in the page: how long it does not answer at most. */
async function timeLarge(page) {
  const rows = [];
  const usual = await open(page, ladderUnit(200, 2000, 2000));
  rows.push({ what: 'server, a file of 200 parts, 2,000 readings, 2,000 log lines opened', ms: usual.ms });
  const large = await open(page, ladderUnit(200, 20_000, 2000));
  rows.push({ what: 'server, a file of 200 parts, 20,000 readings opened', ms: large.ms });
  const { unitId } = await open(page, ladderUnit(2000));
  await page.addInitScript(() => {
    window.longest = 0;
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries()) window.longest = Math.max(window.longest, entry.duration);
    }).observe({ type: 'longtask', buffered: true });
  });
  for (const [stage, ready] of [
    ['trace', () => page.getByLabel('Type a part')],
    ['measure', () => page.getByRole('textbox', { name: /^Reading of/ })],
  ]) {
    const start = performance.now();
    await page.goto(`/units/${unitId}/${stage}`);
    await ready().waitFor();
    const ms = performance.now() - start;
    await page.locator('[aria-label^="Circuit of"]').waitFor({ timeout: 120_000 });
    const drawn = performance.now() - start;
    await page.evaluate(() => new Promise((resolve) => requestIdleCallback(resolve)));
    const longest = await page.evaluate(() => window.longest);
    rows.push({
      what: `page, 2,000 parts: ${stage} opened`,
      ms,
      note: `drawn after ${drawn.toFixed(0)} ms, longest without an answer ${longest.toFixed(0)} ms`,
    });
  }
  return rows;
}

/** Milliseconds from Enter to the verdict that takes the circuit into account. */
async function timeEntry(page, ref, condition, i) {
  const field = page.getByRole('textbox', { name: /^Reading of/ });
  await field.waitFor();
  const base = ref === 'R31' ? 220e3 : 4.7e3;
  const value = Math.round(base * (1.06 + 0.01 * i));
  await field.fill(`${ref} ${value} ${condition === 'in circuit' ? 'in circuit' : 'lifted'}`);
  const wanted = condition === 'in circuit' ? 'the part itself' : `reads ${6 + i} %`;
  // A hand takes longer than this: what the entry before set off is done.
  await page.locator('.saving-saving[data-state=saved]').waitFor();
  await page.evaluate(() => new Promise((resolve) => requestIdleCallback(resolve)));
  return page.evaluate(
    ({ words, head }) =>
      new Promise((resolve) => {
        const list = document.querySelector('.zb-sheet');
        const before = list.querySelector('.measure-last-verdict')?.textContent;
        const start = performance.now();
        const look = () => {
          const text = list.querySelector('.measure-last-verdict')?.textContent ?? '';
          if (text === before || !text.startsWith(head)) return;
          if (!text.includes(words) && !text.includes('within')) return;
          observer.disconnect();
          requestAnimationFrame(() => resolve(performance.now() - start));
        };
        const observer = new MutationObserver(look);
        observer.observe(list, { childList: true, subtree: true, characterData: true });
        document.activeElement.dispatchEvent(
          new KeyboardEvent('keydown', { key: 'Enter', bubbles: true, cancelable: true }),
        );
      }),
    { words: wanted, head: ref },
  );
}

/** Times between frames while the list of readings is scrolled from end to end. */
async function scrollFrames(page) {
  return page.evaluate(
    (step) =>
      new Promise((resolve) => {
        const list = document.querySelector('.zb-sheet .zb-scroll');
        const frames = [];
        let last = performance.now();
        const tick = (now) => {
          frames.push(now - last);
          last = now;
          const top = list.scrollTop;
          list.scrollTop += step;
          if (list.scrollTop === top) resolve(frames.slice(1));
          else requestAnimationFrame(tick);
        };
        // What the last entry set off is done first.
        requestIdleCallback(() => {
          last = performance.now();
          requestAnimationFrame(tick);
        });
      }),
    SCROLL_STEP,
  );
}
