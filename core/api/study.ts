import { string } from 'yup';
import { EXCERPT_STATES } from '../study/follow';
import {
  JOINS,
  excerptsPutSchema,
  studyNotePatchSchema,
  studyNotePutSchema,
  type ExcerptsPut,
  type StudyCandidates,
  type StudyNote,
  type StudyNoteRow,
} from '../wire';
import { endpoint } from './endpoint';
import { pageSchema } from './find';
import { amount, fields, id, ids, list, shape, text, time } from './shape';
import { kind, markedWords } from './shapes/marks';

/** Bytes of a body: the longest note, each of its characters in three bytes of UTF-8. */
const LONGEST_BODY = 4_000_000;
const row = {
  id: id(),
  title: text(),
  sourceId: string().nullable().defined(),
  words: amount(),
  createdAt: time(),
  changedAt: time(),
  version: amount(),
};
const studyNoteRow = shape<StudyNoteRow>()(fields({ ...row, excerpts: amount() }));
const studyNoteFields = fields({
  ...row,
  markdown: text(),
  joins: string().oneOf(JOINS).required(),
  kinds: ids(),
  excerpts: list(
    fields({
      annotationId: id(),
      state: string().oneOf(EXCERPT_STATES).required(),
      sourceId: string().nullable().defined(),
      kind: kind.nullable().defined(),
      newer: string().nullable().defined(),
    }),
  ),
  references: list(fields({ sourceId: id(), words: text() })),
});
const studyNote = shape<StudyNote>()(studyNoteFields);
const candidates = shape<StudyCandidates>()(
  fields({
    candidates: list(
      fields({
        id: id(),
        sourceId: id(),
        kind,
        quote: markedWords,
        note: markedWords,
        language: text(),
        reference: text(),
        excerpt: text(),
      }),
    ),
    total: amount(),
  }),
);
const may = { thing: 'study note', as: 'owner' } as const;

/** Mine, the one that was changed last first; that of a source is there as soon as something is marked in it. */
export const listStudyNotes = endpoint('GET', '/api/notes', { answer: list(studyNoteRow) });
/** Makes a note under the id its author's page made; the same again changes nothing. */
export const putStudyNote = endpoint('PUT', '/api/notes/:id', {
  body: studyNotePutSchema,
  answer: studyNote,
  limit: LONGEST_BODY,
});
/** As it stands once it has followed its annotations. */
export const getStudyNote = endpoint('GET', '/api/notes/:id', { may, answer: studyNote });
export const patchStudyNote = endpoint('PATCH', '/api/notes/:id', {
  may,
  body: studyNotePatchSchema,
  answer: studyNote,
  limit: LONGEST_BODY,
});
export const restoreStudyNote = endpoint('POST', '/api/notes/:id/restore', {
  may: { thing: 'deleted study note', as: 'owner' },
  answer: studyNote,
});
/** Each stands in a note once: what is there already stays where it is. */
export const putExcerpts = endpoint('POST', '/api/notes/:id/excerpts', {
  may,
  body: excerptsPutSchema,
  answer: shape<ExcerptsPut>()(fields({ note: studyNoteFields, put: ids() })),
});
/** What I could put into it: what a search finds, or, without one, what I marked, without what stands there. */
export const listCandidates = endpoint('GET', '/api/notes/:id/candidates', {
  may,
  query: pageSchema,
  answer: candidates,
});
export const exportStudyNote = endpoint('GET', '/api/notes/:id/note.md', { may, gives: ['text/markdown'] });
/** That of a source I read; it is made where there is none. */
export const getSourceNote = endpoint('POST', '/api/sources/:id/note', {
  may: { thing: 'source', as: 'reader' },
  answer: studyNote,
});
