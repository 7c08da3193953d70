import fs from 'node:fs';
import path from 'node:path';
import { sendLetter } from '../standins/mail/send';
import type { LittleWeb } from '../standins/web/serve';
import { LETTER } from './letter';
import type { FastifyInstance } from 'fastify';
import { v7 } from 'uuid';
import { describe, indexText } from '@avrelle/core/anchor';
import type { DrawnSpot } from '@avrelle/core/ink';
import { seeded } from '@avrelle/core/random';
import { range } from '@avrelle/core/text';
import type {
  Annotation,
  AnnotationPut,
  CollectionDetail,
  Intake,
  Job,
  SourceDetail,
  SourceText,
  JobId,
} from '@avrelle/core/wire';
import { bareMarks } from './bare-marks';
import type { DemoClock } from './clock';
import { DRAWINGS } from './drawings';
import { MARKS, type DemoMark, type SourceKey } from './marks';
import { seedCards } from './cards';
import { seedClasses } from './classes';
import { seedNotifications } from './notifications';
import { QUESTIONS } from './questions';
import { seedStudyNotes } from './study-notes';
import { seedWalkthrough } from './walkthrough';
import { ASSIGNMENTS, READ, READ_BY_OTHERS } from './assignments';
import { INES_READ, SLUICE, SOURCES } from './sources';
import { emailOf, PASSWORD, STUDENTS, TEACHER } from './people';

interface Kept {
  readonly source: SourceDetail;
  readonly text: SourceText;
}

/** Where the demo's files lie, and what it fetches from and sends to. */
interface Surroundings {
  readonly files: string;
  readonly web: LittleWeb;
  readonly mailPort?: number | undefined;
}

/** Fills an empty database with Saltmere College, through the routes a browser uses. */
export async function seed(
  app: FastifyInstance,
  clock: DemoClock,
  { files, web, mailPort }: Surroundings,
): Promise<void> {
  const seeder = new Seeder(app, clock, files, mailPort);
  web.show(SLUICE, 1);
  await seeder.people();
  await seeder.classes();
  await seeder.sources();
  await seeder.marks();
  await seeder.drawings();
  web.show(SLUICE, 2);
  await seeder.newVersion('ines', 'sluice');
  web.show(SLUICE, 3);
  await seeder.shelves();
  await seeder.assignments();
  await seeder.questions();
  await seeder.walkthrough();
  await seeder.study();
  await seeder.order();
  await seeder.arrivals();
  clock.release();
}

class Seeder {
  private readonly cookies = new Map<string, string>();
  private readonly classIds: Record<'A' | 'B', string> = { A: '', B: '' };
  /** By the key of a person, in Field Course B. */
  private readonly groupOf = new Map<string, string>();
  private readonly kept = new Map<SourceKey, Kept>();
  /** What is marked, by its source and passage; for a class before what is for oneself. */
  private readonly noted = new Map<string, string>();
  private random = seeded(1994);

  constructor(
    private readonly app: FastifyInstance,
    private readonly clock: DemoClock,
    private readonly files: string,
    private readonly mailPort: number | undefined,
  ) {}

  async people(): Promise<void> {
    this.clock.set(29);
    for (const [n, { key, name }] of [TEACHER, ...STUDENTS].entries()) {
      const answer = await this.app.inject({
        method: 'POST',
        url: '/api/people',
        remoteAddress: `10.9.0.${n}`,
        payload: { email: emailOf(key), name, password: PASSWORD },
      });
      if (answer.statusCode !== 200) throw new Error(answer.body);
      this.cookies.set(key, String(answer.headers['set-cookie']).split(';')[0]!);
    }
  }

  async classes(): Promise<void> {
    const made = await seedClasses((...asked) => this.send(...asked), this.clock);
    Object.assign(this.classIds, made.classIds);
    for (const [key, id] of made.groupOf) this.groupOf.set(key, id);
  }

