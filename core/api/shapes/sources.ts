import type { NamedGroup } from '../../audience';
import { boolean, mixed, number, object, string, tuple } from 'yup';
import type { Block, Locator } from '../../text/stream';
import type { BlockRole } from '../../text/elements';
import type { Change } from '../../anchor/compare';
import {
  AMOUNTS,
  READING_STATES,
  SOURCE_KINDS,
  type ClassLabel,
  type Draft,
  type Ease,
  type Excerpt,
  type FoundSource,
  type KeptBefore,
  type SourceDetail,
  type SourceFacts,
  type SourceRow,
  type SourceText,
  type Strand,
} from '../../wire';
import type { Comparison, VersionRow } from '../../wire/version';
import { amount, fields, flag, id, ids, list, pair, shape, text, time } from '../shape';
import { kind, markedWords, pigment } from './marks';

export const classLabel = shape<ClassLabel>()(fields({ id: id(), name: text(), tint: text() }));
export const namedGroup = shape<NamedGroup>()(fields({ id: id(), name: text() }));
export const sourceKind = () => string().oneOf(SOURCE_KINDS).required();

const facts = shape<SourceFacts>()(
  fields({
    scripted: boolean(),
    missing: number(),
    remote: number(),
    pages: number(),
    scanned: number(),
    seconds: number(),
    transcript: boolean(),
    password: string(),
    encoding: string(),
  }),
);

export const keptBefore = shape<KeptBefore | null>()(
  object({ sourceId: id(), title: text(), keptAt: time(), mine: amount() }).noUnknown().nullable().defined(),
);

const strand = shape<Strand>()(
  fields({ marks: list(tuple([number().required(), pigment()]).required()), read: list(pair()) }),
);
const excerpt = shape<Excerpt>()(fields({ id: id(), kind, quote: markedWords, note: text() }));

const row = {
  id: id(),
  title: text(),
  author: text(),
  site: text(),
  address: string().nullable().defined(),
  kind: sourceKind(),
  language: text(),
  description: text(),
  publishedAt: string().nullable().defined(),
  keptAt: time(),
  amount: string().oneOf(AMOUNTS).required(),
  doi: text(),
  remark: text(),
  lead: string().nullable().defined(),
  minutes: amount(),
  state: string().oneOf(READING_STATES).required(),
  readShare: amount(),
  tags: ids(),
  marks: amount(),
  mine: amount(),
  strand,
  excerpts: list(excerpt),
  classes: list(classLabel),
  owned: flag(),
  ownerName: text(),
  version: amount(),
};
export const sourceRow = shape<SourceRow>()(fields(row));
export const foundSource = shape<FoundSource>()(
  fields({
    ...row,
    passage: object({ snippet: markedWords, start: amount(), end: amount() }).noUnknown().optional().default(undefined),
  }),
);
export const sourceDetail = shape<SourceDetail>()(
  fields({
    ...row,
    versionId: id(),
    versionNumber: amount(),
    versionKeptAt: time(),
    newest: amount(),
    width: number().nullable().defined(),
    facts,
    file: object({ mediaType: text(), size: amount() }).noUnknown().nullable().defined(),
    length: amount(),
    position: amount(),
    spans: list(pair()),
    heard: list(pair()),
  }),
);

const BLOCK_ROLES: readonly BlockRole[] = [
  'heading',
  'paragraph',
  'item',
  'cell',
  'caption',
  'code',
  'quotation',
  'cue',
];
const block = shape<Block>()(
  fields({
    start: amount(),
    end: amount(),
    role: string().oneOf(BLOCK_ROLES).required(),
    level: number(),
    path: text(),
    aside: boolean(),
    locator: mixed<Locator>((value): value is Locator => typeof value === 'object' && value !== null),
  }),
);
export const sourceText = shape<SourceText>()(fields({ versionId: id(), text: text(), outline: list(block) }));

export const ease = shape<Ease | null>()(
  object({ ease: amount(), words: amount(), sentences: amount() }).noUnknown().nullable().defined(),
);

export const versionRow = shape<VersionRow>()(fields({ id: id(), number: amount(), keptAt: time(), length: amount() }));
const change = shape<Change>()(
  fields({
    kind: string()
      .oneOf(['kept', 'removed', 'added'] as const)
      .required(),
    before: pair(),
    after: pair(),
  }),
);
export const comparison = shape<Comparison>()(
  fields({ from: versionRow, to: versionRow, before: text(), after: text(), changes: list(change) }),
);

export const draft = shape<Draft>()(
  fields({
    id: id(),
    meta: fields({
      title: text(),
      author: text(),
      site: text(),
      description: text(),
      language: text(),
      publishedAt: string().nullable().defined(),
      doi: text(),
    }),
    kind: sourceKind(),
    address: string().nullable().defined(),
    facts,
    minutes: amount(),
    before: keptBefore,
  }),
);
