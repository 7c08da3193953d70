import { useEffect, useRef, useState } from 'react';
import { useQueryClient, type QueryClient, type QueryKey } from '@tanstack/react-query';
import { linksIn } from '@avrelle/core/note';
import type {
  Annotation,
  AnnotationId,
  Batch,
  Job,
  PersonId,
  StreamEvent,
  StudyNote,
  Welcome,
} from '@avrelle/core/wire';
import { hideAnnotation, showAnnotation } from './annotation-cache';
import { withJob } from './jobs';
import { liveStream, type Heard } from './live-stream';
import { keys } from './keys';
import { renew } from './stale';
import { flushOnInput, defer } from './deferred';

/** Listens to the event stream while a person is signed in, from the cursor `since` on. True while the connection stands. */
export function useLive(personId: PersonId | undefined, since: string): boolean {
  const client = useQueryClient();
  const [connected, setConnected] = useState(true);
  const first = useRef(since);
  useEffect(() => {
    first.current = since;
  });
  useEffect(() => flushOnInput(window), []);
  useEffect(
    () =>
      personId
        ? liveStream.listen(personId, first.current, {
            connected: setConnected,
            hear: (heard) => defer(() => hear(client, heard)),
          })
        : undefined,
    [client, personId],
  );
  return connected;
}

function hear(client: QueryClient, heard: Heard): void {
  switch (heard.type) {
    case 'event':
      return receive(client, heard.event);
    case 'reload':
      return void client.invalidateQueries();
    // Perhaps because the session has ended.
    case 'closed':
      return void renew(client, 'welcome');
    // Another database is there now: nothing on this page may be what is there. What is half-written is stored.
    case 'restart':
      return location.reload();
  }
}

/** Brings one event into what the pages know. */
export function receive(client: QueryClient, event: StreamEvent): void {
  switch (event.type) {
    case 'annotation': {
      if (event.annotation.classIds.length > 0) renewProgress(client);
      if (asksHere(client, event.annotation.id)) void renew(client, 'questions');
      if (standsInNotes(client, event.annotation)) renewStudy(client);
      if (linksIn(event.annotation.note).length > 0) void renew(client, 'links');
      return patch(client, keys.annotations(event.annotation.sourceId), () => showAnnotation(client, event.annotation));
    }
    case 'gone':
      renewProgress(client);
      renewStudy(client);
      if (asksHere(client, event.annotationId)) void renew(client, 'questions');
      return patch(client, keys.annotations(event.sourceId), () =>
        hideAnnotation(client, event.sourceId, event.annotationId),
      );
    case 'source':
      return void renew(client, 'source', event.sourceId);
    case 'key':
      return void renew(client, 'kinds');
    case 'library':
    case 'arrivals':
    case 'desk':
    case 'threads':
    case 'questions':
    case 'walkthroughs':
    case 'study':
    case 'review':
    case 'live':
    case 'classes':
      return void renew(client, event.type);
    case 'job':
      return receiveJob(client, event.job);
  }
}

/** Whether a note is one of the questions that are shown. */
const asksHere = (client: QueryClient, id: AnnotationId): boolean =>
  client
    .getQueriesData<readonly { readonly id: string }[]>({ queryKey: keys.questions })
    .some(([, questions]) => questions?.some((question) => question.id === id));

/** A class that writes is heard of many times a second; how far it is is asked for once in this time, in milliseconds. */
const PROGRESS_EVERY = 2_000;
let asked: ReturnType<typeof setTimeout> | undefined;

function renewProgress(client: QueryClient): void {
  asked ??= setTimeout(() => {
    asked = undefined;
    void renew(client, 'assignments');
  }, PROGRESS_EVERY);
}

/** What I write can come into notes of mine; of others', what stands in one that is shown, and what answers it. */
function standsInNotes(client: QueryClient, { id, rootId, author }: Annotation): boolean {
  if (author.id === client.getQueryData<Welcome>(keys.welcome)?.me?.id) return true;
  return client
    .getQueriesData<StudyNote>({ queryKey: keys.openNotes })
    .some(([, note]) => note?.excerpts.some((e) => e.annotationId === id || e.annotationId === rootId));
}

/** Study notes follow what is marked; several marks at once are one reason to ask, so many milliseconds later. */
const STUDY_AFTER = 50;
let studied: ReturnType<typeof setTimeout> | undefined;

function renewStudy(client: QueryClient): void {
  studied ??= setTimeout(() => {
    studied = undefined;
    void renew(client, 'study');
  }, STUDY_AFTER);
}

/** Writes an event into what is known. An answer that was on its way may know less, and is asked for again. */
function patch(client: QueryClient, queryKey: QueryKey, write: () => void): void {
  write();
  if (client.isFetching({ queryKey }) > 0) void client.invalidateQueries({ queryKey });
}

function receiveJob(client: QueryClient, job: Job): void {
  if (job.batchId !== null)
    return patch(client, keys.lists, () =>
      client.setQueryData<Batch[]>(keys.lists, (lists) =>
        lists?.map((batch) =>
          batch.id === job.batchId ? { ...batch, jobs: batch.jobs.map((j) => (j.id === job.id ? job : j)) } : batch,
        ),
      ),
    );
  if (client.getQueryData(keys.jobs))
    patch(client, keys.jobs, () => client.setQueryData<Job[]>(keys.jobs, (jobs) => jobs && withJob(jobs, job)));
  else void renew(client, 'jobs');
}
