import { useState, type FormEvent, type ReactNode } from 'react';
import { DropdownMenu, Popover } from 'radix-ui';
import { ONLY_ME, type Audience } from '@avrelle/core/audience';
import { TAG, type Annotation } from '@avrelle/core/wire';
import { count } from '../../../ui/when';
import { useDocument } from '../../document/document-context';
import { ORDERS, type Order } from '../../model/thread';
import { useReader, useSession } from '../../session/reader-context';
import { useTools } from '../../session/tools-context';
import type { UnfinishedNote } from '../../session/use-unfinished-notes';
import { AudienceMenu, audienceOf } from '../toolbar/AudienceMenu';
import { SourceLinks } from './LinkedFrom';
import { KindMenu } from './KindMenu';
import type { Choosing } from '../../session/use-choosing';

interface Props {
  /** How many notes stand below. */
  readonly shown: number;
  readonly unfinished: readonly UnfinishedNote[];
}

/** How far below the top of the window the first unfinished note is shown, in pixels. */
const BELOW = 120;

/** Above the notes: how they stand; and, while several are chosen, what can be done with them at once. */
export function MarginHead({ shown, unfinished }: Props) {
  const { source } = useSession();
  const { goTo } = useDocument();
  const { choosing, noteActions, run } = useTools();
  if (choosing.chosen)
    return (
      <Head>
        <Chosen choosing={choosing} chosen={choosing.chosen} />
      </Head>
    );
  return (
    <Head>
      {unfinished.length > 0 ? (
        <button
          className="act"
          title="Go to the first note that you began and did not save"
          onClick={() => goTo((unfinished[0]?.top ?? 0) - BELOW)}
        >
          {unfinished.length} unfinished
        </button>
      ) : (
        <span>{count(shown, 'note')}</span>
      )}
      <OrderMenu />
      <button
        className="ml-auto hover:text-ink"
        title="Write a note on the whole source, on none of its words in particular (n)"
        onClick={() => run('write on all')}
      >
        General note
      </button>
      <button
        className="hover:text-ink"
        title="Choose several of mine, to change or delete them at once"
        aria-label="Choose several"
        onClick={choosing.begin}
      >
        Choose
      </button>
      <SourceLinks sourceId={source.id} onFollow={noteActions.follow} />
    </Head>
  );
}

const Head = ({ children }: { readonly children: ReactNode }) => (
  <div className="sticky top-0 z-20 flex min-h-[34px] flex-wrap items-center gap-x-2.5 gap-y-1 border-b border-rule bg-paper px-[21px] py-1 text-[13px] text-soft">
    {children}
  </div>
);

function OrderMenu() {
  const { store } = useSession();
  const order = useReader((s) => s.order);
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger className="hover:text-ink">
        by {order} <span aria-hidden="true">▾</span>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="start" sideOffset={6} className="over py-1 text-[14px]">
          <DropdownMenu.RadioGroup
            value={order}
            onValueChange={(value) => store.dispatch({ type: 'order', order: value as Order })}
          >
            {ORDERS.map((one) => (
              <DropdownMenu.RadioItem key={one} value={one} className={`item ${one === order ? 'font-semibold' : ''}`}>
                {ORDER_WORDS[one]}
              </DropdownMenu.RadioItem>
            ))}
          </DropdownMenu.RadioGroup>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

const ORDER_WORDS: Readonly<Record<Order, string>> = {
  place: 'By place, level with the words',
  time: 'By time, newest first',
  author: 'By author',
};

interface ChosenProps {
  readonly choosing: Choosing;
  readonly chosen: readonly Annotation[];
}

function Chosen({ choosing, chosen }: ChosenProps) {
  const { share } = useSession();
  const giveAll = async ({ classIds, teachersOnly = false, held = false, groupIds = [] }: Audience): Promise<void> => {
    if (await share(classIds))
      choosing.change(() => ({ classIds: [...classIds], teachersOnly, held, groupIds }), 'given another audience');
  };
  const none = chosen.length === 0;
  return (
    <>
      <span aria-live="polite" className="text-ink">
        {chosen.length} chosen
      </span>
      <button className="act" onClick={choosing.all}>
        All of mine
      </button>
      <button className="ml-auto text-soft hover:text-ink" onClick={choosing.end}>
        Done
      </button>
      <div className={`flex basis-full items-center gap-4 pb-0.5 ${none ? 'hidden' : ''}`}>
        <KindMenu
          onChoose={(kind) => choosing.change(() => ({ kind: kind.code }), `made a ${kind.name.toLowerCase()}`)}
        />
        <Tags choosing={choosing} chosen={chosen} />
        <AudienceMenu
          small
          label="Seen by"
          audience={chosen[0] ? audienceOf(chosen[0]) : ONLY_ME}
          onChoose={(one) => void giveAll(one)}
        />
        <button className="ml-auto font-semibold text-brick hover:underline" onClick={choosing.remove}>
          Delete
        </button>
      </div>
    </>
  );
}

/** Tags put on all of the chosen, or taken off those that bear them. */
function Tags({ choosing, chosen }: ChosenProps) {
  const [text, setText] = useState('');
  const [wrong, setWrong] = useState(false);
  const borne = [...new Set(chosen.flatMap((a) => a.tags))].sort();
  const add = (event: FormEvent): void => {
    event.preventDefault();
    const tag = text.trim().replace(/^#/, '').toLowerCase();
    if (!TAG.test(tag)) return setWrong(true);
    setText('');
    choosing.change((a) => ({ tags: [...new Set([...a.tags, tag])] }), `tagged #${tag}`);
  };
  return (
    <Popover.Root>
      <Popover.Trigger className="act">
        Tags <span aria-hidden="true">▾</span>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          aria-label="Tag them all"
          align="start"
          sideOffset={6}
          className="over w-[240px] p-3 text-[14px]"
        >
          <form onSubmit={add}>
            <input
              aria-label="Tag for all of them"
              value={text}
              onChange={(e) => {
                setText(e.target.value);
                setWrong(false);
              }}
              placeholder="#tag for all of them"
              className="field text-[14px]"
            />
            {wrong && (
              <p role="alert" className="mt-1 text-[13px] text-brick">
                A tag is one word of letters, digits, - _ and /.
              </p>
            )}
          </form>
          {borne.map((tag) => (
            <p key={tag} className="mt-1.5 flex justify-between text-tide">
              #{tag}
              <button
                className="text-[13px] text-soft hover:text-ink"
                onClick={() => choosing.change((a) => ({ tags: a.tags.filter((t) => t !== tag) }), `#${tag} taken off`)}
              >
                Remove
              </button>
            </p>
          ))}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
