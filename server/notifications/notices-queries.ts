import { plainWords } from '@avrelle/core/markdown';
import { noticedOf, type ClassId, type DeskNotice, type NotificationKind, type PersonId } from '@avrelle/core/wire';
import { IS_OPEN_CLASS, isSetForGroup, sees } from '../access/visible-queries';
import type { Db } from '../db/database';

const isMuted = (classId: string): string =>
  `EXISTS (SELECT 1 FROM muted_class y WHERE y.person_id = @me AND y.class_id = ${classId})`;
/** What stands in a muted class, and in no other of the asker's; `a` names an annotation. */
const MUTED = `(EXISTS (SELECT 1 FROM annotation_class x WHERE x.annotation_id = a.id AND ${isMuted('x.class_id')})
  AND NOT EXISTS (
    SELECT 1 FROM annotation_class x JOIN membership m ON m.class_id = x.class_id AND m.person_id = @me
    WHERE x.annotation_id = a.id AND NOT ${isMuted('x.class_id')}))`;
const FOLLOWED = `EXISTS (
  SELECT 1 FROM follow f WHERE f.person_id = @me
    AND (f.source_id = a.source_id OR f.root_id = r.id OR f.author_id = a.author_id))`;

/** A further condition on `n`, a notification, or `t`, a report; `at` is an expression for when it is told. */
type Only = (at: string) => string;
const ANY: Only = () => 'TRUE';

/** By what a notice is known in a mail; once more told, it is another. `n` names a notification. */
const ITEM = "n.id || '@' || n.created_at";
const unsaid = (item: string): string =>
  `NOT EXISTS (SELECT 1 FROM digest_item i WHERE i.person_id = @me AND i.item = ${item})`;
/** What a mail may still say: not seen, not said, and not older than `@since`. */
const FOR_MAIL: Only = (at) => `n.seen_at IS NULL AND ${at} > @since AND ${unsaid(ITEM)}`;

/** What answers or means one, is new in what one follows, by who wrote it and where, or is one’s own and hidden. */
const ofAnnotations = (only: Only): string => `
  SELECT n.id, coalesce(q.name, p.name) AS actor, a.source_id, s.title AS source_title, a.id AS annotation_id,
    r.id AS root_id, coalesce(r.quote, '') AS quote,
    CASE WHEN a.author_id = @me THEN 'hidden' WHEN EXISTS (
      SELECT 1 FROM annotation_link l WHERE l.annotation_id = a.id AND l.type = 'person' AND l.target = @me)
    THEN 'mention' WHEN @me NOT IN (r.author_id, coalesce(up.author_id, '')) AND EXISTS (
      SELECT 1 FROM annotation_link l JOIN annotation mine ON mine.id = l.target
      WHERE l.annotation_id = a.id AND l.type = 'annotation' AND mine.author_id = @me)
    THEN 'link' WHEN up.author_id = @me THEN 'answer' WHEN r.author_id = @me THEN 'thread'
    WHEN ${FOLLOWED} THEN 'followed' END AS why,
    coalesce(ac.hidden_reason, a.note) AS reply, max(n.created_at) AS at, n.seen_at IS NOT NULL AS seen,
    count(*) AS notes, 0 AS first, NULL AS class_id, NULL AS class_name, NULL AS tint, group_concat(${ITEM}) AS items,
    ${MUTED} AS muted
  FROM notification n
  JOIN annotation a ON a.id = n.annotation_id
  JOIN annotation r ON r.id = coalesce(a.root_id, a.id)
  LEFT JOIN annotation up ON up.id = a.parent_id
  JOIN person p ON p.id = a.author_id
  JOIN source s ON s.id = a.source_id
  LEFT JOIN annotation_class ac ON ac.annotation_id = a.id AND a.author_id = @me AND ac.hidden_reason IS NOT NULL
  LEFT JOIN person q ON q.id = ac.hidden_by
  WHERE n.person_id = @me AND ${only('n.created_at')} AND ${sees('a')}
    AND (a.author_id <> @me OR ac.hidden_reason IS NOT NULL)
  GROUP BY iif(why = 'followed', a.source_id || a.author_id || (n.seen_at IS NULL), n.id)`;

