import { array, number, object, string, type InferType, type Schema } from 'yup';
import { LINES, MOST_KINDS, PIGMENTS, startingKind, type Kind } from '../legend/legend';
import { idSchema, UUID_V7, type LegendOwnerId } from './ids';

/** One sign as a reader counts: a letter with its marks, an emoji with its parts (UAX #29). */
const oneSign = (text: string | undefined): boolean =>
  text === undefined ||
  (text.trim() === text && [...new Intl.Segmenter('en', { granularity: 'grapheme' }).segment(text)].length === 1);

export const kindCodeSchema = () =>
  string().test(
    'kind',
    'A kind is named by its code in a Legend.',
    (code: string | null | undefined) =>
      code === undefined || code === null || startingKind(code) !== undefined || UUID_V7.test(code),
  );

const kindSchema = object({
  code: kindCodeSchema().required().notOneOf(['note'], 'The plain note is in every Legend and stays as it is.'),
  name: string().trim().required('Give every kind a name.').max(30, 'The name of a kind may have 30 characters.'),
  pigment: string().oneOf(PIGMENTS).required(),
  line: string().oneOf(LINES).required(),
  sign: string()
    .required('Give every kind a sign.')
    .max(16)
    .test('one', 'A sign is one character: “${value}” is not.', oneSign),
}).noUnknown();

const once =
  (what: 'code' | 'name') =>
  (kinds: readonly Record<'code' | 'name', string>[] | undefined): boolean =>
    new Set((kinds ?? []).map((k) => k[what].toLowerCase())).size === (kinds ?? []).length;

export const legendPutSchema = object({
  version: number().required().integer().min(0),
  /** The plain note, which its type allows, is refused. */
  kinds: array((kindSchema as Schema<Kind>).required())
    .required()
    .min(1, 'A Legend needs at least one kind.')
    .max(MOST_KINDS, `A Legend may have ${MOST_KINDS} kinds, one for each digit.`)
    .test('codes', 'The same kind stands twice in this Key.', once('code'))
    .test('names', 'Two kinds of a Legend cannot have the same name.', once('name')),
}).noUnknown();
export type LegendPut = InferType<typeof legendPutSchema>;

export const replaceKindSchema = object({
  from: kindCodeSchema().required(),
  to: kindCodeSchema().required(),
  /** Only these; all of them where nothing is said. */
  ids: array(idSchema().required()).max(50_000).default(undefined),
}).noUnknown();

/** The Legend of a person or a class. */
export interface OwnedLegend {
  readonly ownerId: LegendOwnerId;
  /** The class's; null for one's own. */
  readonly className: string | null;
  /** In the order of their digits. Empty for a class that has none of its own. */
  readonly kinds: readonly Kind[];
  /** How many annotations of mine (of the class, for a class's) are of each kind, by code. */
  readonly uses: Readonly<Record<string, number>>;
  /** 0 while it was never changed. */
  readonly version: number;
  readonly mayEdit: boolean;
}

export interface Legends {
  readonly mine: OwnedLegend;
  readonly classes: readonly OwnedLegend[];
}

/** What became of replacing a kind throughout. */
export interface Replaced {
  readonly ids: readonly string[];
}
