import {
  DataTypes,
  Model,
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  type Sequelize,
} from 'sequelize';
import type { PhotoResource } from '@zemble/contract';

/** A picture of a board, as JPEG without metadata, and the points on it. */
export class PhotoModel extends Model<InferAttributes<PhotoModel>, InferCreationAttributes<PhotoModel>> {
  declare id: string;
  declare unitId: string;
  declare version: number;
  declare position: number;
  declare name: string;
  declare width: number;
  declare height: number;
  /** As it was read; shown turned by quarters clockwise. */
  declare picture: Buffer;
  declare turn: CreationOptional<number>;
  declare points: PhotoResource['points'];
  declare overlay: CreationOptional<PhotoResource['overlay']>;
  declare removedAt: Date | null;
}

export function definePhoto(sequelize: Sequelize): void {
  PhotoModel.init(
    {
      id: { type: DataTypes.UUID, primaryKey: true },
      unitId: DataTypes.UUID,
      version: DataTypes.INTEGER,
      position: DataTypes.INTEGER,
      name: DataTypes.TEXT,
      width: DataTypes.INTEGER,
      height: DataTypes.INTEGER,
      picture: DataTypes.BLOB,
      turn: { type: DataTypes.INTEGER, defaultValue: 0 },
      points: DataTypes.JSONB,
      overlay: { type: DataTypes.JSONB, defaultValue: {} },
      removedAt: DataTypes.DATE,
    },
    { sequelize, tableName: 'photos', underscored: true, timestamps: false },
  );
}
