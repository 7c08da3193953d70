import type { FastifyInstance } from 'fastify';
import { againSchema, keepSchema, retrySchema, uploadFieldsSchema, UUID_V7, type Job } from '@avrelle/core/wire';
import { personOf } from '../accounts/session';
import type { Context } from '../context';
import { AppError } from '../errors';
import { parseAddress } from '../ingest/network-policy';
import { parse } from '../parse';
import { readId } from '../read-id';
import { sourceDetail } from '../sources/queries';
import { mustOwn } from '../sources/routes';
import { newestFile, newestVersion } from '../versions/queries';
import { dismissJob, jobOf, recentJobs, requeueFailed, requeueFound, type JobInput } from './queries';
import { withUpload } from './read-upload';
import { startJob } from './start-job';

const SHOWN_FOR = 86_400_000;

export function jobRoutes(app: FastifyInstance, context: Context): void {
  const { db, now, newId, jobs } = context;

  app.post('/api/keep', (request): Job => {
    const me = personOf(request); const { id, address, tags, remark, amount, width, look, apart } = parse(keepSchema, request.body);
    const url = parseAddress(address).href; const choices = amount === 'whole' && width === null ? {} : { choices: { amount, width } };
    return startJob(context, { id, personId: me.id, label: url, input: { sourceId: newId(), address: url, tags, remark, ...choices, ...(look ? { look: true as const } : {}), ...(apart ? { apart: true as const } : {}) } });
  });

  /** The page fetched anew, as a version beside those that are there; a letter read anew with its pictures. */
  app.post('/api/sources/:id/again', (request): Job => {
    const me = personOf(request); const sourceId = readId(request); const { id, remote, encoding } = parse(againSchema, request.body);
    mustOwn(context, me.id, sourceId);
    const { address, title } = newestVersion(db, sourceId)!; const file = newestFile(db, sourceId);
    if (remote && file) return startJob(context, { id, personId: me.id, label: title, uploadHash: file.hash, input: { sourceId, fileName: `${title}.eml`, tags: [], again: true, remote: true } });
    if (encoding && address === null && file) return startJob(context, { id, personId: me.id, label: title, uploadHash: file.hash, input: { sourceId, fileName: `${title}${ENDINGS[file.mediaType] ?? ''}`, tags: [], again: true, encoding } });
    if (address === null) throw new AppError('no_address', { title });
    // As much of it as before, for the same width; a passage has no place in another text yet.
    const { amount, width } = sourceDetail(db, me.id, sourceId)!; const kept = amount === 'main' || amount === 'link' ? amount : 'whole' as const;
    return startJob(context, { id, personId: me.id, label: address, input: { sourceId, address, tags: [], again: true, ...(encoding ? { encoding } : {}), ...(kept === 'whole' && width === null ? {} : { choices: { amount: kept, width } }) } });
  });

  app.post('/api/uploads/:id', (request): Promise<Job> => {
    const me = personOf(request); const id = readId(request);
    context.room.check(me.id);
    return withUpload(request, async ({ file, transcript, fields }) => {
      const again = sourceField(fields.source);
      if (again !== undefined) mustOwn(context, me.id, again);
      const { tags, author, remark, apart } = readFields(fields);
      const recording = again !== undefined && transcript && !file ? newestFile(db, again) : undefined;
      if (!file && !recording) throw transcript ? new AppError('no_recording', { name: transcript.name }, { field: 'file' }) : new AppError('no_file', {}, { field: 'file' });
      if (file) context.room.check(me.id, file.size);
      const hash = (path: string): Promise<string> => context.ingester.store(path, 'application/octet-stream');
      const name = file?.name ?? recording!.title; const words = transcript && { name: transcript.name, hash: await hash(transcript.path) };
      const input: JobInput = {
        sourceId: again ?? newId(),
        fileName: name,
        tags,
        remark,
        ...(author ? { author } : {}),
        ...(words ? { transcript: words } : {}),
        ...(again ? { again: true as const } : {}),
        ...(apart ? { apart: true as const } : {}),
      };
      return startJob(context, { id, personId: me.id, label: name, input, uploadHash: file ? await hash(file.path) : recording!.hash }, fields.password);
    });
  });

  /** A job that failed, tried again, with the password its file wants; or what was found to be kept before, kept all the same. */
  app.post('/api/jobs/:id/again', (request): Job => {
    const me = personOf(request).id; const id = readId(request); const { password, as } = parse(retrySchema, request.body);
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

/** By which a text that is kept as bytes is known again. */
const ENDINGS: Readonly<Record<string, string>> = { 'text/plain': '.txt', 'text/markdown': '.md', 'text/csv': '.csv', 'text/html': '.html' };

const readFields = ({ tags = '', author, remark, apart }: Readonly<Record<string, string>>) =>
  parse(uploadFieldsSchema, { tags: tags.split(/\s+/).filter(Boolean), author, remark, apart: apart === 'yes' });

/** The source that a file is a newer version of. */
function sourceField(value = ''): string | undefined {
  if (value === '') return undefined;
  if (!UUID_V7.test(value)) throw new AppError('invalid', { message: `"${value}" is not the id of a source.` }, { field: 'source' });
  return value;
}
