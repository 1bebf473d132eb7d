import {
  DataTypes,
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  type Model,
  type ModelStatic,
  type NonAttribute,
  type Sequelize,
} from 'sequelize';
import type { Role } from '@lanternwright/core/access';
import type { ReaderUnits } from '@lanternwright/core/quantity';
import type { OwnerRow } from '../fleet/model.ts';

export interface PersonRow extends Model<InferAttributes<PersonRow>, InferCreationAttributes<PersonRow>> {
  id: string;
  name: string;
  login: string;
  role: Role;
  /** Null until they have chosen a password with their code. */
  passwordHash: string | null;
  pinHash: CreationOptional<string | null>;
  codeHash: CreationOptional<string | null>;
  codeUntil: CreationOptional<Date | null>;
  switchedOffAt: CreationOptional<Date | null>;
  lastSignIn: CreationOptional<Date | null>;
  /** Made up with the demo shop: signed in as without a password, while the shop is a demo. */
  demo: CreationOptional<boolean>;
  /** Units they read figures in; null: the shop's. */
  units: CreationOptional<ReaderUnits | null>;
  createdAt: CreationOptional<Date>;
  version: CreationOptional<number>;
  owners?: NonAttribute<OwnerRow[]>;
  detail?: NonAttribute<PersonalDetailRow | null>;
}

export function definePerson(sequelize: Sequelize): ModelStatic<PersonRow> {
  return sequelize.define<PersonRow>('person', {
    id: { type: DataTypes.UUID, primaryKey: true },
    name: DataTypes.TEXT,
    login: DataTypes.TEXT,
    role: DataTypes.TEXT,
    passwordHash: DataTypes.TEXT,
    pinHash: DataTypes.TEXT,
    codeHash: DataTypes.TEXT,
    codeUntil: DataTypes.DATE,
    switchedOffAt: DataTypes.DATE,
    lastSignIn: DataTypes.DATE,
    demo: { type: DataTypes.BOOLEAN, defaultValue: false },
    units: DataTypes.JSONB,
    createdAt: { type: DataTypes.DATE, defaultValue: DataTypes.NOW },
    version: { type: DataTypes.INTEGER, defaultValue: 0 },
  });
}

export interface PersonOwnerRow extends Model<
  InferAttributes<PersonOwnerRow>,
  InferCreationAttributes<PersonOwnerRow>
> {
  personId: string;
  ownerId: string;
}

/** Which owners an owner's contact answers for. */
export function definePersonOwner(sequelize: Sequelize): ModelStatic<PersonOwnerRow> {
  return sequelize.define<PersonOwnerRow>('person_owner', {
    personId: { type: DataTypes.UUID, primaryKey: true },
    ownerId: { type: DataTypes.UUID, primaryKey: true },
  });
}

export interface PersonalDetailRow extends Model<
  InferAttributes<PersonalDetailRow>,
  InferCreationAttributes<PersonalDetailRow>
> {
  personId: string;
  telephone: string;
  mail: string;
}

/** How people are reached; outside the record, so that it can be erased. */
export function definePersonalDetail(sequelize: Sequelize): ModelStatic<PersonalDetailRow> {
  return sequelize.define<PersonalDetailRow>('personal_detail', {
    personId: { type: DataTypes.UUID, primaryKey: true },
    telephone: DataTypes.TEXT,
    mail: DataTypes.TEXT,
  });
}
