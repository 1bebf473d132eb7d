import { Sequelize } from 'sequelize';
import { defineAxle, defineMeterReading, defineOwner, defineUnit } from '../fleet/model.ts';
import {
  defineFollowUp,
  definePhoto,
  defineJob,
  defineJobEvent,
  defineReading,
  defineWheelEnd,
} from '../jobs/model.ts';
import { defineSheetRevision } from '../sheets/model.ts';
import { defineTool } from '../tools/model.ts';
import { definePerson, defineSetting } from '../people/model.ts';

/** Connects to PostgreSQL and binds the models. Tables come from the migrations, never from here. */
export function connectDatabase(url: string) {
  const sequelize = new Sequelize(url, {
    dialect: 'postgres',
    logging: false,
    pool: { max: 10, idle: 10_000 },
    define: { timestamps: false, underscored: true, freezeTableName: true },
  });
  const models = {
    setting: defineSetting(sequelize),
    person: definePerson(sequelize),
    owner: defineOwner(sequelize),
    unit: defineUnit(sequelize),
    axle: defineAxle(sequelize),
    meterReading: defineMeterReading(sequelize),
    job: defineJob(sequelize),
    jobEvent: defineJobEvent(sequelize),
    reading: defineReading(sequelize),
    wheelEnd: defineWheelEnd(sequelize),
    followUp: defineFollowUp(sequelize),
    photo: definePhoto(sequelize),
    sheetRevision: defineSheetRevision(sequelize),
    tool: defineTool(sequelize),
  };
  models.unit.belongsTo(models.owner, { foreignKey: 'ownerId', as: 'owner' });
  models.unit.hasMany(models.axle, { foreignKey: 'unitId', as: 'axles' });
  models.job.belongsTo(models.unit, { foreignKey: 'unitId', as: 'unit' });
  return { sequelize, ...models };
}

export type Database = ReturnType<typeof connectDatabase>;
