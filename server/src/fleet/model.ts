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
import type { Axle, UnitKind } from '@lanternwright/core/axle-plan';
import type { SaidDuty } from '@lanternwright/core/due';
import type { MeterRead } from '@lanternwright/core/record';
import type { Quantity } from '@lanternwright/core/quantity';

export interface OwnerRow extends Model<InferAttributes<OwnerRow>, InferCreationAttributes<OwnerRow>> {
  id: string;
  name: string;
}

export function defineOwner(sequelize: Sequelize): ModelStatic<OwnerRow> {
  return sequelize.define<OwnerRow>('owner', {
    id: { type: DataTypes.UUID, primaryKey: true },
    name: DataTypes.TEXT,
  });
}

export interface UnitRow extends Model<InferAttributes<UnitRow>, InferCreationAttributes<UnitRow>> {
  id: string;
  ownerId: string;
  name: string;
  kind: UnitKind;
  plate: string;
  createdAt: CreationOptional<Date>;
  version: CreationOptional<number>;
  duty: CreationOptional<SaidDuty[]>;
  remarks: CreationOptional<string>;
  owner?: NonAttribute<OwnerRow>;
  axles?: NonAttribute<AxleRow[]>;
}

export function defineUnit(sequelize: Sequelize): ModelStatic<UnitRow> {
  return sequelize.define<UnitRow>('unit', {
    id: { type: DataTypes.UUID, primaryKey: true },
    ownerId: DataTypes.UUID,
    name: DataTypes.TEXT,
    kind: DataTypes.TEXT,
    plate: DataTypes.TEXT,
    createdAt: { type: DataTypes.DATE, defaultValue: DataTypes.NOW },
    version: { type: DataTypes.INTEGER, defaultValue: 0 },
    duty: { type: DataTypes.JSONB, defaultValue: [] },
    remarks: { type: DataTypes.TEXT, defaultValue: '' },
  });
}

export interface AxleRow extends Model<InferAttributes<AxleRow>, InferCreationAttributes<AxleRow>> {
  id: string;
  unitId: string;
  number: number;
  role: Axle['role'];
  wheels: Axle['wheels'];
  brake: Axle['brake'];
  sheet: Axle['sheet'];
  /** When it was taken out from under the unit; its row stays, for what was measured on it. */
  takenOutAt: CreationOptional<Date | null>;
}

export function defineAxle(sequelize: Sequelize): ModelStatic<AxleRow> {
  return sequelize.define<AxleRow>('axle', {
    id: { type: DataTypes.UUID, primaryKey: true },
    unitId: DataTypes.UUID,
    number: DataTypes.SMALLINT,
    role: DataTypes.TEXT,
    wheels: DataTypes.TEXT,
    brake: DataTypes.TEXT,
    sheet: DataTypes.JSONB,
    takenOutAt: DataTypes.DATE,
  });
}

export interface MeterReadingRow extends Model<
  InferAttributes<MeterReadingRow>,
  InferCreationAttributes<MeterReadingRow>
> {
  id: CreationOptional<number>;
  unitId: string;
  /** Place among the readings of the unit, from 0, as its record counts them. */
  nth: number;
  date: string;
  distance: Quantity | null;
  km: number | null;
  hours: number | null;
  source: MeterRead['source'];
  /** Counted across swaps; null where it does not fit the readings around it. */
  totalKm: number | null;
  totalHours: number | null;
}

export function defineMeterReading(sequelize: Sequelize): ModelStatic<MeterReadingRow> {
  return sequelize.define<MeterReadingRow>('meter_reading', {
    id: { type: DataTypes.BIGINT, primaryKey: true, autoIncrement: true },
    unitId: DataTypes.UUID,
    nth: DataTypes.INTEGER,
    date: DataTypes.DATEONLY,
    distance: DataTypes.JSONB,
    km: DataTypes.DOUBLE,
    hours: DataTypes.DOUBLE,
    source: DataTypes.TEXT,
    totalKm: DataTypes.DOUBLE,
    totalHours: DataTypes.DOUBLE,
  });
}
