import type { StockItem } from '@zemble/contract';
import {
  DataTypes,
  Model,
  type InferAttributes,
  type InferCreationAttributes,
  type Sequelize,
} from 'sequelize';

/** What there is of one sort of part in one place of the workshop. */
export class StockModel extends Model<InferAttributes<StockModel>, InferCreationAttributes<StockModel>> {
  declare id: string;
  declare version: number;
  declare count: number;
  /** The item without its count. */
  declare item: Omit<StockItem, 'count'>;
}

/** A part that a change took from the drawer, or that it brought out and somebody put away. */
export class StockMoveModel extends Model<
  InferAttributes<StockMoveModel>,
  InferCreationAttributes<StockMoveModel>
> {
  declare id: string;
  declare unitId: string;
  /** The change by its id in the unit. */
  declare changeId: string;
  declare ref: string;
  declare direction: 'in' | 'out';
  /** Null where a part that came out was thrown away. */
  declare stockId: string | null;
}

export function defineStock(sequelize: Sequelize): void {
  const options = { sequelize, underscored: true, timestamps: false };
  StockModel.init(
    {
      id: { type: DataTypes.UUID, primaryKey: true },
      version: DataTypes.INTEGER,
      count: DataTypes.INTEGER,
      item: DataTypes.JSONB,
    },
    { ...options, tableName: 'stock' },
  );
  StockMoveModel.init(
    {
      id: { type: DataTypes.UUID, primaryKey: true },
      unitId: DataTypes.UUID,
      changeId: DataTypes.TEXT,
      ref: DataTypes.TEXT,
      direction: DataTypes.TEXT,
      stockId: DataTypes.UUID,
    },
    { ...options, tableName: 'stock_moves' },
  );
}
