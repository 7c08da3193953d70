import { array, boolean, number, object, string } from 'yup';
import {
  againSchema,
  pictureEditSchema,
  READING_STATES,
  shelfSchema,
  sourceChangesSchema,
  sourcePatchSchema,
  sourceTagsSchema,
  exportSchema,
  type BroughtIn,
  type DeletedSource,
  type SourceChange,
  type SourceChangesMade,
} from '../wire';
import { endpoint } from './endpoint';
import { amount, fields, id, ids, list, shape, text, time } from './shape';
import { job } from './shapes/jobs';
import { person } from './shapes/marks';
import { comparison, ease, sourceDetail, sourceText, versionRow } from './shapes/sources';

const asReader = { thing: 'source', as: 'reader' } as const;
const asOwner = { thing: 'source', as: 'owner' } as const;

const versionNumber = () =>
  string().matches(/^\d{1,6}$/, {
    message: 'A version is named by its number: "${value}" is none.',
    excludeEmptyString: true,
  });
/** Which version of a source; the newest where nothing is said. */
export const ofVersion = object({ version: versionNumber() }).noUnknown();
const whoseSchema = object({
  whose: string()
    .oneOf(['mine', 'all'] as const)
    .default('mine'),
}).noUnknown();

export const getSource = endpoint('GET', '/api/sources/:id', { may: asReader, query: ofVersion, answer: sourceDetail });
export const getText = endpoint('GET', '/api/sources/:id/text', {
  may: asReader,
  query: ofVersion,
  answer: sourceText,
});
export const getEase = endpoint('GET', '/api/sources/:id/ease', { may: asReader, query: ofVersion, answer: ease });
export const patchSource = endpoint('PATCH', '/api/sources/:id', {
  may: asOwner,
  body: sourcePatchSchema,
  answer: sourceDetail,
});
export const putSourceTags = endpoint('PUT', '/api/sources/:id/tags', {
  may: asReader,
  body: sourceTagsSchema,
  answer: sourceDetail,
});
/** State of reading, place and what was read. */
export const putShelf = endpoint('PUT', '/api/sources/:id/shelf', { may: asReader, body: shelfSchema });
export const deleteSource = endpoint('DELETE', '/api/sources/:id', { may: asOwner });
export const restoreSource = endpoint('POST', '/api/sources/:id/restore', {
  may: { thing: 'deleted source', as: 'owner' },
});
export const listDeletedSources = endpoint('GET', '/api/sources/deleted', {
  answer: list(shape<DeletedSource>()(fields({ id: id(), title: text(), deletedAt: time(), marks: amount() }))),
});

const change = shape<SourceChange>()(
  fields({
    id: id(),
    state: string().oneOf(READING_STATES),
    ifState: string().oneOf(READING_STATES),
    addTags: array(id()),
    takeTags: array(id()),
    deleted: boolean(),
    putInto: object({ collectionId: id(), section: amount(), position: number() })
      .noUnknown()
      .optional()
      .default(undefined),
    takeFrom: string(),
    shareWith: string(),
    unshareFrom: string(),
  }),
);
/** Many at once; the answer says what takes back just that. */
export const changeSources = endpoint('POST', '/api/sources/changes', {
  body: sourceChangesSchema,
  answer: shape<SourceChangesMade>()(fields({ undo: list(change), missing: ids() })),
});

/** The page fetched anew, as a version beside those that are there; a letter read anew with its pictures. */
export const keepAgain = endpoint('POST', '/api/sources/:id/again', { may: asOwner, body: againSchema, answer: job });
/** Newest first. */
export const listVersions = endpoint('GET', '/api/sources/:id/versions', { may: asReader, answer: list(versionRow) });
/** What changed between two versions by their numbers; without them, from the last but one to the newest. */
export const compareVersions = endpoint('GET', '/api/sources/:id/changes', {
  may: asReader,
  query: object({ from: versionNumber(), to: versionNumber() }).noUnknown(),
  answer: comparison,
});

/** A PNG picture in the place of the one a source holds. Nothing of the former picture is kept. */
export const putPictureOfSource = endpoint('PUT', '/api/sources/:id/picture', {
  may: asOwner,
  query: pictureEditSchema,
  takes: ['image/png'],
  limit: 40 * 1024 * 1024,
  answer: sourceDetail,
});
export const getLead = endpoint('GET', '/api/sources/:id/lead', { may: asReader, gives: ['image/*'] });
export const listReaders = endpoint('GET', '/api/sources/:id/readers', { may: asReader, answer: list(person) });
/** From what the source says, and from habit; those it has are left out. */
export const suggestTagsFor = endpoint('GET', '/api/sources/:id/tag-suggestions', { may: asReader, answer: ids() });
/** The collections that hold it, by their ids. */
export const listHolding = endpoint('GET', '/api/sources/:id/collections', { may: asReader, answer: ids() });

const W3C_ANNOTATIONS = 'application/ld+json';
/** One's own annotations, or everybody's that one sees. */
export const exportNotes = endpoint('GET', '/api/sources/:id/study-notes.md', {
  may: asReader,
  query: whoseSchema,
  gives: ['text/markdown'],
});
export const exportAnnotations = endpoint('GET', '/api/sources/:id/annotations.jsonld', {
  may: asReader,
  query: whoseSchema,
  gives: [W3C_ANNOTATIONS],
});
/**
 * Annotations of another program become the sender's own, seen by them alone. The same file twice adds nothing; what was
 * deleted since comes back.
 */
export const importAnnotations = endpoint('POST', '/api/sources/:id/annotations.jsonld', {
  may: asReader,
  takes: [W3C_ANNOTATIONS, 'application/json'],
  answer: shape<BroughtIn>()(
    fields({ brought: amount(), already: amount(), refused: list(fields({ number: amount(), why: text() })) }),
  ),
});
/** Chosen sources as a table, as bookmarks, or with their study notes. */
export const exportSources = endpoint('POST', '/api/sources/take-out', {
  body: exportSchema,
  gives: ['text/csv', 'text/html', 'application/zip'],
});

/** The page as it was kept, in which nothing can be done. */
export const getSnapshot = endpoint('GET', '/snapshots/:id/', {
  may: { thing: 'version', as: 'reader' },
  gives: ['text/html'],
});
export const getSnapshotAsset = endpoint('GET', '/snapshots/:id/asset/:hash', {
  may: { thing: 'version', as: 'reader' },
  gives: ['*/*'],
});
/** The file a version was made of: whole, or the range asked for (RFC 9110, 14). */
export const getFile = endpoint('GET', '/files/:id', { may: { thing: 'version', as: 'reader' }, gives: ['*/*'] });
