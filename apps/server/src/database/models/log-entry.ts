import type { Effect, Inverse } from '@zemble/contract';
import {
  DataTypes,
  Model,
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  type Sequelize,
} from 'sequelize';

export class LogEntryModel extends Model<
  InferAttributes<LogEntryModel>,
  InferCreationAttributes<LogEntryModel>
> {
  declare id: string;
  declare unitId: string;
  declare sequence: number;
  declare at: Date;
  declare kind: string;
  declare summary: string;
  declare inverse: Inverse[];
  declare undoneAt: Date | null;
  /** What the step did to the record; null when it is no longer kept. */
  declare effects: CreationOptional<Effect[] | null>;
  /** Key of the write that made it. */
  declare key: CreationOptional<string | null>;
  /** Who did it, by name. */
  declare by: CreationOptional<string | null>;
}

export function defineLogEntry(sequelize: Sequelize): void {
  LogEntryModel.init(
    {
      id: { type: DataTypes.UUID, primaryKey: true },
      unitId: DataTypes.UUID,
      sequence: DataTypes.INTEGER,
      at: DataTypes.DATE,
      kind: DataTypes.TEXT,
      summary: DataTypes.TEXT,
      inverse: DataTypes.JSONB,
      undoneAt: DataTypes.DATE,
      effects: DataTypes.JSONB,
      key: DataTypes.TEXT,
      by: DataTypes.TEXT,
    },
    { sequelize, tableName: 'log_entries', underscored: true, timestamps: false },
  );
}
