import { array, boolean, mixed, number, string } from 'yup';
import { INLINE_TYPES, type InlineStyle } from '../../text/inline';
import type { Anchor, Candidate } from '../../anchor/anchor';
import type { Spot } from '../../anchor/spot';
import { LINES, PIGMENTS, type Kind, type Pigment } from '../../legend/legend';
import type { Marked } from '../../query/mark-words';
import {
  ELSEWHERE,
  type Annotation,
  type AnnotationPlace,
  type HeldIn,
  type HiddenIn,
  type InGroup,
} from '../../wire/annotation';
import { amount, fields, flag, id, ids, list, shape, text, time } from '../shape';

export const person = fields({ id: id(), name: text() });

export const pigment = () =>
  string()
    .oneOf([...PIGMENTS, 'plain'] as Pigment[])
    .required();
export const kind = shape<Kind>()(
  fields({
    code: id(),
    name: text(),
    sign: text(),
    pigment: pigment(),
    line: string()
      .oneOf([...LINES, 'hairline'] as Kind['line'][])
      .required(),
  }),
);

const inlineStyle = shape<InlineStyle>()(fields({ type: string().oneOf(INLINE_TYPES).required(), value: text() }));
const marked = () => array(fields({ text: text(), hit: flag(), as: array(inlineStyle) }));
export const markedWords = shape<Marked>()(marked().required());
export const markedOrNone = shape<Marked | undefined>()(marked());

/** What is no words; its own check is that of what is sent. */
const spot = mixed<Spot>((value): value is Spot => typeof value === 'object' && value !== null && 'type' in value);
const anchor = shape<Anchor | null>()(
  fields({
    quote: fields({ exact: text(), prefix: text(), suffix: text() }),
    position: fields({ start: amount(), end: amount() }),
    block: string(),
    headings: array(text()),
    repeats: number(),
    rival: number(),
    spot,
  })
    .nullable()
    .defined(),
);

const candidate = shape<Candidate>()(fields({ start: amount(), end: amount(), likeness: amount() }));
const place = shape<AnnotationPlace | null>()(
  fields({
    versionId: id(),
    state: string()
      .oneOf(['exact', 'shifted', 'edited', 'lost'] as const)
      .required(),
    start: number().nullable().defined(),
    end: number().nullable().defined(),
    confidence: amount(),
    candidates: list(candidate),
    byHand: flag(),
  })
    .nullable()
    .defined(),
);

/** Absent where it is not so. */
export const yes = () => shape<true | undefined>()(boolean().oneOf([true as const]));
const heldIn = shape<readonly HeldIn[] | undefined>()(
  array(fields({ classId: id(), releaseAt: string().nullable().defined() })),
);

const hiddenIn = shape<readonly HiddenIn[] | undefined>()(array(fields({ classId: id(), reason: text(), by: text() })));

const inGroups = shape<readonly InGroup[] | undefined>()(array(fields({ classId: id(), groupId: id(), name: text() })));

export const annotation = shape<Annotation>()(
  fields({
    id: id(),
    sourceId: id(),
    versionId: id(),
    author: person,
    kind,
    note: text(),
    tags: ids(),
    anchor,
    quoted: markedOrNone,
    place,
    classIds: ids(),
    teachersOnly: yes(),
    groups: inGroups,
    held: heldIn,
    hidden: hiddenIn,
    elsewhere: string().oneOf(ELSEWHERE),
    endorsed: string(),
    rootId: string().nullable().defined(),
    parentId: string().nullable().defined(),
    createdAt: time(),
    updatedAt: time(),
    version: amount(),
    deleted: boolean(),
  }),
);

/** Fields of a note of a class in a list. */
export const classNote = {
  id: id(),
  source: fields({ id: id(), title: text(), language: text() }),
  author: person,
  kind,
  quote: text(),
  words: text(),
};