/** What was released, as much of it as is still shown. */
const ofReleases = (only: Only): string => `
  SELECT n.id, coalesce(p.name, c.name), l.source_id, s.title, a.id, a.id, a.quote, 'released',
    '', n.created_at, n.seen_at IS NOT NULL, count(*), min(a.start), NULL, NULL, NULL, ${ITEM}, ${isMuted('l.class_id')}
  FROM notification n
  JOIN release l ON l.id = n.release_id
  JOIN class c ON c.id = l.class_id
  LEFT JOIN person p ON p.id = l.released_by
  JOIN source s ON s.id = l.source_id
  JOIN annotation_class ac ON ac.release_id = l.id
  JOIN annotation a ON a.id = ac.annotation_id
  WHERE n.person_id = @me AND ${only('n.created_at')} AND ${sees('a')} GROUP BY n.id`;

/** What is reported and not settled, for who teaches. */
const ofReports = (only: Only): string => `
  SELECT t.class_id || t.annotation_id || t.person_id, p.name, a.source_id, s.title, a.id, coalesce(a.root_id, a.id),
    a.quote, 'reported', t.words, t.reported_at, 0, 1, 0, c.id, c.name, c.tint,
    t.class_id || t.annotation_id || t.person_id || '@' || t.reported_at, ${isMuted('c.id')}
  FROM membership m
  JOIN class c ON c.id = m.class_id
  JOIN report t ON t.class_id = m.class_id AND t.settled_at IS NULL
  JOIN person p ON p.id = t.person_id
  JOIN annotation a ON a.id = t.annotation_id
  JOIN source s ON s.id = a.source_id
  WHERE m.person_id = @me AND m.role <> 'student' AND ${only('t.reported_at')} AND ${sees('a')}`;

/** That one was let in to a class. */
const ofLettingIn = (only: Only): string => `
  SELECT n.id, coalesce(p.name, c.name), NULL, '', NULL, NULL, '', 'let_in', '', n.created_at, n.seen_at IS NOT NULL,
    0, 0, c.id, c.name, c.tint, ${ITEM}, ${isMuted('c.id')}
  FROM notification n
  JOIN membership m ON m.class_id = n.class_id AND m.person_id = n.person_id
  JOIN class c ON c.id = n.class_id AND ${IS_OPEN_CLASS}
  LEFT JOIN person p ON p.id = n.by_id
  WHERE n.person_id = @me AND ${only('n.created_at')} AND n.source_id IS NULL AND n.question_id IS NULL`;

/** What opens later is told when it opens. */
const OPENED = "max(n.created_at, coalesce(g.opens_at, ''))";
/** That a reading is set, or changed. */
const ofAssignments = (only: Only): string => `
  SELECT n.id, coalesce(p.name, c.name), g.source_id, s.title, NULL, NULL, '', iif(n.again, 'changed', 'set'), '',
    ${OPENED}, n.seen_at IS NOT NULL, 0, 0, c.id, c.name, c.tint, ${ITEM},
    ${isMuted('c.id')}
  FROM notification n
  JOIN assignment g ON g.class_id = n.class_id AND g.source_id = n.source_id
  JOIN class_reach w ON w.person_id = n.person_id AND w.class_id = n.class_id AND w.source_id = n.source_id
  JOIN class c ON c.id = n.class_id AND ${IS_OPEN_CLASS}
  JOIN source s ON s.id = n.source_id
  LEFT JOIN person p ON p.id = n.by_id
  WHERE n.person_id = @me AND ${only(OPENED)} AND ${isSetForGroup('w', 'g')}`;

