import { useEffect, useState } from 'react';
import { useQueryClient, type QueryClient } from '@tanstack/react-query';
import type { Job, StreamEvent } from '@avrelle/core/wire';
import { hideAnnotation, showAnnotation } from './annotation-cache';
import { withJob } from './jobs';
import { keys } from './queries';

/** Listens to the event stream while a person is signed in. True while the connection stands. */
export function useLive(personId: string | undefined): boolean {
  const client = useQueryClient();
  const [connected, setConnected] = useState(true);
  useEffect(() => {
    if (!personId) return;
    const stream = new EventSource('/api/events');
    let broken = false;
    stream.onopen = () => {
      setConnected(true);
      if (broken) void client.invalidateQueries();
      broken = false;
    };
    stream.onerror = () => {
      broken = true;
      setConnected(false);
    };
    stream.onmessage = (message) => receive(client, JSON.parse(message.data as string) as StreamEvent);
    stream.addEventListener('reload', () => void client.invalidateQueries());
    return () => stream.close();
  }, [client, personId]);
  return connected;
}

function receive(client: QueryClient, event: StreamEvent): void {
  switch (event.type) {
    case 'annotation': return showAnnotation(client, event.annotation);
    case 'gone': return hideAnnotation(client, event.sourceId, event.annotationId);
    case 'library': return void Promise.all([client.invalidateQueries({ queryKey: ['library'] }), client.invalidateQueries({ queryKey: ['source'] }), client.invalidateQueries({ queryKey: keys.desk })]);
    case 'source': return void ['source', 'annotations', 'versions', 'library'].map((key) => client.invalidateQueries({ queryKey: key === 'library' ? [key] : [key, event.sourceId] }));
    case 'desk': return void client.invalidateQueries({ queryKey: keys.desk });
    case 'classes': return void Promise.all(['classes', 'library', 'source', 'annotations', 'desk'].map((key) => client.invalidateQueries({ queryKey: [key] })));
    case 'job': return receiveJob(client, event.job);
  }
}

function receiveJob(client: QueryClient, job: Job): void {
  if (client.getQueryData(keys.jobs)) client.setQueryData<Job[]>(keys.jobs, (jobs) => jobs && withJob(jobs, job));
  else void client.invalidateQueries({ queryKey: keys.jobs });
}
