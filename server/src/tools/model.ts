import {
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  type Model,
  type ModelStatic,
  type Sequelize,
} from 'sequelize';
import type { Holder, KeptCertificate, Missing, Recall } from '@lanternwright/core/record';
import type { Tool } from '@lanternwright/core/tool';

export interface ToolRow extends Model<InferAttributes<ToolRow>, InferCreationAttributes<ToolRow>> {
  id: string;
  code: string;
  tool: Tool;
  changedAt: Date;
  changedBy: string;
  retiredAt: Date | null;
  version: number;
  holder: Holder | null;
  recalls: readonly Recall[];
  missing: Missing | null;
  certificates: readonly KeptCertificate[];
}

export function defineTool(sequelize: Sequelize): ModelStatic<ToolRow> {
  return sequelize.define<ToolRow>('tool', {
    id: { type: DataTypes.UUID, primaryKey: true },
    code: DataTypes.TEXT,
    tool: DataTypes.JSONB,
    changedAt: DataTypes.DATE,
    changedBy: DataTypes.TEXT,
    retiredAt: DataTypes.DATE,
    version: DataTypes.INTEGER,
    holder: DataTypes.JSONB,
    recalls: DataTypes.JSONB,
    missing: DataTypes.JSONB,
    certificates: DataTypes.JSONB,
  });
}
