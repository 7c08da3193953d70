import { lazy, Suspense, useState, type ReactNode } from 'react';
import { DropdownMenu } from 'radix-ui';
import { KEY, PLAIN_NOTE, kindOf, type KindCode } from '@avrelle/core/key';
import type { Annotation } from '@avrelle/core/wire';
import { Sign } from '../ui/Sign';
import { count, shortName, when } from '../ui/when';
import type { Fields } from './changes';
import { NoteForm, type NoteValues } from './NoteForm';
import { PlaceLine } from './PlaceLine';
import { ReplyForm } from './ReplyForm';
import { fateOf, type Thread } from './shown';

const NoteText = lazy(() => import('./NoteText'));

export interface NoteActions {
  toggle(id: string): void;
  change(annotation: Annotation, fields: Fields, words: string): Promise<boolean>;
  remove(annotation: Annotation): void;
  /** Lets its author show on the page where it belongs. */
  choosePlace(annotation: Annotation): void;
  /** Copies an address that leads to its passage on the page it was kept from; absent where the source has none. */
  readonly copyAddress?: (annotation: Annotation) => void;
  reply(parent: Annotation, note: string): Promise<boolean>;
}

interface Props {
  readonly thread: Thread;
  readonly me: string;
  readonly open: boolean;
  readonly actions: NoteActions;
  /** The audience of this annotation: words for others, a menu for its author. */
  readonly audience: ReactNode;
}

/** One annotation in the margin: folded to its first lines, or open with its answers and what can be done with it. */
export function NoteCard({ thread, me, open, actions, audience }: Props) {
  const { root, replies } = thread;
  const [editing, setEditing] = useState(false);
  const [refused, setRefused] = useState(false);
  const mine = root.author.id === me;
  const kind = kindOf(root.kind);
  const draftKey = `avrelle.edit.${root.id}`;
  /** When the change does not hold, the form comes back with the words, and what stands now beside them. */
  const save = (values: NoteValues): void => {
    setEditing(false);
    void actions.change(root, { ...values, tags: [...values.tags] }, 'note changed').then((held) => {
      setRefused(!held);
      if (held) return;
      sessionStorage.setItem(draftKey, values.note);
      setEditing(true);
    });
  };
  return (
    <article aria-label={`${kind.name}, ${root.author.name}`} data-annotation={root.id} className={open ? 'border border-strong bg-sheet px-3 pb-2.5 [border-top:3px_solid_var(--tide)]' : 'border-t border-strong px-[13px]'}>
      <header>
        <button aria-expanded={open} onClick={() => actions.toggle(root.id)} className="flex w-full items-baseline gap-[7px] pt-[5px] text-left text-[13px] text-soft">
          <Sign kind={root.kind} className="w-[15px] text-[15px]" /><b className="font-semibold text-ink">{shortName(root.author.name)}</b> {kind.name.toLowerCase()}{fateOf(root) === 'unsure' && <span className="text-brick">not sure of its place</span>}
          <span className="ml-auto text-faint">{when(root.createdAt)}</span>
        </button>
      </header>
      {open && <PlaceLine annotation={root} mine={mine} actions={actions} />}
      {editing && refused && <p className="mt-1 text-[13px] text-soft">Stands now: {root.note}</p>}
      {editing ? <NoteForm initial={root} audience={audience} draftKey={draftKey} onSave={save} onCancel={() => { setEditing(false); setRefused(false); }} /> : <Words annotation={root} open={open} />}
      {open ? replies.map((r) => <Reply key={r.id} reply={r} mine={r.author.id === me} actions={actions} />) : replies.length > 0 && <p className="text-[13px] text-tide">{count(replies.length, 'reply', 'replies')}</p>}
      {open && !editing && (
        <footer className="mt-2 flex flex-wrap items-center gap-x-3 gap-y-1 border-t border-rule pt-2 text-[13px]">
          {audience}
          {mine && <><KindMenu current={root.kind} onChoose={(code) => void actions.change(root, { kind: code }, `made a ${kindOf(code).name.toLowerCase()}`)} />
            <button className="act" onClick={() => setEditing(true)}>{root.note ? 'Edit' : 'Write'}</button>
            <button className="font-semibold text-brick hover:underline" onClick={() => actions.remove(root)}>Delete</button></>}
          {actions.copyAddress && <button className="act ml-auto font-normal text-soft" title="Copy an address that opens the original page at this passage" onClick={() => actions.copyAddress?.(root)}>Address</button>}
        </footer>
      )}
      {open && !editing && root.classIds.length > 0 && <ReplyForm onSend={(note) => actions.reply(replies.at(-1) ?? root, note)} draftKey={`avrelle.reply.${root.id}`} />}
    </article>
  );
}

function Words({ annotation, open }: { annotation: Annotation; open: boolean }) {
  const plain = annotation.note.trim();
  return (
    <div className="text-[14.5px] leading-5">
      {plain && (open ? <Suspense fallback={<p className="my-0.5 whitespace-pre-line">{plain}</p>}><NoteText>{plain}</NoteText></Suspense> : <p className="my-0.5 line-clamp-3">{plain.replace(/[*_`>#]/g, '')}</p>)}
      {!plain && open && <p className="my-0.5 font-read italic text-soft">{clip(annotation.anchor?.quote.exact ?? '')}</p>}
      {annotation.tags.length > 0 && <p className="text-[13px] text-tide">{annotation.tags.map((t) => `#${t}`).join(' ')}</p>}
    </div>
  );
}

const clip = (text: string): string => (text.length > 120 ? `${text.slice(0, 118)}…` : text);

function Reply({ reply, mine, actions }: { reply: Annotation; mine: boolean; actions: NoteActions }) {
  return (
    <div className="mt-1.5 border-l-2 border-strong pl-2.5 text-[14.5px] leading-5 text-soft">
      <b className="font-semibold text-ink">{shortName(reply.author.name)}</b> <span className="whitespace-pre-line">{reply.note}</span>
      <span className="ml-2 text-[12.5px] text-faint">{when(reply.createdAt)}</span>
      {mine && <button className="ml-2 text-[12.5px] text-brick hover:underline" onClick={() => actions.remove(reply)}>Delete</button>}
    </div>
  );
}

function KindMenu({ current, onChoose }: { current: KindCode; onChoose: (code: KindCode) => void }) {
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger className="act">Kind <span aria-hidden="true">▾</span></DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content sideOffset={4} className="over py-1 text-[14px]">
          {[...KEY, PLAIN_NOTE].map(({ code, name }) => (
            <DropdownMenu.Item key={code} className={`item ${code === current ? 'font-semibold' : ''}`} onSelect={() => onChoose(code)}><Sign kind={code} className="w-4" />{name}</DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
