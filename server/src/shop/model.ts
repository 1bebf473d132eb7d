import {
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  type Model,
  type ModelStatic,
  type Sequelize,
} from 'sequelize';

export interface SettingRow extends Model<InferAttributes<SettingRow>, InferCreationAttributes<SettingRow>> {
  name: string;
  value: unknown;
}

/** Facts about this installation: `demo` is true once the demo data were loaded, `shop` what is set for the shop, `morning` who gets its summary. */
export function defineSetting(sequelize: Sequelize): ModelStatic<SettingRow> {
  return sequelize.define<SettingRow>('setting', {
    name: { type: DataTypes.TEXT, primaryKey: true },
    value: DataTypes.JSONB,
  });
}
