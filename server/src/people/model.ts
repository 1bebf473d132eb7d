import {
  DataTypes,
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  type Model,
  type ModelStatic,
  type Sequelize,
} from 'sequelize';
import type { Role } from '@lanternwright/contract/route';

export interface PersonRow extends Model<InferAttributes<PersonRow>, InferCreationAttributes<PersonRow>> {
  id: string;
  name: string;
  login: string;
  role: Role;
  passwordHash: string;
  /** Made up with the demo shop: signed in as without a password, while the shop is a demo. */
  demo: CreationOptional<boolean>;
  createdAt: CreationOptional<Date>;
}

export function definePerson(sequelize: Sequelize): ModelStatic<PersonRow> {
  return sequelize.define<PersonRow>('person', {
    id: { type: DataTypes.UUID, primaryKey: true },
    name: DataTypes.TEXT,
    login: DataTypes.TEXT,
    role: DataTypes.TEXT,
    passwordHash: DataTypes.TEXT,
    demo: { type: DataTypes.BOOLEAN, defaultValue: false },
    createdAt: { type: DataTypes.DATE, defaultValue: DataTypes.NOW },
  });
}

export interface SettingRow extends Model<InferAttributes<SettingRow>, InferCreationAttributes<SettingRow>> {
  name: string;
  value: unknown;
}

/** Facts about this installation: `demo` is true once the demo data were loaded. */
export function defineSetting(sequelize: Sequelize): ModelStatic<SettingRow> {
  return sequelize.define<SettingRow>('setting', {
    name: { type: DataTypes.TEXT, primaryKey: true },
    value: DataTypes.JSONB,
  });
}
