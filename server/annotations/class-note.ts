import { plainWords } from '@avrelle/core/markdown';
import type { AnnotationId, ClassNote, PersonId, SourceId } from '@avrelle/core/wire';
import { KIND_COLUMNS, kindFrom, type KindRow } from '../legend/queries';

/** Of an annotation `a` on a source `s` by a person `p`; its kinds come by KIND_JOIN. */
export const CLASS_NOTE = `
  a.id, a.source_id, s.title, s.language, a.author_id, p.name AS author, a.quote, a.note, ${KIND_COLUMNS}`;

export interface ClassNoteRow extends KindRow {
  readonly id: AnnotationId;
  readonly sourceId: SourceId;
  readonly title: string;
  readonly language: string;
  readonly authorId: PersonId;
  readonly author: string;
  readonly quote: string;
  readonly note: string;
}

export const classNoteOf = (row: ClassNoteRow): ClassNote => ({
  id: row.id,
  source: { id: row.sourceId, title: row.title, language: row.language },
  author: { id: row.authorId, name: row.author },
  kind: kindFrom(row),
  quote: row.quote,
  words: plainWords(row.note),
});
