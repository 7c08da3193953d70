import type { FastifyInstance } from 'fastify';
import { againSchema, keepSchema, retrySchema, tagsSchema, UUID_V7, type Job } from '@avrelle/core/wire';
import { personOf } from '../accounts/session';
import type { Context } from '../context';
import { storeBlob } from '../db/blobs';
import { AppError } from '../errors';
import { parseAddress } from '../ingest/network-policy';
import { parse } from '../parse';
import { readId } from '../read-id';
import { sourceDetail } from '../sources/queries';
import { mustOwn } from '../sources/routes';
import { newestFile, newestVersion } from '../versions/queries';
import { dismissJob, jobOf, recentJobs, requeueFailed, requeueFound, type JobInput } from './queries';
import { readUpload } from './read-upload';
import { startJob } from './start-job';

const SHOWN_FOR = 86_400_000;

export function jobRoutes(app: FastifyInstance, context: Context): void {
  const { db, now, newId, jobs } = context;

  app.post('/api/keep', (request): Job => {
    const me = personOf(request), { id, address, tags, remark, amount, width, look, apart } = parse(keepSchema, request.body);
    const url = parseAddress(address).href, choices = amount === 'whole' && width === null ? {} : { choices: { amount, width } };
    return startJob(context, { id, personId: me.id, label: url, input: { sourceId: newId(), address: url, tags, remark, ...choices, ...(look ? { look: true as const } : {}), ...(apart ? { apart: true as const } : {}) } });
  });

  /** The page fetched anew, as a version beside those that are there; a letter read anew with its pictures. */
  app.post('/api/sources/:id/again', (request): Job => {
    const me = personOf(request), sourceId = readId(request), { id, remote } = parse(againSchema, request.body);
    mustOwn(context, me.id, sourceId);
    const { address, title } = newestVersion(db, sourceId)!, file = newestFile(db, sourceId);
    if (remote && file) return startJob(context, { id, personId: me.id, label: title, uploadHash: file.hash, input: { sourceId, fileName: `${title}.eml`, tags: [], again: true, remote: true } });
    if (address === null) throw new AppError('no_address', { title });
    // As much of it as before, for the same width; a passage has no place in another text yet.
    const { amount, width } = sourceDetail(db, me.id, sourceId)!, kept = amount === 'main' || amount === 'link' ? amount : 'whole' as const;
    return startJob(context, { id, personId: me.id, label: address, input: { sourceId, address, tags: [], again: true, ...(kept === 'whole' && width === null ? {} : { choices: { amount: kept, width } }) } });
  });

  app.post('/api/uploads/:id', async (request): Promise<Job> => {
    const me = personOf(request), id = readId(request), upload = await readUpload(request);
    const again = sourceField(upload.fields.source);
    if (again !== undefined) mustOwn(context, me.id, again);
    const tags = tagsSchema().cast((upload.fields.tags ?? '').split(/\s+/).filter(Boolean)) ?? [];
    const job = db.transaction(() => {
      const hash = (bytes: Uint8Array): string => storeBlob(db, bytes, 'application/octet-stream');
      const recording = again !== undefined && upload.transcript && !upload.file ? newestFile(db, again) : undefined;
      if (!upload.file && !recording) throw upload.transcript ? new AppError('no_recording', { name: upload.transcript.name }, { field: 'file' }) : new AppError('no_file', {}, { field: 'file' });
      const name = upload.file?.name ?? recording!.title, transcript = upload.transcript && { transcript: { name: upload.transcript.name, hash: hash(upload.transcript.bytes) } };
      const input: JobInput = { sourceId: again ?? newId(), fileName: name, tags, ...transcript, ...(again ? { again: true as const } : {}), ...(upload.fields.apart === 'yes' ? { apart: true as const } : {}) };
      return { id, personId: me.id, label: name, input, uploadHash: upload.file ? hash(upload.file.bytes) : recording!.hash };
    });
    return startJob(context, job, upload.fields.password);
  });

  /** A job that failed, tried again, with the password its file wants; or what was found to be kept before, kept all the same. */
  app.post('/api/jobs/:id/again', (request): Job => {
    const me = personOf(request).id, id = readId(request), { password, as } = parse(retrySchema, request.body);
    if (!jobOf(db, me, id)) throw new AppError('not_found', { what: 'job' });
    if (as ? requeueFound(db, me, id, as) : requeueFailed(db, me, id)) jobs.kick(id, password);
    return jobOf(db, me, id)!;
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

/** The source that a file is a newer version of. */
function sourceField(value = ''): string | undefined {
  if (value === '') return undefined;
  if (!UUID_V7.test(value)) throw new AppError('invalid', { message: `"${value}" is not the id of a source.` }, { field: 'source' });
  return value;
}
