import {
  MOST_STOCK,
  type FileChange,
  type Needed,
  type NeedsResource,
  type StockItem,
  type StockRow,
} from '@zemble/contract';
import {
  isSameSort,
  needsOf,
  partsPutIn,
  pickFor,
  readChanges,
  stockText,
  takenOut,
  type Circuit,
  type Need,
} from '@zemble/core';
import type { Sequelize, Transaction } from 'sequelize';
import type { StockModel, UnitModel } from '../../database/models/index.ts';
import { insertKeys } from '../../database/keys.ts';
import { inSnapshot } from '../../database/snapshot.ts';
import { invalid, notFound, stale } from '../../errors.ts';
import { changedCircuits, circuitOf } from '../changes/circuit.ts';
import {
  allMovesOut,
  countStock,
  deleteStock,
  findStock,
  forgetMoves,
  heldStock,
  insertStock,
  movesOf,
  noteMove,
  stockToTake,
  unitsOnBench,
  writeStock,
} from './repository.ts';

const itemOf = ({ item, count }: StockModel): StockItem => ({ ...item, count });

export const stockRow = (row: StockModel): StockRow => ({
  ...itemOf(row),
  id: row.id,
  version: row.version,
});

/**
 * Puts items into the drawer: what is there already in the same place is counted up, all else becomes an item of its own.
 * Throws 422 for more than a drawer has room for.
 */
export async function addToDrawer(
  items: readonly (StockItem & { readonly id: string })[],
  transaction: Transaction,
): Promise<void> {
  // What is sent again after an answer that was lost was put in already, into whatever row it was counted.
  const keys = await insertKeys(
    items.map((item) => `stock ${item.id}`),
    transaction,
  );
  const rows = await heldStock(transaction);
  const fresh: (StockItem & { readonly id: string })[] = [];
  for (const item of items) {
    if (!keys.has(`stock ${item.id}`)) continue;
    const same = rows.find((row) => isSameSort(itemOf(row), item));
    if (same) await writeStock(same, { count: same.count + item.count }, transaction);
    else fresh.push(item);
  }
  if ((await countStock(transaction)) + fresh.length > MOST_STOCK)
    throw invalid(`A drawer has room for ${MOST_STOCK} sorts of parts.`, 'Take some out first.');
  await insertStock(fresh, transaction);
}

/** Changes an item. Throws 404, and 409 with what is there where it was changed since; the same change again is none. */
export async function changeItem(
  id: string,
  version: number,
  { count, ...item }: StockItem,
  transaction: Transaction,
): Promise<void> {
  const row = await findStock(id, transaction);
  if (!row) throw notFound('item of the drawer', id);
  const wanted = { ...item, count };
  if (row.version !== version && !isSame(itemOf(row), wanted)) throw stale(nameOf(row), stockRow(row));
  if (row.version === version) await writeStock(row, { item, count }, transaction);
}

const isSame = (a: StockItem, b: StockItem): boolean => a.count === b.count && isSameSort(a, b);

/** Takes an item out of the drawer. Throws 409 where it was changed since; what is gone already is gone. */
export async function removeItem(id: string, version: number, transaction: Transaction): Promise<void> {
  const row = await findStock(id, transaction);
  if (!row) return;
  if (row.version !== version) throw stale(nameOf(row), stockRow(row));
  await deleteStock(row, transaction);
}

const nameOf = ({ item }: StockModel): string =>
  `${stockText(item)}${item.place === '' ? '' : ` in ${item.place}`}`;

/** What the units on the bench need, and what came out of them. */
export const needsOfBench = (database: Sequelize): Promise<NeedsResource> =>
  inSnapshot(database, async (transaction) => {
    const [needs, out]: [Needed[], Needed[]] = [[], []];
    const moved = new Set((await allMovesOut(transaction)).map((m) => `${m.unitId} ${m.changeId} ${m.ref}`));
    const units = await unitsOnBench(transaction);
    const circuits = await changedCircuits(units, transaction);
    for (const unit of units) {
      const circuit = circuits.get(unit.id);
      if (!circuit) continue;
      needs.push(...needsOf(circuit).map((need) => neededBy(unit, circuit, need)));
      out.push(
        ...takenOut(circuit)
          .filter(({ changeId, ref }) => !moved.has(`${unit.id} ${changeId} ${ref}`))
          .map((need) => neededBy(unit, circuit, need)),
      );
    }
    return { needs, out };
  });

function neededBy(unit: UnitModel, circuit: Circuit, { wanted, ref, changeId }: Need): Needed {
  const change = circuit.changes?.find((c) => c.id === changeId);
  return { unitId: unit.id, unitName: unit.name, changeId, changeName: change?.name ?? '', ref, ...wanted };
}

