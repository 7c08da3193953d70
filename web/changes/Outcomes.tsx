import { plainWords } from '@avrelle/core/markdown';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import type { Annotation, PersonId, SourceId } from '@avrelle/core/wire';
import { outcomeOf, type Outcome } from '../reader/model/thread';
import { UnplacedList } from '../reader/regions/notices/UnplacedList';
import { Sign } from '../ui/Sign';
import { count, shortName } from '../ui/when';

interface Props {
  readonly present: readonly Annotation[];
  readonly former: readonly Annotation[];
  readonly before: string;
  readonly after: string;
  readonly me: PersonId;
  /** True where the later version is the newest: only there places can be settled. */
  readonly newest: boolean;
  readonly sourceId: SourceId;
  readonly version: number;
  onAccept(annotation: Annotation, range: { start: number; end: number }): void;
  onChoose(annotation: Annotation): void;
}

/** What became of each annotation, those that need somebody first. */
export function Outcomes(props: Props) {
  const { present, former, before, after, me, newest } = props;
  const of = (outcome: Outcome): Annotation[] =>
    present
      .filter((a) => a.rootId === null && outcomeOf(a) === outcome)
      .sort(
        (a, b) =>
          Number(b.author.id === me) - Number(a.author.id === me) || (a.place!.start ?? 0) - (b.place!.start ?? 0),
      );
  const unplaced = of('unplaced');
  const unsure = of('unsure');
  const edited = of('edited');
  const moved = of('moved');
  const still = of('in place');
  const wordsBefore = (a: Annotation): string => {
    const place = former.find((f) => f.id === a.id)?.place;
    return place && place.start !== null && place.end !== null
      ? before.slice(place.start, place.end)
      : (a.anchor?.quote.exact ?? '');
  };
  const pair = (a: Annotation) => (
    <Pair
      key={a.id}
      annotation={a}
      was={wordsBefore(a)}
      now={after.slice(a.place!.start!, a.place!.end!)}
      mayAct={newest && a.author.id === me}
      {...props}
    />
  );
  const all = unplaced.length + unsure.length + edited.length + moved.length + still.length;
  return (
    <aside
      aria-label="What became of the annotations"
      className="min-h-0 overflow-y-auto border-l border-rule bg-paper px-6 py-6 max-[1000px]:overflow-visible max-[1000px]:border-l-0 max-[1000px]:border-t"
    >
      <h2 className="text-[19px]">{all === 0 ? 'No annotations yet' : `What became of ${count(all, 'annotation')}`}</h2>
      {all === 0 && (
        <p className="mt-2 text-[14px] text-soft">
          Highlights and notes made on one version are found again in the next; here you see which were found, and
          where.
        </p>
      )}
      <Group
        title="Unplaced"
        n={unplaced.length}
        tone="brick"
        note="The passage was not found. The words and the note are kept."
      >
        <UnplacedList
          annotations={unplaced}
          text={after}
          me={me}
          readOnly={!newest}
          onAccept={props.onAccept}
          onChoose={props.onChoose}
        />
      </Group>
      <Group title="Not sure" n={unsure.length} tone="brick" note="Shown at the likeliest place.">
        <ul>{unsure.map(pair)}</ul>
      </Group>
      <Group title="Words changed" n={edited.length} tone="tide" note="The passage was found, in other words.">
        <ul>{edited.map(pair)}</ul>
      </Group>
      <Group title="Moved along" n={moved.length} tone="rule" note="The same words, further up or down." folded>
        <Lines annotations={moved} {...props} />
      </Group>
      <Group
        title="In place"
        n={still.length}
        tone="rule"
        note="Where they were, or where their author put them."
        folded
      >
        <Lines annotations={still} {...props} />
      </Group>
    </aside>
  );
}

const BORDERS = { brick: 'border-brick', tide: 'border-tide', rule: 'border-strong' } as const;

function Group({
  title,
  n,
  tone,
  note,
  folded = false,
  children,
}: {
  title: string;
  n: number;
  tone: keyof typeof BORDERS;
  note: string;
  folded?: boolean;
  children: ReactNode;
}) {
  if (n === 0) return null;
  return (
    <details open={!folded} className={`mt-4 border-t-[3px] pt-1.5 ${BORDERS[tone]}`}>
      <summary className="cursor-pointer">
        <b className="font-semibold">{title}</b> <span className="text-soft">{n}</span>{' '}
        <span className="ml-2 text-[13px] text-soft">{note}</span>
      </summary>
      <div className="mt-1">{children}</div>
    </details>
  );
}

/** Old and new words side by side. */
function Pair({
  annotation,
  was,
  now,
  mayAct,
  sourceId,
  version,
  onAccept,
  onChoose,
}: { annotation: Annotation; was: string; now: string; mayAct: boolean } & Props) {
  const place = annotation.place!;
  return (
    <li className="border-t border-rule py-2.5 first:border-t-0">
      <p className="flex items-baseline gap-2 text-[13px] text-soft">
        <Sign kind={annotation.kind} className="w-4" />
        <b className="font-semibold text-ink">{shortName(annotation.author.name)}</b>
        {annotation.note && (
          <span dir="auto" className="min-w-0 truncate">
            {plainWords(annotation.note)}
          </span>
        )}
      </p>
      <dl className="mt-1 grid grid-cols-2 gap-x-4 font-read text-[15px] leading-[1.45]">
        <div>
          <dt className="font-ui text-[12.5px] text-faint">before</dt>
          <dd dir="auto" className="text-soft">
            {was}
          </dd>
        </div>
        <div>
          <dt className="font-ui text-[12.5px] text-faint">now</dt>
          <dd dir="auto">{now}</dd>
        </div>
      </dl>
      <p className="mt-1 flex gap-4 text-[14px]">
        <Link className="act" to={`/source/${sourceId}?version=${version}&at=${annotation.id}`}>
          Show
        </Link>
        {mayAct && (
          <>
            <button className="act" onClick={() => onAccept(annotation, { start: place.start!, end: place.end! })}>
              It is here
            </button>
            <button className="act" onClick={() => onChoose(annotation)}>
              Elsewhere…
            </button>
          </>
        )}
      </p>
    </li>
  );
}

function Lines({ annotations, sourceId, version }: { annotations: readonly Annotation[] } & Props) {
  return (
    <ul>
      {annotations.map((a) => (
        <li key={a.id} className="border-t border-rule py-1.5 text-[14px] first:border-t-0">
          <Link
            className="flex items-baseline gap-2 hover:text-tide"
            to={`/source/${sourceId}?version=${version}&at=${a.id}`}
          >
            <Sign kind={a.kind} className="w-4" />
            <span dir="auto" className="min-w-0 truncate font-read">
              {a.anchor?.quote.exact}
            </span>
            <span className="ml-auto whitespace-nowrap text-[13px] text-faint">{shortName(a.author.name)}</span>
          </Link>
        </li>
      ))}
    </ul>
  );
}
