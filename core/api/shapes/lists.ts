import { array, boolean, mixed, number, object, string } from 'yup';
import {
  ANNOTATION_GROUPINGS,
  MAY,
  type AnnotationGroup,
  type AnnotationHit,
  type AnnotationPage,
  type CollectionDetail,
  type CollectionRow,
  type Desk,
  NOTICED,
  type DeskNotice,
  type LibraryOutline,
  type SavedSearch,
  type SourcePage,
  type TopicPage,
} from '../../wire';
import { amount, fields, flag, id, ids, list, shape, text, time } from '../shape';
import { kind, markedWords, person, yes } from './marks';
import { classLabel, foundSource, sourceKind, sourceRow } from './sources';

export const sourcePage = shape<SourcePage>()(fields({ sources: list(foundSource), total: amount(), meant: string() }));

const annotationHit = shape<AnnotationHit>()(
  fields({
    id: id(),
    sourceId: id(),
    title: text(),
    site: text(),
    sourceKind: sourceKind(),
    language: text(),
    openAt: id(),
    rootId: string().nullable().defined(),
    kind,
    author: person,
    quote: markedWords,
    note: markedWords,
    tags: ids(),
    classIds: ids(),
    teachersOnly: yes(),
    groupIds: shape<readonly string[] | undefined>()(array(id())),
    held: yes(),
    createdAt: time(),
    version: amount(),
    group: string(),
  }),
);
const annotationGroup = shape<AnnotationGroup>()(fields({ key: text(), name: text(), total: amount() }));
export const annotationPage = shape<AnnotationPage>()(
  fields({
    annotations: list(annotationHit),
    total: amount(),
    listed: amount(),
    by: string().oneOf(ANNOTATION_GROUPINGS).nullable().defined(),
    groups: list(annotationGroup),
    meant: string(),
  }),
);

const notice = shape<DeskNotice>()(
  fields({
    id: id(),
    actor: text(),
    sourceId: id().nullable(),
    sourceTitle: text(),
    annotationId: id().nullable(),
    rootId: id().nullable(),
    quote: text(),
    why: string().oneOf(NOTICED).required(),
    notes: amount(),
    class: classLabel.optional(),
    reply: text(),
    at: time(),
    seen: flag(),
  }),
);
export const desk = shape<Desk>()(
  fields({
    begun: boolean(),
    notices: list(notice),
    unseen: amount(),
    cards: amount(),
    asking: list(fields({ class: classLabel, people: amount() })),
    questions: list(
      fields({
        class: classLabel,
        source: fields({ id: id(), title: text(), language: text() }),
        firstId: id(),
        count: amount(),
      }),
    ),
    reading: list(sourceRow),
    fresh: list(sourceRow),
    waiting: amount(),
    spare: sourceRow.nullable().defined(),
    past: object({ ago: text(), annotations: list(annotationHit) })
      .noUnknown()
      .nullable()
      .defined(),
  }),
);

const collection = {
  id: id(),
  name: text(),
  parentId: string().nullable().defined(),
  classId: string().nullable().defined(),
  className: string().nullable().defined(),
  may: string().oneOf(MAY).required(),
  owned: flag(),
  ownerName: text(),
  count: amount(),
  version: amount(),
};
const collectionRow = shape<CollectionRow>()(fields(collection));
export const collectionDetail = shape<CollectionDetail>()(
  fields({
    ...collection,
    sections: list(text()),
    items: list(fields({ source: sourceRow, section: amount() })),
    hidden: amount(),
  }),
);
const savedSearch = shape<SavedSearch>()(
  fields({
    id: id(),
    name: text(),
    query: text(),
    classId: string().nullable().defined(),
    owned: flag(),
    ownerName: text(),
    count: number().nullable().defined(),
    version: amount(),
  }),
);
export const outline = shape<LibraryOutline>()(
  fields({
    all: amount(),
    states: fields({ to_read: amount(), reading: amount(), finished: amount(), set_aside: amount() }),
    tags: list(fields({ tag: id(), count: amount() })),
    collections: list(collectionRow),
    searches: list(savedSearch),
    deleted: amount(),
  }),
);

export const topicPage = shape<TopicPage>()(
  fields({
    tag: id(),
    text: text(),
    writtenAt: string().nullable().defined(),
    version: amount(),
    related: list(fields({ tag: id(), together: amount() })),
    pairs: list(fields({ a: id(), b: id(), together: amount() })),
  }),
);

/** Values by names that are not known before. */
export const byName = <T extends 'string' | 'number'>(type: T) =>
  mixed<Readonly<Record<string, T extends 'string' ? string : number>>>(
    (value): value is Readonly<Record<string, T extends 'string' ? string : number>> =>
      typeof value === 'object' && value !== null && Object.values(value).every((v) => typeof v === type),
  ).required();
