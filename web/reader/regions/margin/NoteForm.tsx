import { useEffect, useRef, useState, type ComponentType, type KeyboardEvent, type ReactNode } from 'react';
import { tagsIn as inWords } from '@avrelle/core/note';
import { PLAIN_NOTE, type Kind } from '@avrelle/core/legend';
import { TAG, type SourceId } from '@avrelle/core/wire';
import type { Slot } from '../../../data/unfinished';
import { Alert } from '../../../ui/Alert';
import { Sign } from '../../../ui/Sign';
import { useLatest } from '../../../ui/use-latest';
import type { NoteValues } from '../../model/reader-state';
import { useLegend } from '../../session/legend';

interface Props {
  readonly initial: NoteValues;
  readonly sourceId: SourceId;
  readonly audience: ReactNode;
  /** Where unsaved words are kept: with what they are for, so that nothing loses them. */
  readonly slot: Slot;
  onSave(values: NoteValues): void;
  /** The form is left; the words wait in their slot. */
  onLeave(): void;
  /** The words are not wanted any more; `restore` puts them back into their slot. */
  onDiscard(restore: (() => void) | undefined): void;
}

type Editor = (typeof import('../../../note/NoteEditor'))['default'];
let editor: Editor | undefined;
/** Loads the editor, so that it is there when the first letter is typed. Until then a note is written as plain Markdown. */
export const fetchEditor = (): Promise<void> =>
  import('../../../note/NoteEditor').then((module) => {
    editor = module.default;
  });

/** What is being written: kept with every change in its slot, until it is saved or discarded. */
function useNote({ initial, slot: given, onSave, onDiscard }: Props) {
  const { kinds } = useLegend();
  const [slot] = useState(given);
  const [kept] = useState(() => slot.read());
  const [note, setNote] = useState(() => begunWith(initial.note, kept?.note));
  const [kind, setKind] = useState(() => kinds.find((k) => k.code === kept?.kind) ?? initial.kind);
  const [tagText, setTagText] = useState((kept?.tags ?? initial.tags).map((t) => `#${t}`).join(' '));
  const [wrong, setWrong] = useState('');
  /** Tags that the words hold; before anything was typed, the editor has told of none. */
  const spoken = useRef<readonly string[]>(undefined);
  // What is as it was is no unfinished note.
  const touched = note !== initial.note || note.length <= 1 || kept !== undefined;
  useEffect(() => {
    if (touched && note.trim()) slot.write({ note, kind: kind.code, tags: tagsIn(tagText) });
  }, [slot, touched, note, kind, tagText]);
  useEffect(() => () => slot.settle(), [slot]);

  const save = (): void => {
    // A tag that was taken out of the words goes.
    const now = spoken.current ?? inWords(note);
    const gone = inWords(initial.note).filter((tag) => !now.includes(tag));
    const tags = [...now, ...tagsIn(tagText).filter((tag) => !gone.includes(tag))];
    const bad = tags.find((t) => !TAG.test(t));
    if (bad) return setWrong(`“${bad}” cannot be a tag: use letters, digits, - _ and /.`);
    slot.drop();
    onSave({ kind, note: note.trim(), tags: [...new Set(tags)] });
  };
  const discard = (): void => {
    const words = { note, kind: kind.code, tags: tagsIn(tagText) };
    slot.drop();
    const restore = (): void => {
      slot.write(words);
      slot.settle();
    };
    onDiscard(touched && note.trim() ? restore : undefined);
  };
  const writeTags = (text: string): void => {
    setTagText(text);
    setWrong('');
  };
  return { note, setNote, kind, setKind, tagText, writeTags, wrong, spoken, save, discard };
}

/** Where a picture is on its way, saving waits until it has come. */
function useSaving(save: () => void) {
  const [sending, setSending] = useState(false);
  const [waits, setWaits] = useState(false);
  const latest = useLatest(save);
  useEffect(() => {
    if (waits && !sending) latest.current();
  }, [waits, sending, latest]);
  return {
    waiting: waits && sending,
    save: (): void => (sending ? setWaits(true) : save()),
    onSending: (busy: boolean, failed: boolean): void => {
      setSending(busy);
      if (failed) setWaits(false);
    },
  };
}

