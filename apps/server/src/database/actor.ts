import type { Transaction } from 'sequelize';

const actors = new WeakMap<Transaction, string>();

/** Says by name who does what a transaction does, so that the log has it. */
export const actAs = (transaction: Transaction, name: string): void => void actors.set(transaction, name);

/** Who does what a transaction does; null where people have no names. */
export const actorOf = (transaction: Transaction): string | null => actors.get(transaction) ?? null;
