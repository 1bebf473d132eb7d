import {
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  type Model,
  type ModelStatic,
  type Sequelize,
} from 'sequelize';
import type { Entry, Recorder, StreamKind } from '@lanternwright/core/record';
import type { Link } from './link.ts';

export interface EntryRow extends Model<InferAttributes<EntryRow>, InferCreationAttributes<EntryRow>> {
  seq: number;
  id: string;
  stream: StreamKind;
  streamId: string;
  version: number;
  at: Date;
  by: Recorder;
  body: object;
  prevHash: string;
  hash: string;
  form: 1 | 2;
}

export function defineEntry(sequelize: Sequelize): ModelStatic<EntryRow> {
  return sequelize.define<EntryRow>('entry', {
    seq: { type: DataTypes.BIGINT, primaryKey: true },
    id: DataTypes.UUID,
    stream: DataTypes.TEXT,
    streamId: DataTypes.TEXT,
    version: DataTypes.INTEGER,
    at: DataTypes.DATE,
    by: DataTypes.JSONB,
    body: DataTypes.JSONB,
    prevHash: DataTypes.TEXT,
    hash: DataTypes.TEXT,
    form: DataTypes.SMALLINT,
  });
}

export interface BatchRow extends Model<InferAttributes<BatchRow>, InferCreationAttributes<BatchRow>> {
  batchId: string;
  n: number;
  row: object;
}

export function defineBatchRow(sequelize: Sequelize): ModelStatic<BatchRow> {
  return sequelize.define<BatchRow>('batch_row', {
    batchId: { type: DataTypes.UUID, primaryKey: true },
    n: { type: DataTypes.INTEGER, primaryKey: true },
    row: DataTypes.JSONB,
  });
}

export interface SealRow extends Model<InferAttributes<SealRow>, InferCreationAttributes<SealRow>> {
  chain: string;
  seq: number;
  hash: string;
  at: Date;
  key: string;
  signature: string;
}

export function defineSeal(sequelize: Sequelize): ModelStatic<SealRow> {
  return sequelize.define<SealRow>('seal', {
    chain: { type: DataTypes.TEXT, primaryKey: true },
    seq: { type: DataTypes.BIGINT, primaryKey: true },
    hash: DataTypes.TEXT,
    at: DataTypes.DATE,
    key: DataTypes.TEXT,
    signature: DataTypes.TEXT,
  });
}

/** A row as PostgreSQL gives it, by its column names. */
export interface RawEntry {
  seq: string;
  id: string;
  stream: StreamKind;
  stream_id: string;
  version: number;
  at: Date;
  by: Recorder;
  body: object;
  prev_hash: string;
  hash: string;
  form: 1 | 2;
}

export function toLink(row: RawEntry): Link {
  const { seq, id, stream, version, at, by, body, hash, form } = row;
  return {
    seq: Number(seq),
    id,
    stream,
    streamId: row.stream_id,
    version,
    at: at.toISOString(),
    by,
    body,
    prevHash: row.prev_hash,
    hash,
    form,
  };
}

export function toEntry({ id, stream, streamId, version, at, by, body }: EntryRow): Entry {
  return { id, stream, streamId, version, at: at.toISOString(), by, body };
}
