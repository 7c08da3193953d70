import { useMemo, useState, type ReactNode } from 'react';
import { DropdownMenu } from 'radix-ui';
import { Link } from 'react-router';
import type { AnnotationGroup, AnnotationHit } from '@avrelle/core/wire';
import { useMe } from '../account/me';
import { Menu } from '../ui/Menu';
import { MarkedText } from '../ui/MarkedText';
import { Sign } from '../ui/Sign';
import { TagNames } from '../ui/TagNames';
import { shortName, when } from '../ui/when';
import { ChosenMarks } from './ChosenMarks';
import { grouped, GROUPINGS, GROUP_WORDS, type Grouping } from './grouped';
import { SHOWN_WHEN_NEAR, Tick } from '../ui/Tick';

interface Back {
  readonly to: string;
  readonly words: string;
}

interface Props {
  readonly hits: readonly AnnotationHit[];
  readonly groups: readonly AnnotationGroup[];
  readonly by: Grouping;
  /** By what these are grouped, while those that were asked for are on their way. */
  readonly shownBy: Grouping;
  readonly back: Back;
  onBy(by: Grouping): void;
}

/** Marks and notes from all sources, grouped as one likes; one's own can be chosen and changed together. */
export function AnnotationList({ hits: all, groups: known, by, shownBy, onBy, back }: Props) {
  const me = useMe();
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const groups = useMemo(() => grouped(all, known, shownBy), [all, known, shownBy]);
  // One with several tags is listed more than once.
  const own = [...new Map(all.map((a) => [a.id, a])).values()].filter((a) => a.author.id === me.id);
  const picked = own.filter((a) => chosen.has(a.id));
  const toggle = (id: string): void =>
    setChosen((before) => {
      const after = new Set(before);
      if (!after.delete(id)) after.add(id);
      return after;
    });
  return (
    <>
      <div className="flex flex-wrap items-baseline gap-5 border-b border-rule px-[30px] py-1.5 text-[13.5px] text-soft max-[900px]:px-4">
        <Menu words={GROUP_WORDS[by]}>
          {GROUPINGS.map((g) => (
            <DropdownMenu.Item key={g} className="item" onSelect={() => onBy(g)}>
              {GROUP_WORDS[g]}
            </DropdownMenu.Item>
          ))}
        </Menu>
        {own.length > 0 && (
          <button className="act" onClick={() => setChosen(new Set(own.map((a) => a.id)))}>
            Choose all of mine here
          </button>
        )}
      </div>
      <div className="flex-1 px-[30px] pb-6 max-[900px]:px-4">
        {groups.map(({ key, name, total, hits }) => (
          <section key={key} aria-label={name || 'Marks and notes'} className="max-w-[900px]">
            {name && (
              <h2 className="pb-1 pt-4 text-[17px]">
                {name} <span className="font-ui text-[13px] font-normal text-faint">{total.toLocaleString('en')}</span>
              </h2>
            )}
            <ul>
              {hits.map((hit) => (
                <Hit key={hit.id} hit={hit} back={back} titled={shownBy !== 'source'}>
                  {hit.author.id === me.id && (
                    <Tick
                      label={`Choose ${hit.kind.name}: ${hit.quote
                        .map((p) => p.text)
                        .join('')
                        .slice(0, 60)}`}
                      checked={chosen.has(hit.id)}
                      onChange={() => toggle(hit.id)}
                      className={`mt-1 pointer-coarse:-mx-2.5 ${chosen.has(hit.id) ? '' : SHOWN_WHEN_NEAR}`}
                    />
                  )}
                </Hit>
              ))}
            </ul>
          </section>
        ))}
      </div>
      {picked.length > 0 && <ChosenMarks marks={picked} onDone={() => setChosen(new Set())} />}
    </>
  );
}

function Hit({
  hit,
  back,
  titled,
  children,
}: {
  hit: AnnotationHit;
  back: Back;
  titled: boolean;
  children: ReactNode;
}) {
  return (
    <li className="group grid grid-cols-[18px_1fr] gap-x-2 [content-visibility:auto] [contain-intrinsic-size:auto_92px] border-b border-rule py-2.5 hover:bg-wash">
      <div>{children}</div>
      <Link to={`/source/${hit.sourceId}?at=${hit.openAt}`} state={{ back }} className="block min-w-0">
        <p className="text-[13.5px] text-soft">
          {titled && (
            <b className="font-semibold text-ink" dir="auto" lang={hit.language || undefined}>
              {hit.title}
            </b>
          )}
          {[
            titled && hit.site,
            shortName(hit.author.name),
            when(hit.createdAt),
            hit.classIds.length > 0 && forWhom(hit),
          ]
            .filter(Boolean)
            .map((words, n) => `${n > 0 || titled ? ' · ' : ''}${words}`)}
        </p>
        {hit.quote.length > 0 && (
          <p
            className="mt-0.5 whitespace-pre-line font-read text-[16px] leading-6"
            dir="auto"
            lang={hit.language || undefined}
          >
            <Sign kind={hit.kind} className="me-1.5" />
            <span className="sr-only" dir="ltr">
              {hit.kind.name}:{' '}
            </span>
            <MarkedText pieces={hit.quote} />
          </p>
        )}
        {hit.note.length > 0 && (
          <p dir="auto" className="mt-0.5 ps-6 text-[14.5px]">
            {hit.rootId && (
              <span dir="ltr" className="text-faint">
                answers:{' '}
              </span>
            )}
            <MarkedText pieces={hit.note} />
          </p>
        )}
        {hit.tags.length > 0 && (
          <p className="pl-6 text-[13px] text-tide">
            <TagNames tags={hit.tags} />
          </p>
        )}
      </Link>
    </li>
  );
}

function forWhom({ held, teachersOnly, groupIds }: AnnotationHit): string {
  if (held) return 'held';
  if (groupIds) return 'for a group';
  return teachersOnly ? 'for teachers' : 'for a class';
}