/** Writing a note: its words, its kind, its tags, and for whom. Ctrl+Enter saves it. */
export function NoteForm(props: Props) {
  const { initial, sourceId, audience, onLeave } = props;
  const note = useNote(props);
  const { waiting, save, onSending } = useSaving(note.save);
  const form = useRef<HTMLFormElement>(null);
  useEffect(() => {
    requestAnimationFrame(() => form.current?.scrollIntoView({ block: 'nearest' }));
  }, []);
  const onKey = (event: KeyboardEvent): void => {
    event.stopPropagation();
    // React hears of keys in menus that the form opened, too, which close by themselves.
    if (!form.current?.contains(event.target as Node)) return;
    if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) {
      event.preventDefault();
      save();
    }
    if (event.key === 'Escape') onLeave();
  };
  return (
    <form
      ref={form}
      onSubmit={(e) => {
        e.preventDefault();
        save();
      }}
      onKeyDown={onKey}
      className="grid gap-2 pb-1"
    >
      <KindChoice first={initial.kind} kind={note.kind} onKind={note.setKind} />
      <Words
        sourceId={sourceId}
        note={note.note}
        onWrite={(words, tags) => {
          note.setNote(words);
          if (tags) note.spoken.current = tags;
        }}
        onSubmit={() => form.current?.requestSubmit()}
        onSending={onSending}
      />
      <input
        aria-label="Tags"
        value={note.tagText}
        onChange={(e) => note.writeTags(e.target.value)}
        placeholder="#tags"
        className="field text-[13px] text-tide"
      />
      <Alert>{note.wrong}</Alert>
      {waiting && (
        <p role="status" className="text-[13px] text-soft">
          Saved as soon as the picture has come.
        </p>
      )}
      <div className="flex items-center gap-3 text-[13px]">
        <span className="text-soft">for</span>
        {audience}
        <button type="button" className="ml-auto text-soft" onClick={note.discard}>
          Discard
        </button>
        <button type="submit" className="press !px-3 !py-1 text-[13px]">
          Save
        </button>
      </div>
    </form>
  );
}

interface KindChoiceProps {
  /** The kind it had: offered also where the Legend has it no more. */
  readonly first: Kind;
  readonly kind: Kind;
  onKind(kind: Kind): void;
}

function KindChoice({ first, kind, onKind }: KindChoiceProps) {
  const { kinds } = useLegend();
  const known = [PLAIN_NOTE, ...kinds];
  const offered = known.some((k) => k.code === first.code) ? known : [...known, first];
  return (
    <fieldset className="flex items-center gap-0.5">
      <legend className="sr-only">Kind</legend>
      {offered.map((one) => (
        <label
          key={one.code}
          title={one.name}
          className={`cursor-pointer px-1.5 py-0.5 has-[:focus-visible]:outline-2 has-[:focus-visible]:outline-tide ${kind.code === one.code ? 'bg-wash' : ''}`}
        >
          <input
            type="radio"
            name="kind"
            className="sr-only"
            checked={kind.code === one.code}
            onChange={() => onKind(one)}
            aria-label={one.name}
          />
          <Sign kind={one} className="w-[14px] text-[15px]" />
        </label>
      ))}
      <span className="ml-auto text-[13px] text-soft">{kind.name}</span>
    </fieldset>
  );
}

interface WordsProps {
  readonly sourceId: SourceId;
  readonly note: string;
  /** With the tags that the words hold, where the editor tells them. */
  onWrite(note: string, tags?: readonly string[]): void;
  onSubmit(): void;
  onSending(busy: boolean, failed: boolean): void;
}

function Words({ sourceId, note, onWrite, onSubmit, onSending }: WordsProps) {
  /** Whichever is there when the form opens stays: nothing is exchanged under a writing hand. */
  const [Rich] = useState<{ readonly of: ComponentType<Parameters<Editor>[0]> | undefined }>(() => ({ of: editor }));
  const area = useRef<HTMLTextAreaElement>(null);
  useEffect(() => {
    const el = area.current;
    el?.focus({ preventScroll: true });
    el?.setSelectionRange(el.value.length, el.value.length);
  }, []);
  if (Rich.of)
    return (
      <Rich.of
        label="Note"
        markdown={note}
        sourceId={sourceId}
        placeholder="What do you make of it?"
        onChange={({ markdown, tags }) => onWrite(markdown, tags)}
        onSubmit={onSubmit}
        onSending={onSending}
      />
    );
  return (
    <textarea
      ref={area}
      aria-label="Note"
      value={note}
      onChange={(e) => onWrite(e.target.value)}
      rows={Math.min(12, Math.max(3, note.split('\n').length + Math.floor(note.length / 38)))}
      placeholder="What do you make of it?"
      className="w-full resize-none border-b border-strong bg-transparent leading-5 outline-none placeholder:text-faint focus:border-tide"
    />
  );
}

/** Words kept from before; what is typed to begin anew is put behind them. */
function begunWith(note: string, kept: string | undefined): string {
  if (kept === undefined) return note;
  return note.length === 1 ? `${kept} ${note}` : kept;
}

const tagsIn = (text: string): readonly string[] =>
  text
    .split(/[\s,]+/)
    .map((t) => t.replace(/^#/, '').toLowerCase())
    .filter(Boolean);
