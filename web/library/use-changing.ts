import { useMemo } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import {
  STATE_WORDS,
  type ReadingState,
  type SourceChange,
  type SourceChangesMade,
  type SourceRow,
} from '@avrelle/core/wire';
import { wordsOf } from '../data/api';
import { call } from '../data/call';
import { renew } from '../data/queries';
import { useMessages } from '../ui/Messages';
import { count } from '../ui/when';
import { factCorrector, type Facts, type FactStore } from './correct-facts';

export interface Changing {
  state(rows: readonly SourceRow[], state: ReadingState): Promise<boolean>;
  addTags(rows: readonly SourceRow[], tags: readonly string[]): Promise<boolean>;
  takeTag(rows: readonly SourceRow[], tag: string): Promise<boolean>;
  remove(rows: readonly SourceRow[]): Promise<boolean>;
  /** Into a collection, or out of it. */
  file(
    rows: readonly SourceRow[],
    collection: { readonly id: string; readonly name: string },
    adds?: boolean,
  ): Promise<boolean>;
  /** Corrects what is known of one of one's own. */
  facts(row: SourceRow, fields: Facts): Promise<boolean>;
  share(rows: readonly SourceRow[], shared: { readonly id: string; readonly name: string }): Promise<boolean>;
}

const FACTS: FactStore = {
  read: (id) => call('GET /api/sources/:id', { params: { id } }),
  write: (id, body) => call('PATCH /api/sources/:id', { params: { id }, body }),
};

/** Changes to one source or many: at once, told in words, with a way back that takes back just what was changed. */
export function useChanging(): Changing {
  const client = useQueryClient();
  const messages = useMessages();
  const correct = useMemo(() => factCorrector(FACTS), []);
  /** `work` gives what takes it back. */
  const send = async (work: () => Promise<Undo>, words: string): Promise<boolean> => {
    try {
      const { undo, missing } = await work();
      const told = missing > 0 ? `${words} ${count(missing, 'source is', 'sources are')} not there any more.` : words;
      messages.tell(
        told,
        undo && {
          label: 'Undo',
          run: () =>
            void send(async () => {
              await undo();
              return { missing: 0 };
            }, 'Undone.'),
        },
      );
      return true;
    } catch (error) {
      messages.warn(wordsOf(error));
      return false;
    } finally {
      void renew(client, 'sources');
    }
  };
  const all = (rows: readonly SourceRow[], to: Omit<SourceChange, 'id'>, words: string): Promise<boolean> =>
    send(async () => {
      const made = await changeSources(rows.map(({ id }) => ({ id, ...to })));
      return {
        missing: made.missing.length,
        ...(made.undo.length > 0 ? { undo: () => changeSources(made.undo) } : {}),
      };
    }, words);
  return {
    state: (rows, state) => all(rows, { state }, `${named(rows)}: ${STATE_WORDS[state].toLowerCase()}.`),
    addTags: (rows, tags) =>
      all(rows, { addTags: [...tags] }, `${named(rows)} tagged ${tags.map((t) => `#${t}`).join(' ')}.`),
    takeTag: (rows, tag) => all(rows, { takeTags: [tag] }, `#${tag} taken from ${named(rows)}.`),
    remove: (rows) =>
      all(rows, { deleted: true }, `${named(rows)} deleted, with all marks. For thirty days it can be brought back.`),
    file: (rows, { id, name }, adds = true) =>
      all(
        rows,
        adds ? { putInto: { collectionId: id, section: -1 } } : { takeFrom: id },
        `${named(rows)} ${adds ? 'put into' : 'taken out of'} ${name}.`,
      ),
    share: (rows, { id, name }) => all(rows, { shareWith: id }, `${named(rows)} shared with ${name}.`),
    facts: async (row, fields) => {
      const words = `“${fields.title ?? row.title}” corrected.`;
      const held = await send(async () => ({ missing: 0, undo: await correct(row, fields) }), words);
      // The row shows what was written before it is told that it holds.
      if (held) await client.invalidateQueries({ queryKey: ['library'] }, { cancelRefetch: false });
      return held;
    },
  };
}

interface Undo {
  readonly missing: number;
  readonly undo?: () => Promise<unknown>;
}

const named = (rows: readonly SourceRow[]): string =>
  rows.length === 1 ? `“${rows[0]!.title}”` : count(rows.length, 'source');

/** Sends what is to be added, taken or set; gives what takes it back. */
export const changeSources = (changes: readonly SourceChange[]): Promise<SourceChangesMade> =>
  call('POST /api/sources/changes', { body: { changes } });
