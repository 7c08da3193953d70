import type { FastifyInstance, FastifyRequest } from 'fastify';
import type { Api, BodyOf } from '@avrelle/core/api';
import { uploadFieldsSchema, UUID_V7, type Job, type PersonId, type SourceId } from '@avrelle/core/wire';
import { mustOwnSource } from '../access/access';
import type { Context } from '../context';
import { AppError } from '../errors';
import { parseAddress } from '../ingest/network-policy';
import type { Choices } from '../ingest/ingested';
import { parse } from '../parse';
import { serving } from '../serve';
import { sourceDetail } from '../sources/queries';
import { newestFile, newestVersion } from '../versions/queries';
import { dismissJob, jobOf, recentJobs, requeueFailed, requeueFound } from './queries';
import type { JobTarget, JobInput, JobOrigin } from './job-input';
import { withUpload, type Upload } from './read-upload';
import { startJob } from './start-job';

const SHOWN_FOR = 86_400_000;

/** Work that takes its time: pages fetched, files taken in. */
export function jobRoutes(app: FastifyInstance, context: Context): void {
  const { db, now, newId, jobs } = context;
  const serve = serving(app, context);

  serve('POST /api/keep', ({ me, body: { id, address, tags, remark, amount, width, look, apart } }) => {
    const url = parseAddress(address).href;
    const target: JobTarget = look
      ? { type: 'draft' }
      : { type: 'source', sourceId: newId(), tags, remark, ...(apart ? { apart: true } : {}) };
    const input: JobInput = { origin: { type: 'address', address: url, ...wanted({ amount, width }) }, target };
    return startJob(context, { id, personId: me.id, label: url, input });
  });

  serve('POST /api/sources/:id/again', ({ me, params, body }) => keepAgain(context, me.id, params.id, body));

  serve('POST /api/uploads/:id', ({ me, params, request }) => takeUpload(context, me.id, params.id, request));

  serve('POST /api/jobs/:id/again', ({ me, params: { id }, body: { password, as } }) => {
    if (as ? requeueFound(db, me.id, id, as) : requeueFailed(db, me.id, id)) jobs.kick(id, password);
    return jobOf(db, me.id, id)!;
  });

  serve('GET /api/jobs', ({ me }) => recentJobs(db, me.id, new Date(Date.parse(now()) - SHOWN_FOR).toISOString()));
  serve('GET /api/jobs/:id', ({ me, params }) => jobOf(db, me.id, params.id)!);
  serve('DELETE /api/jobs/:id', ({ me, params }) => void dismissJob(db, me.id, params.id));
}

/** From its own file where it has one that can be read in another way, else from its address. */
function keepAgain(
  context: Context,
  me: PersonId,
  sourceId: SourceId,
  { id, remote, encoding }: BodyOf<Api['POST /api/sources/:id/again']>,
): Job {
  const { db } = context;
  const { address, title } = newestVersion(db, sourceId)!;
  const file = newestFile(db, sourceId);
  const start = (label: string, origin: JobOrigin): Job =>
    startJob(context, {
      id,
      personId: me,
      label,
      uploadHash: origin.type === 'file' ? file!.hash : null,
      input: { origin, target: { type: 'version', sourceId } },
    });
  if (remote && file) return start(title, { type: 'file', name: `${title}.eml`, remote: true });
  if (address === null) {
    if (!encoding || !file) throw new AppError('no_address', { title });
    return start(title, { type: 'file', name: `${title}${ENDINGS[file.mediaType] ?? ''}`, encoding });
  }
  // As much of it as before, for the same width; a passage has no place in another text yet.
  const { amount, width } = sourceDetail(db, me, sourceId)!;
  const kept = amount === 'main' || amount === 'link' ? amount : ('whole' as const);
  const choices = wanted({ amount: kept, width });
  return start(address, { type: 'address', address, ...(encoding ? { encoding } : {}), ...choices });
}

/** Nothing where all of it is wanted as it is. */
const wanted = (choices: Choices): { readonly choices?: Choices } =>
  choices.amount === 'whole' && (choices.width ?? null) === null ? {} : { choices };

function takeUpload(context: Context, me: PersonId, id: string, request: FastifyRequest): Promise<Job> {
  const { db, newId, room, ingester } = context;
  room.check(me);
  return withUpload(request, async ({ file, transcript, fields }) => {
    const again = sourceField(fields.source);
    if (again !== undefined) mustOwnSource(db, me, again);
    const { tags, author, remark, apart } = readFields(fields);
    const hash = (path: string): Promise<string> => ingester.store(path, 'application/octet-stream');
    const stored = async (): Promise<{ name: string; uploadHash: string }> => {
      if (file) {
        room.check(me, file.size);
        return { name: file.name, uploadHash: await hash(file.path) };
      }
      // A transcript alone is for the recording that is there.
      const recording = again !== undefined && transcript ? newestFile(db, again) : undefined;
      if (!recording) throw noFile(transcript);
      return { name: recording.title, uploadHash: recording.hash };
    };
    const { name, uploadHash } = await stored();
    const words = transcript && { transcript: { name: transcript.name, hash: await hash(transcript.path) } };
    const target: JobTarget = again
      ? { type: 'version', sourceId: again }
      : { type: 'source', sourceId: newId(), tags, remark, ...(apart ? { apart: true } : {}) };
    const origin: JobOrigin = { type: 'file', name, ...words };
    const input: JobInput = { origin, target, ...(author ? { overrides: { author } } : {}) };
    return startJob(context, { id, personId: me, label: name, input, uploadHash }, fields.password);
  });
}

/** By which a text that is kept as bytes is known again. */
const ENDINGS: Readonly<Record<string, string>> = {
  'text/plain': '.txt',
  'text/markdown': '.md',
  'text/csv': '.csv',
  'text/html': '.html',
};

const noFile = (transcript: Upload['transcript']): AppError =>
  transcript
    ? new AppError('no_recording', { name: transcript.name }, { field: 'file' })
    : new AppError('no_file', {}, { field: 'file' });

const readFields = ({ tags = '', author, remark, apart }: Readonly<Record<string, string>>) =>
  parse(uploadFieldsSchema, { tags: tags.split(/\s+/).filter(Boolean), author, remark, apart: apart === 'yes' });

/** The source that a file is a newer version of. */
function sourceField(value = ''): string | undefined {
  if (value === '') return undefined;
  if (!UUID_V7.test(value))
    throw new AppError('invalid', { message: `"${value}" is not the id of a source.` }, { field: 'source' });
  return value;
}
