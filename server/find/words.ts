import type { ForClass } from '@avrelle/core/audience';
import type { PersonId } from '@avrelle/core/wire';
import { spaced } from '../db/spaced';
import type { Asker } from './asker';

/** Control characters mean nothing to anybody, and end a text for the search engine. */
// eslint-disable-next-line no-control-regex
const CONTROLS = /[\u0000-\u001f]/g;

/** Words as one FTS5 phrase. A phrase is looked for as it stands; what is no phrase also as the beginning of longer words. */
export const wordsQuery = (words: string, phrase: boolean): string =>
  `"${spaced(words.replace(/"/g, ' ').replace(CONTROLS, ' '))}"${phrase ? '' : '*'}`;

/** How people and classes are named in the index of annotations. */
export const personToken = (id: string): string => `p${id.replaceAll('-', '')}`;
export const classToken = (id: string): string => `c${id.replaceAll('-', '')}`;
/** A class of which only who teaches it sees something. */
export const teachersToken = (id: string): string => `t${id.replaceAll('-', '')}`;

const groupToken = (id: string): string => `g${id.replaceAll('-', '')}`;

function tokensOf({ classId, groupId, teachersOnly, held, hidden }: ForClass): readonly string[] {
  if (teachersOnly || held || hidden) return [teachersToken(classId)];
  return groupId === null ? [classToken(classId)] : [teachersToken(classId), groupToken(groupId)];
}

/** For the column `audience`. What is for teachers or a group alone names whom it answers, who sees it, too. */
export const audienceOf = (authorId: PersonId, classes: readonly ForClass[], answers?: PersonId): string =>
  [
    personToken(authorId),
    ...classes.flatMap(tokensOf),
    ...(answers !== undefined && classes.some((c) => c.teachersOnly || c.groupId !== null)
      ? [personToken(answers)]
      : []),
  ].join(' ');

/** Annotations that may be for the asker, of those that a query finds; the rule of who sees what has the last word. */
export function forAsker({ me, classes, taught, groups }: Asker, query?: string): string {
  const tokens = [personToken(me), ...classes.map(classToken), ...taught.map(teachersToken), ...groups.map(groupToken)];
  const audience = `audience : (${tokens.map((token) => `"${token}"`).join(' OR ')})`;
  return query === undefined ? audience : `(${audience}) AND (${query})`;
}
