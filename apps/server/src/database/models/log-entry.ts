import {
  DataTypes,
  Model,
  type InferAttributes,
  type InferCreationAttributes,
  type Sequelize,
} from 'sequelize';

/** What has to be done to take a step back. */
export type Inverse =
  | { readonly op: 'set-part'; readonly id: string; readonly values: Record<string, unknown> }
  | { readonly op: 'set-part-removed'; readonly id: string; readonly removed: boolean }
  | { readonly op: 'withdraw-reading'; readonly id: string }
  | { readonly op: 'set-reading'; readonly id: string; readonly values: Record<string, unknown> }
  | { readonly op: 'set-readout'; readonly id: string; readonly values: Record<string, unknown> }
  | { readonly op: 'set-readout-removed'; readonly id: string; readonly removed: boolean }
  | { readonly op: 'withdraw-evidence'; readonly id: string; readonly withdrawn: boolean }
  | { readonly op: 'set-photo'; readonly id: string; readonly values: Record<string, unknown> }
  | { readonly op: 'set-photo-removed'; readonly id: string; readonly removed: boolean }
  | { readonly op: 'set-unit'; readonly values: Record<string, unknown> };

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
    },
    { sequelize, tableName: 'log_entries', underscored: true, timestamps: false },
  );
}
