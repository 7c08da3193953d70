import type { FastifyInstance } from 'fastify';
import { againSchema, keepSchema, tagsSchema, UUID_V7, type Job } from '@avrelle/core/wire';
import { personOf } from '../accounts/session';
import type { Context } from '../context';
import { storeBlob } from '../db/blobs';
import { AppError } from '../errors';
import { parseAddress } from '../ingest/network-policy';
import { parse } from '../parse';
import { readId } from '../read-id';
import { mustOwn } from '../sources/routes';
import { newestVersion } from '../versions/queries';
import { dismissJob, insertJob, jobOf, recentJobs } from './queries';

const MOST_MB = 20;
const SHOWN_FOR = 86_400_000;

export function jobRoutes(app: FastifyInstance, context: Context): void {
  const { db, now, newId, jobs } = context;

  app.post('/api/keep', (request): Job => {
    const me = personOf(request), { id, address, tags } = parse(keepSchema, request.body);
    const url = parseAddress(address).href;
    insertJob(db, id, me.id, url, { sourceId: newId(), address: url, tags }, null, now());
    jobs.kick();
    return jobOf(db, me.id, id) ?? taken(id);
  });

  /** The page fetched anew, as a version beside those that are there. */
  app.post('/api/sources/:id/again', (request): Job => {
    const me = personOf(request), sourceId = readId(request), { id } = parse(againSchema, request.body);
    mustOwn(context, me.id, sourceId);
    const { address, title } = newestVersion(db, sourceId)!;
    if (address === null) throw new AppError('no_address', { title });
    insertJob(db, id, me.id, address, { sourceId, address, tags: [], again: true }, null, now());
    jobs.kick();
    return jobOf(db, me.id, id) ?? taken(id);
  });

  app.post('/api/uploads/:id', async (request): Promise<Job> => {
    const me = personOf(request), id = readId(request);
    if (!request.isMultipart()) throw new AppError('no_file', {}, { field: 'file' });
    const file = await request.file({ limits: { fileSize: MOST_MB * 1024 * 1024, files: 1 } });
    if (!file) throw new AppError('no_file', {}, { field: 'file' });
    const bytes = await file.toBuffer().catch(() => { throw new AppError('file_too_large', { limit: MOST_MB }, { field: 'file' }); });
    const again = sourceField(file.fields.source);
    if (again !== undefined) mustOwn(context, me.id, again);
    const tags = tagsSchema().cast(tagField(file.fields.tags)) ?? [];
    db.transaction(() => {
      const hash = storeBlob(db, bytes, 'application/octet-stream');
      insertJob(db, id, me.id, file.filename, { sourceId: again ?? newId(), fileName: file.filename, tags, ...(again ? { again: true } : {}) }, hash, now());
    });
    jobs.kick();
    return jobOf(db, me.id, id) ?? taken(id);
  });

  app.get('/api/jobs', (request): Job[] => recentJobs(db, personOf(request).id, new Date(Date.parse(now()) - SHOWN_FOR).toISOString()));

  app.get('/api/jobs/:id', (request): Job => {
    const job = jobOf(db, personOf(request).id, readId(request));
    if (!job) throw new AppError('not_found', { what: 'job' });
    return job;
  });

  app.delete('/api/jobs/:id', (request, reply) => {
    dismissJob(db, personOf(request).id, readId(request));
    return reply.code(204).send();
  });
}

const taken = (id: string): never => { throw new AppError('id_taken', { id }); };

/** The source that a file is a newer version of. */
function sourceField(field: unknown): string | undefined {
  const value = textOf(field);
  if (value === '') return undefined;
  if (!UUID_V7.test(value)) throw new AppError('invalid', { message: `"${value}" is not the id of a source.` }, { field: 'source' });
  return value;
}

const textOf = (field: unknown): string => (typeof field === 'object' && field !== null && 'value' in field ? String(field.value) : '');

function tagField(field: unknown): string[] {
  return textOf(field).split(/\s+/).filter(Boolean);
}

