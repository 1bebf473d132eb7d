import pg from 'pg';
import { Sequelize } from 'sequelize';
import { inTransaction } from './in-transaction.ts';
import { defineAxle, defineMeterReading, defineOwner, defineUnit } from '../fleet/model.ts';
import { defineFollowUp, definePhoto, defineJob, defineReading, defineWheelEnd } from '../jobs/model.ts';
import { defineBatchRow, defineEntry, defineSeal } from '../record/model.ts';
import { defineSheetRevision } from '../sheets/model.ts';
import { defineTool } from '../tools/model.ts';
import { definePerson, definePersonalDetail, definePersonOwner } from '../people/model.ts';
import { defineSetting } from '../shop/model.ts';

/**
 * A connection that is listened to from its first moment. Sequelize listens a moment later, and a database that dies in
 * between would take the server with it; whoever uses the connection next is told that it is lost.
 */
class Client extends pg.Client {
  constructor(config?: string | pg.ClientConfig) {
    super(config);
    this.on('error', () => undefined);
  }
}
const dialectModule: object = Object.create(pg, { Client: { value: Client } });

/**
 * Connects to PostgreSQL and binds the models. Tables come from the migrations, never from here.
 * @param pool most connections at once
 */
export function connectDatabase(url: string, { pool = 10 }: { pool?: number } = {}) {
  const sequelize = new Sequelize(url, {
    dialect: 'postgres',
    dialectModule,
    logging: false,
    pool: { max: pool, idle: 10_000 },
    // Row-level security: the server reads for everybody, unless it says that it reads for one.
    dialectOptions: { options: '-c lanternwright.owners=all -c jit=off' },
    define: { timestamps: false, underscored: true, freezeTableName: true },
  });
  const models = {
    setting: defineSetting(sequelize),
    person: definePerson(sequelize),
    personOwner: definePersonOwner(sequelize),
    owner: defineOwner(sequelize),
    unit: defineUnit(sequelize),
    axle: defineAxle(sequelize),
    meterReading: defineMeterReading(sequelize),
    job: defineJob(sequelize),
    entry: defineEntry(sequelize),
    batchRow: defineBatchRow(sequelize),
    seal: defineSeal(sequelize),
    personalDetail: definePersonalDetail(sequelize),
    reading: defineReading(sequelize),
    wheelEnd: defineWheelEnd(sequelize),
    followUp: defineFollowUp(sequelize),
    photo: definePhoto(sequelize),
    sheetRevision: defineSheetRevision(sequelize),
    tool: defineTool(sequelize),
  };
  models.unit.belongsTo(models.owner, { foreignKey: 'ownerId', as: 'owner' });
  models.unit.hasMany(models.axle, { foreignKey: 'unitId', as: 'axles' });
  models.person.belongsToMany(models.owner, {
    through: models.personOwner,
    foreignKey: 'personId',
    otherKey: 'ownerId',
    as: 'owners',
  });
  models.person.hasOne(models.personalDetail, { foreignKey: 'personId', as: 'detail' });
  models.job.belongsTo(models.unit, { foreignKey: 'unitId', as: 'unit' });
  return { sequelize, ...models };
}

export type Database = ReturnType<typeof connectDatabase>;

/**
 * Runs reads as somebody who may see some owners only: the database leaves out what is not theirs, whatever is asked.
 * @param owners ids
 */
export async function readAs<T>(
  { sequelize }: Database,
  owners: readonly string[],
  work: () => Promise<T>,
): Promise<T> {
  return inTransaction({ sequelize }, async () => {
    await sequelize.query('set transaction read only');
    await sequelize.query(`select set_config('lanternwright.owners', $1, true)`, {
      bind: [owners.join(',')],
    });
    return work();
  });
}
