import { Transaction, type Sequelize } from 'sequelize';

/** Reads everything as it is at one moment, whatever is written meanwhile. */
export const inSnapshot = <T>(
  database: Sequelize,
  read: (transaction: Transaction) => Promise<T>,
): Promise<T> => database.transaction({ isolationLevel: Transaction.ISOLATION_LEVELS.REPEATABLE_READ }, read);
