import {
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  type Model,
  type ModelStatic,
  type Sequelize,
} from 'sequelize';
import type { Sheet } from '@lanternwright/core/procedure';

export interface SheetRevisionRow extends Model<
  InferAttributes<SheetRevisionRow>,
  InferCreationAttributes<SheetRevisionRow>
> {
  sheetId: string;
  revision: number;
  sheet: Sheet;
  at: Date;
  by: string;
  note: string;
}

export function defineSheetRevision(sequelize: Sequelize): ModelStatic<SheetRevisionRow> {
  return sequelize.define<SheetRevisionRow>('sheet_revision', {
    sheetId: { type: DataTypes.TEXT, primaryKey: true },
    revision: { type: DataTypes.INTEGER, primaryKey: true },
    sheet: DataTypes.JSONB,
    at: DataTypes.DATE,
    by: DataTypes.TEXT,
    note: DataTypes.TEXT,
  });
}
