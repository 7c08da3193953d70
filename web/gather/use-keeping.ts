import { useState } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { formatTextDirective, readAddress } from '@avrelle/core/anchor';
import type { Job } from '@avrelle/core/wire';
import { v7 } from 'uuid';
import { wordsOf } from '../data/api';
import { call } from '../data/call';
import { withJob } from '../data/jobs';
import { keys } from '../data/queries';

/** Starting to keep an address or files; what a pasted address names on its page is remembered, so that it opens there. */
export function useKeeping() {
  const client = useQueryClient();
  const [wrong, setWrong] = useState('');
  const [busy, setBusy] = useState(false);
  const [passages, setPassages] = useState<ReadonlyMap<string, string>>(new Map());

  const start = async (work: Promise<Job>): Promise<Job | undefined> => {
    setBusy(true);
    try {
      const job = await work;
      setWrong('');
      client.setQueryData<Job[]>(keys.jobs, (jobs) => withJob(jobs ?? [], job));
      return job;
    } catch (error) {
      setWrong(wordsOf(error));
      return undefined;
    } finally {
      setBusy(false);
    }
  };
  const keep = (given: string, more: { look?: boolean } = {}): Promise<Job | undefined> => {
    const id = v7();
    const { address, directives } = readAddress(given);
    if (directives[0]) setPassages((before) => new Map(before).set(id, formatTextDirective(directives[0]!)));
    return start(call('POST /api/keep', { body: { id, address, ...more } }));
  };
  return {
    wrong,
    busy,
    passages,
    start,
    keep,
    upload: (files: Iterable<File>) =>
      Promise.all(
        uploads(files).map((form) => start(call('POST /api/uploads/:id', { params: { id: v7() }, file: form }))),
      ),
  };
}

const isTranscript = (file: File): boolean => /\.(vtt|srt)$/i.test(file.name);
const bare = (file: File): string => file.name.replace(/\.[^.]+$/, '').toLowerCase();

/** One form a file; a transcript goes with the recording of its name, or with the only other file there is. */
export function uploads(files: Iterable<File>): FormData[] {
  const all = [...files];
  const transcripts = all.filter(isTranscript);
  const others = all.filter((file) => !isTranscript(file));
  const taken = new Set<File>();
  const forms = others.map((file) => {
    const form = new FormData();
    const words = transcripts.find((t) => bare(t) === bare(file)) ?? (others.length === 1 ? transcripts[0] : undefined);
    form.append('file', file, nameOf(file));
    if (words) {
      taken.add(words);
      form.append('transcript', words);
    }
    return form;
  });
  return [
    ...forms,
    ...transcripts
      .filter((t) => !taken.has(t))
      .map((t) => {
        const form = new FormData();
        form.append('file', t);
        return form;
      }),
  ];
}

/** A pasted picture has no name of its own. */
const nameOf = (file: File): string =>
  /^image\.\w+$/.test(file.name)
    ? `Pasted picture ${new Date().toISOString().slice(0, 16).replace('T', ' ').replace(':', '.')}${file.name.slice(5)}`
    : file.name;