/** That the answers to a question are shown. */
const ofShownAnswers = (only: Only): string => `
  SELECT n.id, coalesce(p.name, c.name), a.source_id, s.title, a.id, coalesce(a.root_id, a.id), a.quote,
    'shown', a.note, n.created_at, n.seen_at IS NOT NULL, 0, 0, c.id, c.name, c.tint, ${ITEM}, ${isMuted('c.id')}
  FROM notification n
  JOIN membership m ON m.class_id = n.class_id AND m.person_id = n.person_id
  JOIN annotation a ON a.id = n.question_id
  JOIN question q ON q.annotation_id = a.id AND q.withdrawn = 0
  JOIN class c ON c.id = n.class_id AND ${IS_OPEN_CLASS}
  JOIN source s ON s.id = a.source_id
  LEFT JOIN person p ON p.id = n.by_id
  WHERE n.person_id = @me AND ${only('n.created_at')} AND ${sees('a')}`;

/** How many answered a question of one’s own. */
const ofAnswers = (only: Only): string => `
  SELECT n.id, p.name, a.source_id, s.title, a.id, a.id, a.quote, 'answered', a.note, n.created_at,
    n.seen_at IS NOT NULL, count(*), max(o.given_at), NULL, NULL, NULL, ${ITEM}, ${MUTED}
  FROM notification n
  JOIN annotation a ON a.id = n.annotation_id AND a.author_id = n.person_id AND a.deleted_at IS NULL
  JOIN question q ON q.annotation_id = a.id AND q.withdrawn = 0
  JOIN question_response o ON o.annotation_id = a.id
  JOIN person p ON p.id = o.person_id
  JOIN source s ON s.id = a.source_id
  WHERE n.person_id = @me AND ${only('n.created_at')}
    AND NOT EXISTS (SELECT 1 FROM annotation_class x WHERE x.annotation_id = a.id AND x.hidden_reason IS NOT NULL)
  GROUP BY n.id`;

/** Of what one may see now. */
const notices = (only: Only, report: Only, most: number): string => `
  SELECT * FROM (${[
    ofAnnotations(only),
    ofReleases(only),
    ofReports(report),
    ofLettingIn(only),
    ofAssignments(only),
    ofShownAnswers(only),
    ofAnswers(only),
  ].join(' UNION ALL ')})
  WHERE why IS NOT NULL AND NOT muted AND why NOT IN (SELECT value FROM json_each(@off))
  ORDER BY at DESC LIMIT ${most}`;

/** So many at a time. */
const ON_DESK = 30;
const IN_MAIL = 200;
export const NOTICES = notices(ANY, ANY, ON_DESK);
export const MAIL_NOTICES = notices(
  FOR_MAIL,
  (at) => `${at} > @since AND ${unsaid("t.class_id || t.annotation_id || t.person_id || '@' || t.reported_at")}`,
  IN_MAIL,
);

interface NoticeRow extends Omit<DeskNotice, 'seen' | 'class'> {
  readonly seen: number;
  readonly first: unknown;
  readonly muted: number;
  /** By which it is known in mails, with commas between. */
  readonly items: string;
  readonly classId: ClassId | null;
  readonly className: string;
  readonly tint: string;
}

/** Without the kinds that are off. */
export const noticesFor = (db: Db, me: PersonId, off: readonly NotificationKind[]): DeskNotice[] =>
  db.all<NoticeRow>(NOTICES, { me, off: JSON.stringify(noticedOf(off)) }).map((row) => toNotice(row).notice);

export interface MailNotice {
  readonly notice: DeskNotice;
  readonly items: readonly string[];
}
/** What was not seen, nor said in a mail, since an instant. */
export const noticesForMail = (
  db: Db,
  me: PersonId,
  { off, since }: { readonly off: readonly NotificationKind[]; readonly since: string },
): MailNotice[] => db.all<NoticeRow>(MAIL_NOTICES, { me, since, off: JSON.stringify(noticedOf(off)) }).map(toNotice);

const toNotice = ({
  first: _first,
  muted: _muted,
  items,
  classId,
  className,
  tint,
  ...row
}: NoticeRow): MailNotice => ({
  notice: {
    ...row,
    reply: plainWords(row.reply),
    seen: row.seen === 1,
    ...(classId === null ? {} : { class: { id: classId, name: className, tint } }),
  },
  items: items.split(','),
});
