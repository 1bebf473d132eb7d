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
import type { JobSummary, WheelEndStand } from '@lanternwright/contract/jobs';
import type { StoredSide } from '@lanternwright/core/assembly';
import type { DeferredWork, FollowUpKind } from '@lanternwright/core/traveller';
import type { Verdict } from '@lanternwright/core/end-play';
import type { UnitRow } from '../fleet/model.ts';

export interface JobRow extends Model<InferAttributes<JobRow>, InferCreationAttributes<JobRow>> {
  id: string;
  number: CreationOptional<number>;
  unitId: string;
  title: string;
  version: number;
  openedAt: Date;
  closedAt: Date | null;
  wheelEnds: WheelEndStand[];
  estimate: CreationOptional<JobSummary['estimate']>;
  /** What it leaves of the metal, by position; null while it is open. */
  leaves: CreationOptional<Record<string, StoredSide | null> | null>;
  /** What its owner wants done later. */
  deferred: CreationOptional<DeferredWork[]>;
  stopped: CreationOptional<{ as: 'held' | 'void' | 'out-of-service'; reason: string } | null>;
  unit?: NonAttribute<UnitRow>;
}

export function defineJob(sequelize: Sequelize): ModelStatic<JobRow> {
  return sequelize.define<JobRow>('job', {
    id: { type: DataTypes.UUID, primaryKey: true },
    number: { type: DataTypes.INTEGER, autoIncrement: true },
    unitId: DataTypes.UUID,
    title: DataTypes.TEXT,
    version: DataTypes.INTEGER,
    openedAt: DataTypes.DATE,
    closedAt: DataTypes.DATE,
    wheelEnds: DataTypes.JSONB,
    stopped: DataTypes.JSONB,
    leaves: DataTypes.JSONB,
    deferred: { type: DataTypes.JSONB, defaultValue: [] },
    estimate: { type: DataTypes.TEXT, defaultValue: 'none' },
  });
}

export interface ReadingTable extends Model<
  InferAttributes<ReadingTable>,
  InferCreationAttributes<ReadingTable>
> {
  jobId: string;
  position: string;
  round: number;
  unitId: string;
  axleId: string;
  endPlayMm: number;
  rangeMm: number;
  cycles: number;
  verdict: Verdict;
  at: Date;
  byName: string;
  km: number | null;
  final: boolean;
}

export function defineReading(sequelize: Sequelize): ModelStatic<ReadingTable> {
  return sequelize.define<ReadingTable>('reading', {
    jobId: { type: DataTypes.UUID, primaryKey: true },
    position: { type: DataTypes.TEXT, primaryKey: true },
    round: { type: DataTypes.SMALLINT, primaryKey: true },
    unitId: DataTypes.UUID,
    axleId: DataTypes.UUID,
    endPlayMm: DataTypes.DOUBLE,
    rangeMm: DataTypes.DOUBLE,
    cycles: DataTypes.SMALLINT,
    verdict: DataTypes.TEXT,
    at: DataTypes.DATE,
    byName: DataTypes.TEXT,
    km: DataTypes.DOUBLE,
    final: DataTypes.BOOLEAN,
  });
}

export interface PhotoRow extends Model<InferAttributes<PhotoRow>, InferCreationAttributes<PhotoRow>> {
  id: string;
  jobId: string;
  jpeg: Buffer<ArrayBuffer>;
  sha256: string;
  at: Date;
}

export function definePhoto(sequelize: Sequelize): ModelStatic<PhotoRow> {
  return sequelize.define<PhotoRow>('photo', {
    id: { type: DataTypes.UUID, primaryKey: true },
    jobId: DataTypes.UUID,
    jpeg: DataTypes.BLOB,
    sha256: DataTypes.TEXT,
    at: DataTypes.DATE,
  });
}

export interface WheelEndRow extends Model<
  InferAttributes<WheelEndRow>,
  InferCreationAttributes<WheelEndRow>
> {
  unitId: string;
  axleId: string;
  position: string;
  verdict: Verdict | null;
  endPlayMm: number | null;
  readAt: Date | null;
  readKm: number | null;
  openJobId: string | null;
  outOfService: { as: 'out-of-service'; reason: string } | null;
  /** As the last job that ended left it; null where nothing is left to say. */
  assembly: CreationOptional<StoredSide | null>;
}

export function defineWheelEnd(sequelize: Sequelize): ModelStatic<WheelEndRow> {
  return sequelize.define<WheelEndRow>('wheel_end', {
    unitId: DataTypes.UUID,
    axleId: { type: DataTypes.UUID, primaryKey: true },
    position: { type: DataTypes.TEXT, primaryKey: true },
    verdict: DataTypes.TEXT,
    endPlayMm: DataTypes.DOUBLE,
    readAt: DataTypes.DATE,
    readKm: DataTypes.DOUBLE,
    openJobId: DataTypes.UUID,
    outOfService: DataTypes.JSONB,
    assembly: DataTypes.JSONB,
  });
}

export interface FollowUpRow extends Model<
  InferAttributes<FollowUpRow>,
  InferCreationAttributes<FollowUpRow>
> {
  jobId: string;
  position: string;
  unitId: string;
  axleId: string;
  kind: 'retorque' | FollowUpKind;
  nth: CreationOptional<number>;
  what: string;
  fromKm: number | null;
  byKm: number | null;
  byHours: CreationOptional<number | null>;
  byDate: string;
  doneAt: Date | null;
  wantsReading: CreationOptional<boolean>;
}

export function defineFollowUp(sequelize: Sequelize): ModelStatic<FollowUpRow> {
  return sequelize.define<FollowUpRow>('follow_up', {
    jobId: { type: DataTypes.UUID, primaryKey: true },
    position: { type: DataTypes.TEXT, primaryKey: true },
    unitId: DataTypes.UUID,
    axleId: DataTypes.UUID,
    kind: { type: DataTypes.TEXT, primaryKey: true },
    nth: { type: DataTypes.SMALLINT, primaryKey: true },
    what: DataTypes.TEXT,
    fromKm: DataTypes.DOUBLE,
    byKm: DataTypes.DOUBLE,
    byHours: DataTypes.DOUBLE,
    byDate: DataTypes.DATEONLY,
    doneAt: DataTypes.DATE,
    wantsReading: { type: DataTypes.BOOLEAN, defaultValue: false },
  });
}
