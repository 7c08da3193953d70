import { lazy, Suspense, useEffect } from 'react';
import { useQuery } from '@tanstack/react-query';
import { Link, useLocation } from 'react-router';
import type { Outline } from '@avrelle/core/text';
import type { Annotation, ClassDetail, ClassId, SourceText, ThreadRow } from '@avrelle/core/wire';
import { useMe } from '../../account/me';
import { useDiscussing } from '../../data/discussion-queries';
import { annotationQuery, useAnnotations, useSource, useSourceText } from '../../data/queries';
import { noteSeen } from '../../data/seen';
import { slotOf } from '../../data/unfinished';
import { ReplyForm } from '../../note/ReplyForm';
import { Standing, StandingLines } from '../../note/Standing';
import { Quote } from '../../ui/Quote';
import { Marked, Sign } from '../../ui/Sign';
import { State } from '../../ui/State';
import { TagNames } from '../../ui/TagNames';
import { shortName, when } from '../../ui/when';
import { Report } from '../Report';
import { TeacherActions } from '../TeacherActions';
import type { AskedThreads } from './asked';
import { Reports } from './Reports';

const NoteText = lazy(() => import('../../note/NoteText'));

/** What is open so long has been read, in milliseconds. */
const READ_AFTER = 1_000;

interface Props {
  readonly of: ClassDetail;
  readonly id: string;
  /** As it stands in the list; absent where the list does not hold it. */
  readonly row: ThreadRow | undefined;
  readonly asked: AskedThreads;
}

/** A thread with the passage it is about, and what was answered; answered here, without leaving the list. */
export function OpenThread({ of: c, id, row, asked }: Props) {
  const one = useQuery({ ...annotationQuery(id), enabled: row === undefined });
  const sourceId = row?.source.id ?? one.data?.sourceId ?? '';
  if (!sourceId) return <State of={one} />;
  return <OfSource of={c} id={id} sourceId={sourceId} asked={asked} />;
}

interface OfSourceProps extends Omit<Props, 'row'> {
  readonly sourceId: string;
}

function OfSource({ of: c, id, sourceId, asked }: OfSourceProps) {
  const found = useAnnotations(sourceId);
  const root = found.data?.find((a) => a.id === id);
  const answers = (found.data ?? []).filter((a) => a.rootId === id).toSorted(byTime);
  useRead(root ? [root, ...answers] : []);
  if (!found.data) return <State of={found} />;
  if (!root) return <p className="p-8 text-soft">This thread is not there any more.</p>;
  return (
    <article aria-label={`${root.kind.name}, ${root.author.name}`} className="max-w-[740px] px-8 py-5 max-[900px]:px-4">
      <button className="act mb-2 text-[14px] min-[901px]:hidden" onClick={() => asked.to({ at: undefined })}>
        ‹ All threads
      </button>
      <Passage root={root} />
      <Said of={root} within={c} isRoot />
      <ol className="mt-3">
        {answers.map((answer) => (
          <li key={answer.id} className="mt-2.5 border-l-2 border-strong pl-3.5">
            <Said of={answer} within={c} />
          </li>
        ))}
      </ol>
      <Answer classId={c.id} root={root} answers={answers} />
    </article>
  );
}

const byTime = (a: Annotation, b: Annotation): number => a.createdAt.localeCompare(b.createdAt);

/** What of others stands open for a moment counts as read. */
function useRead(shown: readonly Annotation[]): void {
  const me = useMe();
  const ids = shown
    .filter((a) => a.author.id !== me.id && !a.deleted)
    .map((a) => a.id)
    .join();
  useEffect(() => {
    if (ids === '') return undefined;
    const timer = setTimeout(() => !document.hidden && noteSeen(me.id, ids.split(',')), READ_AFTER);
    return () => clearTimeout(timer);
  }, [me.id, ids]);
}

