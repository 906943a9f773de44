import {
  DataTypes,
  Model,
  type InferAttributes,
  type InferCreationAttributes,
  type Sequelize,
} from 'sequelize';
import type { EvidenceData } from '@zemble/contract';

/** One test of the search and what was seen. Never changed but for being withdrawn. */
export class EvidenceModel extends Model<
  InferAttributes<EvidenceModel>,
  InferCreationAttributes<EvidenceModel>
> {
  declare id: string;
  declare unitId: string;
  declare definition: EvidenceData;
  declare takenAt: Date;
  declare withdrawnAt: Date | null;
}

export function defineEvidence(sequelize: Sequelize): void {
  EvidenceModel.init(
    {
      id: { type: DataTypes.UUID, primaryKey: true },
      unitId: DataTypes.UUID,
      definition: DataTypes.JSONB,
      takenAt: DataTypes.DATE,
      withdrawnAt: DataTypes.DATE,
    },
    { sequelize, tableName: 'evidence', underscored: true, timestamps: false },
  );
}
