import type { FastifyInstance } from 'fastify';
import type { Intake } from '@avrelle/core/wire';
import { personOf } from '../accounts/session';
import type { Context } from '../context';
import { intakeLocal } from './intake';

export function mailRoutes(app: FastifyInstance, { db, config }: Context): void {
  const intake = (personId: string, renew: boolean): Intake => ({
    address: config.mailPort === null ? null : `${intakeLocal(db, personId, renew)}@${config.mailDomain}`,
  });

  app.get('/api/intake', (request): Intake => intake(personOf(request).id, false));
  app.post('/api/intake/renew', (request): Intake => intake(personOf(request).id, true));
}