  async sources(): Promise<void> {
    for (const { key, by, from, daysAgo, tags, classes } of SOURCES) {
      this.clock.set(daysAgo, 9);
      const id = from.startsWith('http') ? await this.keep(by, from, tags) : await this.upload(by, from, tags);
      for (const letter of classes)
        await this.send(by, 'PUT', `/api/classes/${this.classIds[letter]}/sources/${id}`, {});
      this.kept.set(key, {
        source: await this.send<SourceDetail>(by, 'GET', `/api/sources/${id}`),
        text: await this.send<SourceText>(by, 'GET', `/api/sources/${id}/text`),
      });
    }
    const sourceId = this.kept.get('packet')!.source.id;
    await seedNotifications((...asked) => this.send(...asked), { classId: this.classIds.B, sourceId });
  }

  async marks(): Promise<void> {
    const authored = MARKS.map((mark) => ({ mark, at: this.find(mark) }));
    const bare = bareMarks((key) => this.kept.get(key)!.text, this.random);
    let read = false;
    for (const { mark, at } of [...authored, ...bare].sort((a, b) => b.mark.daysAgo - a.mark.daysAgo)) {
      if (mark.daysAgo <= 1 && !read) {
        await this.readThreads();
        read = true;
      }
      this.clock.set(
        mark.daysAgo,
        mark.daysAgo === 0 ? 8 : 8 + Math.floor(this.random() * 11),
        Math.floor(this.random() * 60),
      );
      let parent = await this.put(mark, at);
      for (const [n, [by, note]] of (mark.replies ?? []).entries()) {
        this.clock.set(Math.max(0, mark.daysAgo - 1), 9 + n, Math.floor(this.random() * 60));
        parent = (await this.send<Annotation>(by, 'PUT', `/api/replies/${v7()}`, { parentId: parent, note })).id;
      }
    }
  }

  /** What was said so far, the students have read. */
  private async readThreads(): Promise<void> {
    for (const { key, classes } of STUDENTS)
      for (const letter of classes)
        await this.send(key, 'POST', `/api/classes/${this.classIds[letter]}/threads/seen`, {});
  }

  async drawings(): Promise<void> {
    for (const [n, drawing] of DRAWINGS.entries()) {
      this.clock.set(drawing.daysAgo, 16, n * 7);
      await this.put(drawing, this.find(drawing), drawing.draw(this.kept.get(drawing.source)!.source.lead));
    }
  }

  async shelves(): Promise<void> {
    for (const [n, [key, state, share]] of INES_READ.entries()) {
      const { source } = this.kept.get(key)!;
      const end = Math.floor(source.length * share);
      this.clock.set(1, 15 + n);
      await this.send('ines', 'PUT', `/api/sources/${source.id}/shelf`, {
        state,
        spans: [[0, end]],
        position: share === 1 ? 0 : this.lineBefore(key, end),
      });
    }
    this.clock.set(3);
    await this.send('ines', 'POST', '/api/desk/seen', {});
  }

  /** What is set for the courses, and how far the students have read it. */
  async assignments(): Promise<void> {
    this.clock.set(6, 9);
    const at = ([days, hour]: readonly [number, number]): string => {
      const day = new Date(Date.now() + days * 86_400_000);
      day.setHours(hour, 0, 0, 0);
      return day.toISOString();
    };
    for (const { source, class: letter, togetherWith, opens, due, ...asked } of ASSIGNMENTS)
      await this.send('aldous', 'PUT', this.assignmentUrl(letter, source), {
        ...asked,
        ...(togetherWith ? { alsoIn: [this.classIds[togetherWith]], together: true } : {}),
        opensAt: opens ? at(opens) : null,
        dueAt: at(due),
      });
    this.clock.set(1, 16);
    for (const { key, classes } of STUDENTS)
      for (const [source, share] of READ[key] ?? READ_BY_OTHERS)
        if (ASSIGNMENTS.some((a) => a.source === source && classes.includes(a.class))) {
          const { id, length } = this.kept.get(source)!.source;
          await this.send(key, 'PUT', `/api/sources/${id}/shelf`, { spans: [[0, Math.floor(length * share)]] });
        }
    // Of what is set, Ines knows.
    await this.send('ines', 'POST', '/api/desk/seen', {});
  }

  async questions(): Promise<void> {
    for (const [n, { note, put, answers }] of QUESTIONS.entries()) {
      this.clock.set(note.daysAgo, 11, n * 5);
      const url = `/api/annotations/${await this.put(note, this.find(note))}`;
      await this.send(note.by, 'PUT', `${url}/question`, put);
      for (const [m, [by, answer]] of Object.entries(answers).entries()) {
        this.clock.set(1, 10 + m, 7 * n);
        await this.send(by, 'PUT', `${url}/response`, answer);
      }
    }
  }

