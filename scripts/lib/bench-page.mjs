import { randomUUID } from 'node:crypto';
import { rmSync } from 'node:fs';
import { Cluster, throwawayFolder } from './postgres.mjs';
import { choosePort, startServer } from './server.mjs';

const STAGES = 16;
const READINGS = 500;
const ENTRIES = 9;
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
    format: 'halfsplit/unit',
    version: 1,
    unit: { name: 'Many stages' },
    circuit: { ground: '0', parts },
    readouts: [{ id: 'c0', name: 'First collector', kind: 'voltage', net: 'c0' }],
    readings,
  };
}

const middle = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];

/**
 * Times the real page on a unit of 500 readings: from Enter to the verdict on the screen, and the frames while the list of
 * readings scrolls.
 *
 * @returns rows `{ what, ms, note }`
 */
export async function benchPage() {
  const folder = throwawayFolder();
  const cluster = await Cluster.open({ folder });
  const server = startServer({ databaseUrl: cluster.url, port: await choosePort(4990), demo: 'none' });
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
    const answer = await page.request.post('/api/v1/units/import', {
      headers: { 'idempotency-key': randomUUID() },
      data: { text: JSON.stringify(largeUnit()) },
    });
    const { id } = await answer.json();
    await page.goto(`/units/${id}/measure`);
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
  } finally {
    await browser.close();
  }
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
        const list = document.querySelector('.hs-sheet');
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
        const list = document.querySelector('.hs-sheet .hs-scroll');
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
