import type { MainsHz, Workshop } from '@zemble/contract';
import type { Transaction } from 'sequelize';
import { WorkshopModel } from '../../database/models/index.ts';

/** What holds for the whole workshop, as far as somebody has said it. */
export async function workshop(transaction?: Transaction): Promise<Workshop> {
  const row = await WorkshopModel.findByPk(1, { transaction });
  return { mainsHz: row?.mainsHz ?? null };
}

/** Keeps the frequency of the mains, Hz. */
export async function keepMains(mainsHz: MainsHz, transaction: Transaction): Promise<void> {
  await WorkshopModel.upsert({ id: 1, mainsHz }, { transaction });
}