  async walkthrough(): Promise<void> {
    this.clock.set(1, 17);
    await seedWalkthrough((...asked) => this.send(...asked), `/api/classes/${this.classIds.B}`, this.idOf);
  }

  async study(): Promise<void> {
    const { clock, idOf } = this;
    const send: typeof this.send = (...asked) => this.send(...asked);
    const textOf = (key: SourceKey): string => this.kept.get(key)!.text.text;
    await seedCards({ clock, send, idOf, textOf }, this.classIds.B!);
    await seedStudyNotes({ clock, send, idOf });
  }

  private readonly idOf = (source: SourceKey, quote: string): string => this.noted.get(`${source} ${quote}`)!;

  private assignmentUrl(letter: 'A' | 'B', source: SourceKey): string {
    return `/api/classes/${this.classIds[letter]}/assignments/${this.kept.get(source)!.source.id}`;
  }

  async newVersion(by: string, key: SourceKey): Promise<void> {
    this.clock.set(1, 18);
    const id = v7();
    await this.send(by, 'POST', `/api/sources/${this.kept.get(key)!.source.id}/again`, { id });
    await this.done(by, id);
  }

  /** Collections, kept searches and ribbons of tags: of Ines, and one of the teacher for a class. */
  async order(): Promise<void> {
    this.clock.set(1, 8);
    await this.collect('aldous', { name: 'Field course, week by week', classId: this.classIds.B!, may: 'add' }, [
      ['Before we go', ['pegs', 'marsh']],
      ['On the bank', ['walk', 'creek']],
      ['Afterwards', ['report', 'packet']],
    ]);
    await this.send('aldous', 'PUT', `/api/searches/${v7()}`, { name: 'Week 4', query: 'tag:week4', classId: null });
    const essay = await this.collect('ines', { name: 'Essay: managed retreat' }, [
      ['Who pays', ['packet', 'sluice']],
      ['What moves', ['marsh', 'report']],
    ]);
    await this.collect('ines', { name: 'Voices for it', parentId: essay }, [['', ['keeper', 'walk', 'booklet']]]);
    await this.collect('ines', { name: 'Plants of the pans' }, [['', ['lavender']]]);
    await this.send('ines', 'PUT', `/api/searches/${v7()}`, {
      name: 'Doubts and questions',
      query: 'kind:doubt OR kind:question',
      classId: this.classIds.B,
    });
    for (const [tag, tint] of [
      ['essay', 'clay'],
      ['accretion', 'moss'],
      ['oral-history', 'heather'],
    ])
      await this.send('ines', 'PUT', '/api/tags/tint', { tag, tint });
  }

  private async collect(
    by: string,
    put: object,
    sections: readonly (readonly [string, readonly SourceKey[]])[],
  ): Promise<string> {
    const id = v7();
    const named = sections.filter(([name]) => name).map(([name]) => name);
    await this.send(by, 'PUT', `/api/collections/${id}`, put);
    const items = sections.flatMap(([name, keys]) =>
      keys.map((key) => ({ sourceId: this.kept.get(key)!.source.id, section: named.indexOf(name) })),
    );
    const { version } = await this.send<CollectionDetail>(by, 'POST', `/api/collections/${id}/sources`, {
      sourceIds: items.map((i) => i.sourceId),
    });
    await this.send(by, 'PUT', `/api/collections/${id}/order`, { version, sections: named, items });
    return id;
  }

  /** Ines follows two feeds, and has a letter come in now and then. */
  async arrivals(): Promise<void> {
    this.clock.set(1, 7);
    for (const address of ['http://packet.saltmere.test/letters', 'http://harbour.saltmere.test/notices.atom'])
      await this.send('ines', 'POST', '/api/feeds', { id: v7(), address });
    const { address } = await this.send<Intake>('ines', 'GET', '/api/intake');
    if (address && this.mailPort !== undefined) await sendLetter(this.mailPort, { ...LETTER, to: address });
    while (
      (await this.send<Job[]>('ines', 'GET', '/api/jobs')).some(
        (job) => job.state === 'queued' || job.state === 'running',
      )
    )
      await new Promise((later) => setTimeout(later, 20));
  }

