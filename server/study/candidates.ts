import { excerptsOf } from '@avrelle/core/study';
import type { Me, SourceId, StudyCandidates, StudyNoteId } from '@avrelle/core/wire';
import type { Context } from '../context';
import { askerOf } from '../find/asker-of';
import { annotationHits, findAnnotations, readQuery } from '../find/find';
import { currentExcerpts } from './excerpts';
import { marksIn, newestMarks, rootsAmong, seqsOf, storedNote } from './queries';

interface Asked {
  readonly q: string;
  readonly offset: number;
  readonly limit: number;
  readonly day?: string | undefined;
  readonly ahead: number;
}

/**
 * What could be put into a note and does not stand there: what a search finds; without one, of a note of one source the
 * marks of that, of another one's own, the newest first.
 */
export function candidatesFor(context: Context, me: Me, id: StudyNoteId, asked: Asked): StudyCandidates {
  const { db } = context;
  const note = storedNote(db, id)!;
  const found = foundFor(context, me, note.sourceId, asked);
  const standing = new Set(
    seqsOf(
      db,
      excerptsOf(note.markdown).map((e) => e.annotationId),
    ),
  );
  const free = found.filter((seq) => !standing.has(seq));
  const hits = annotationHits(db, me.id, free.slice(asked.offset, asked.offset + asked.limit));
  const written = new Map(
    currentExcerpts(
      db,
      me.id,
      hits.map((hit) => hit.id),
    ).map((one) => [one.annotationId, one]),
  );
  const candidates = hits.flatMap(({ id: annotationId, sourceId, kind, quote, note: words, language }) => {
    const one = written.get(annotationId);
    if (!one) return [];
    const { reference, text: excerpt } = one;
    return [{ id: annotationId, sourceId, kind, quote, note: words, language, reference, excerpt }];
  });
  return { candidates, total: free.length };
}

/** Row numbers of what stands in sources, answers to it left out. */
function foundFor(context: Context, me: Me, sourceId: SourceId | null, asked: Asked): readonly number[] {
  const { db } = context;
  if (asked.q.trim() !== '')
    return rootsAmong(db, findAnnotations(db, readQuery(asked.q), askerOf(context, me.id, asked), 'best'));
  if (sourceId === null) return newestMarks(db, me.id);
  return seqsOf(
    db,
    marksIn(db, me.id, sourceId).map((mark) => mark.id),
  );
}