/** The words it is about with those around them, and the way to them. */
function Passage({ root }: { readonly root: Annotation }) {
  const here = useLocation();
  const { data: source } = useSource(root.sourceId);
  const { data: text } = useSourceText(root.sourceId, source?.versionId, undefined);
  const around = text && aroundOf(root, text);
  return (
    <section aria-label="Passage" className="mb-3 border-b border-rule pb-3">
      <p className="mb-1.5 flex flex-wrap items-baseline gap-x-4 text-[13.5px] text-soft">
        <span dir="auto">{source?.title}</span>
        <Link
          className="act ml-auto"
          to={`/source/${root.sourceId}?at=${root.id}`}
          state={{ back: { to: `${here.pathname}${here.search}`, words: 'Discussion' } }}
        >
          Open in the text
        </Link>
      </p>
      <p dir="auto" lang={source?.language || undefined} className="font-read text-[17px] leading-[25px]">
        {around ? (
          <>
            {around.before}
            <Marked look={root.kind}>{around.words}</Marked>
            {around.after}
          </>
        ) : (
          <Quote of={root} />
        )}
      </p>
    </section>
  );
}

/** So much is shown before and after the words, at most, in UTF-16 units. */
const AROUND = 320;

/** Of the block or blocks a passage stands in; undefined where it has no words or is not found in the text. */
function aroundOf({ place, anchor }: Annotation, { text, outline }: SourceText) {
  const { start, end } = place ?? {};
  const isOfWords = anchor?.spot === undefined || anchor.spot.type === 'drawn';
  if (start == null || end == null || !isOfWords) return undefined;
  const [first, last] = blocksOf(outline, start, end);
  const before = text.slice(Math.max(first, start - AROUND), start);
  const after = text.slice(end, Math.min(last, end + AROUND));
  return {
    before: before.length < start - first ? `…${before}` : before,
    words: text.slice(start, end),
    after: after.length < last - end ? `${after}…` : after,
  };
}

function blocksOf(outline: Outline, start: number, end: number): readonly [start: number, end: number] {
  const at = (offset: number) => outline.find((b) => b.start <= offset && offset < b.end);
  return [at(start)?.start ?? start, at(end - 1)?.end ?? end];
}

interface SaidProps {
  readonly of: Annotation;
  readonly within: ClassDetail;
  readonly isRoot?: boolean;
}

/** A note or an answer with who wrote it, and what who teaches can do with it. */
function Said({ of, within: c, isRoot = false }: SaidProps) {
  const me = useMe();
  const { author, kind, note, tags, createdAt, deleted } = of;
  if (deleted)
    return (
      <p className="text-[14px] text-faint">
        {shortName(author.name)} deleted this{isRoot ? ' note' : ' answer'}.
      </p>
    );
  return (
    <div>
      <p className="flex items-baseline gap-1.5 text-[13.5px] text-soft">
        {isRoot && <Sign kind={kind} className="text-[16px]" />}
        <b className="font-semibold text-ink">{author.name}</b>
        {isRoot && kind.name.toLowerCase()}
        <Standing of={of} />
        <span className="ml-auto text-faint">{when(createdAt)}</span>
      </p>
      <div className="text-[15.5px] leading-[22px]">
        <Suspense fallback={<p className="whitespace-pre-line">{note}</p>}>
          <NoteText>{note}</NoteText>
        </Suspense>
      </div>
      {tags.length > 0 && (
        <p className="text-[13px] text-tide">
          <TagNames tags={tags} />
        </p>
      )}
      <StandingLines of={of} />
      <Reports of={of} within={c} />
      {author.id !== me.id && (
        <p className="mt-0.5 flex gap-4 text-[13px]">
          <Actions of={of} within={c} />
        </p>
      )}
    </div>
  );
}

/** What can be done with what somebody else wrote. */
const Actions = ({ of, within: c }: Pick<SaidProps, 'of' | 'within'>) =>
  c.role === 'student' ? (
    <Report annotation={of} classId={c.id} />
  ) : (
    <TeacherActions annotation={of} classId={c.id} className={c.name} />
  );

interface AnswerProps {
  readonly classId: ClassId;
  readonly root: Annotation;
  readonly answers: readonly Annotation[];
}

/** Words begun here wait in the text, too. */
function Answer({ classId, root, answers }: AnswerProps) {
  const me = useMe();
  const { reply } = useDiscussing(classId);
  return (
    <div className="mt-4">
      {root.held && <p className="text-[13px] text-soft">Only who teaches sees an answer to what is held.</p>}
      <ReplyForm
        slot={slotOf(me.id, root.sourceId, { type: 'reply', rootId: root.id })}
        onSend={(note) => reply(answers.at(-1) ?? root, note)}
      />
    </div>
  );
}