/** Keeps a part that came out of a unit, or says that it was thrown away. The same said twice is said once. */
export async function putOut(
  { id: unitId }: UnitModel,
  out: {
    readonly changeId: string;
    readonly ref: string;
    readonly item: (StockItem & { id: string }) | null;
  },
  transaction: Transaction,
): Promise<void> {
  const { changeId, ref, item } = out;
  const moves = await movesOf(unitId, changeId, transaction);
  if (moves.some((m) => m.direction === 'out' && m.ref === ref)) return;
  let stockId: string | null = null;
  if (item) {
    await addToDrawer([item], transaction);
    stockId = (await heldStock(transaction)).find((row) => isSameSort(itemOf(row), item))?.id ?? null;
  }
  await noteMove({ unitId, changeId, ref, direction: 'out', stockId }, transaction);
}

/** Whether a step of a change is carried out: ticked, or all of the change is done. */
const isCarriedOut = (change: FileChange | null, index: number): boolean =>
  change?.state === 'done' || (change?.state === 'planned' && change.steps[index]?.done !== undefined);

/** Designators of the parts that steps of a change have put in, those that are carried out. */
const putIn = (change: FileChange | null): ReadonlySet<string> =>
  new Set(
    (change?.steps ?? []).flatMap((step, i) => {
      const ref = step.do === 'add' ? step.part.ref : step.do === 'fit' ? step.ref : undefined;
      return ref !== undefined && isCarriedOut(change, i) ? [ref] : [];
    }),
  );

/**
 * What a change does to the drawer as its steps are carried out or taken back: the parts they put in are counted down, and up
 * again; a part that came out and was kept goes back into the unit. Says where the parts lie, for the log.
 */
export async function moveStock(
  unit: UnitModel,
  before: FileChange | null,
  after: FileChange | null,
  transaction: Transaction,
): Promise<string> {
  const [was, is] = [putIn(before), putIn(after)];
  const isBack = before?.state === 'done' && after?.state !== 'done';
  const back =
    isBack || [...was].some((ref) => !is.has(ref))
      ? await giveBack(unit, before!.id, (ref, way) => (way === 'in' ? !is.has(ref) : isBack), transaction)
      : '';
  const fresh = [...is].filter((ref) => !was.has(ref));
  return `${back}${fresh.length === 0 ? '' : await takeFor(unit, after!, new Set(fresh), transaction)}`;
}

/** Takes the parts of some steps of a change out of the drawer. */
async function takeFor(
  unit: UnitModel,
  change: FileChange,
  refs: ReadonlySet<string>,
  transaction: Transaction,
): Promise<string> {
  const circuit = await circuitOf(unit, transaction);
  const [read] = readChanges([{ ...change, state: 'done' }], circuit.parts, []);
  const added = (circuit.changes ?? []).flatMap((c) =>
    c.steps.flatMap((s) => (s.do === 'add' ? [s.part] : [])),
  );
  const parts = new Map([...circuit.parts, ...added].map((p) => [p.ref, p]));
  const needs = read ? partsPutIn(read, (ref) => parts.get(ref)).filter(({ ref }) => refs.has(ref)) : [];
  if (needs.length === 0) return '';
  const rows = await stockToTake(transaction);
  const taken: string[] = [];
  for (const { wanted, ref } of needs) {
    const items = new Map(rows.filter((row) => row.count > 0).map((row) => [itemOf(row), row]));
    const picked = pickFor([...items.keys()], wanted)?.of.map((item) => items.get(item)!) ?? [];
    for (const row of picked) {
      await writeStock(row, { count: row.count - 1 }, transaction);
      await noteMove(
        { unitId: unit.id, changeId: change.id, ref, direction: 'in', stockId: row.id },
        transaction,
      );
    }
    if (picked.length > 0) taken.push(`${ref} ${picked.map(nameOf).join(' with ')}`);
  }
  return taken.length === 0 ? '' : ` From the drawer: ${taken.join(', ')}.`;
}

async function giveBack(
  unit: UnitModel,
  changeId: string,
  isMeant: (ref: string, direction: 'in' | 'out') => boolean,
  transaction: Transaction,
): Promise<string> {
  const moves = (await movesOf(unit.id, changeId, transaction)).filter((m) => isMeant(m.ref, m.direction));
  const back: string[] = [];
  // Held in one order by everybody: two units that give back and take at once wait for one another, and neither for ever.
  const held = new Map((moves.length === 0 ? [] : await heldStock(transaction)).map((row) => [row.id, row]));
  for (const { stockId, direction, ref } of moves) {
    const row = stockId === null ? undefined : held.get(stockId);
    if (!row) continue;
    const count = Math.max(0, row.count + (direction === 'in' ? 1 : -1));
    await writeStock(row, { count }, transaction);
    if (direction === 'in') back.push(`${ref} ${nameOf(row)}`);
  }
  await forgetMoves(moves, transaction);
  return back.length === 0 ? '' : ` Back in the drawer: ${back.join(', ')}.`;
}
