import { useQueryClient } from '@tanstack/react-query';
import { STATE_WORDS, type ReadingState, type SourceChange, type SourceRow } from '@avrelle/core/wire';
import { request, wordsOf } from '../data/api';
import { useMessages } from '../ui/Messages';
import { count } from '../ui/when';

export type Fact = 'title' | 'author' | 'site' | 'publishedAt' | 'language';

export interface Changing {
  state(rows: readonly SourceRow[], state: ReadingState): Promise<boolean>;
  addTags(rows: readonly SourceRow[], tags: readonly string[]): Promise<boolean>;
  takeTag(rows: readonly SourceRow[], tag: string): Promise<boolean>;
  remove(rows: readonly SourceRow[]): Promise<boolean>;
  /** Into a collection, or out of it. */
  file(rows: readonly SourceRow[], collection: { readonly id: string; readonly name: string }, adds?: boolean): Promise<boolean>;
  /** Corrects what is known of one of one's own. */
  facts(row: SourceRow, fields: Partial<Record<Fact, string>>): Promise<boolean>;
  share(rows: readonly SourceRow[], shared: { readonly id: string; readonly name: string }): Promise<boolean>;
}

/** Changes to one source or many: at once, told in words, with a way back. */
export function useChanging(): Changing {
  const client = useQueryClient(), messages = useMessages();
  const send = async (work: () => Promise<unknown>, words: string, undo: (() => Promise<unknown>) | undefined): Promise<boolean> => {
    try {
      await work();
      messages.tell(words, undo && { label: 'Undo', run: () => void send(undo, 'Undone.', undefined) });
      return true;
    } catch (error) {
      messages.warn(wordsOf(error));
      return false;
    } finally {
      for (const key of ['library', 'source']) void client.invalidateQueries({ queryKey: [key] });
    }
  };
  const change = (changes: readonly SourceChange[]) => request('POST', '/api/sources/changes', { changes });
  const named = (rows: readonly SourceRow[]): string => (rows.length === 1 ? `“${rows[0]!.title}”` : count(rows.length, 'source'));
  const filing = (rows: readonly SourceRow[], id: string, adds: boolean) => request(adds ? 'POST' : 'DELETE', `/api/collections/${id}/sources`, { sourceIds: rows.map((r) => r.id) });
  return {
    state: (rows, state) => send(() => change(rows.map((r) => ({ id: r.id, state }))), `${named(rows)}: ${STATE_WORDS[state].toLowerCase()}.`, () => change(rows.map((r) => ({ id: r.id, state: r.state })))),
    addTags: (rows, tags) => send(() => change(rows.map((r) => ({ id: r.id, tags: [...new Set([...r.tags, ...tags])] }))), `${named(rows)} tagged ${tags.map((t) => `#${t}`).join(' ')}.`, () => change(rows.map((r) => ({ id: r.id, tags: [...r.tags] })))),
    takeTag: (rows, tag) => send(() => change(rows.map((r) => ({ id: r.id, tags: r.tags.filter((t) => t !== tag) }))), `#${tag} taken from ${named(rows)}.`, () => change(rows.map((r) => ({ id: r.id, tags: [...r.tags] })))),
    remove: (rows) => send(() => change(rows.map((r) => ({ id: r.id, deleted: true }))), `${named(rows)} deleted, with all marks. For thirty days it can be brought back.`, () => Promise.all(rows.map((r) => request('POST', `/api/sources/${r.id}/restore`, {})))),
    file: (rows, { id, name }, adds = true) => send(() => filing(rows, id, adds), `${named(rows)} ${adds ? 'put into' : 'taken out of'} ${name}.`, () => filing(rows, id, !adds)),
    facts: async (row, fields) => {
      const patch = (version: number, given: object) => request('PATCH', `/api/sources/${row.id}`, { version, ...given }), before = Object.fromEntries(Object.keys(fields).map((field) => [field, row[field as Fact] ?? '']));
      const held = await send(() => patch(row.version, fields), `“${fields.title ?? row.title}” corrected.`, () => patch(row.version + 1, before));
      // The next fact is corrected in the row as it stands by then.
      if (held) await client.invalidateQueries({ queryKey: ['library'] }, { cancelRefetch: false });
      return held;
    },
    share: (rows, { id, name }) => send(() => Promise.all(rows.map((r) => request('PUT', `/api/classes/${id}/sources/${r.id}`, {}))), `${named(rows)} shared with ${name}.`, () => Promise.all(rows.map((r) => request('DELETE', `/api/classes/${id}/sources/${r.id}`)))),
  };
}
