import type { FastifyInstance } from 'fastify';
import type { Intake, PersonId } from '@avrelle/core/wire';
import type { Context } from '../context';
import { serving } from '../serve';
import { intakeLocal } from './intake';

export function mailRoutes(app: FastifyInstance, context: Context): void {
  const { db, config } = context;
  const serve = serving(app, context);
  const intake = (personId: PersonId, renew: boolean): Intake => ({
    address: config.mailPort === null ? null : `${intakeLocal(db, personId, renew)}@${config.mailDomain}`,
  });

  serve('GET /api/intake', ({ me }) => intake(me.id, false));
  serve('POST /api/intake/renew', ({ me }) => intake(me.id, true));
}