  private lineBefore(key: SourceKey, at: number): number {
    return this.kept.get(key)!.text.text.lastIndexOf('\n', at) + 1;
  }

  private async keep(by: string, address: string, tags: string[]): Promise<string> {
    const id = v7();
    await this.send(by, 'POST', '/api/keep', { id, address, tags });
    return this.done(by, id);
  }

  private async upload(by: string, name: string, tags: string[]): Promise<string> {
    const id = v7();
    const boundary = 'saltmere';
    const words = name.replace(/\.ogg$/, '.vtt');
    const part = (head: string, body: Uint8Array): Buffer =>
      Buffer.concat([
        Buffer.from(`--${boundary}\r\ncontent-disposition: form-data; ${head}\r\n\r\n`),
        body,
        Buffer.from('\r\n'),
      ]);
    const file = (each: string): Buffer =>
      part(
        `name="file"; filename="${each}"\r\ncontent-type: application/octet-stream`,
        fs.readFileSync(path.join(this.files, each)),
      );
    const payload = Buffer.concat([
      part('name="tags"', Buffer.from(tags.join(' '))),
      file(name),
      ...(words === name ? [] : [file(words)]),
      Buffer.from(`--${boundary}--\r\n`),
    ]);
    const answer = await this.app.inject({
      method: 'POST',
      url: `/api/uploads/${id}`,
      headers: { cookie: this.cookies.get(by)!, 'content-type': `multipart/form-data; boundary=${boundary}` },
      payload,
    });
    if (answer.statusCode !== 200) throw new Error(answer.body);
    return this.done(by, id);
  }

  private async done(by: string, jobId: JobId): Promise<string> {
    for (;;) {
      const job = await this.send<Job>(by, 'GET', `/api/jobs/${jobId}`);
      if (job.state === 'failed') throw new Error(`${job.label}: ${job.error?.detail}`);
      if (job.state === 'done') return job.sourceId!;
      await new Promise((later) => setTimeout(later, 20));
    }
  }

  private find(mark: DemoMark): { start: number; end: number } {
    const start = this.kept.get(mark.source)!.text.text.indexOf(mark.quote);
    if (start < 0) throw new Error(`“${mark.quote}” does not stand in ${mark.source}.`);
    return { start, end: start + mark.quote.length };
  }

  private async put(mark: DemoMark, { start, end }: { start: number; end: number }, spot?: DrawnSpot): Promise<string> {
    const { source, text } = this.kept.get(mark.source)!;
    const id = v7();
    const classIds = mark.for === 'me' ? [] : [...mark.for].map((letter) => this.classIds[letter as 'A' | 'B']);
    const tags = (mark.tags ?? '').split(' ').filter(Boolean);
    const put: AnnotationPut = {
      sourceId: source.id,
      versionId: source.versionId,
      kind: mark.kind,
      note: mark.note ?? '',
      tags,
      anchor: {
        ...describe(indexText(text.text, text.outline), range(start, end)),
        ...(spot ? { spot } : {}),
      } as AnnotationPut['anchor'],
      classIds,
      held: mark.held === true,
      teachersOnly: mark.teachersOnly === true,
      groupIds: mark.inOwnGroup ? [this.groupOf.get(mark.by)!] : [],
    };
    await this.send(mark.by, 'PUT', `/api/annotations/${id}`, put);
    const words = `${mark.source} ${mark.quote}`;
    if ((classIds.length > 0 && mark.note) || !this.noted.has(words)) this.noted.set(words, id);
    return id;
  }

  private async send<T>(
    by: string,
    method: 'GET' | 'POST' | 'PUT' | 'PATCH',
    url: string,
    payload?: object,
  ): Promise<T> {
    const answer = await this.app.inject({
      method,
      url,
      headers: { cookie: this.cookies.get(by)! },
      remoteAddress: `10.9.1.${[...this.cookies.keys()].indexOf(by)}`,
      ...(payload ? { payload } : {}),
    });
    if (answer.statusCode >= 400) throw new Error(`${method} ${url}: ${answer.body}`);
    return (answer.statusCode === 204 ? undefined : answer.json()) as T;
  }
}
