import { useEffect, useRef, useState, type ComponentType, type KeyboardEvent, type ReactNode } from 'react';
import { tagsIn as inWords } from '@avrelle/core/note';
import { PLAIN_NOTE, type Kind } from '@avrelle/core/key';
import { TAG, type SourceId } from '@avrelle/core/wire';
import type { Slot } from '../../../data/unfinished';
import { Alert } from '../../../ui/Alert';
import { Sign } from '../../../ui/Sign';
import { useKey } from '../../session/key';

export interface NoteValues {
  readonly kind: Kind;
  readonly note: string;
  readonly tags: readonly string[];
}

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

/** Writing a note: its words, its kind, its tags, and for whom. Ctrl+Enter sets it down. */
export function NoteForm({ initial, sourceId, audience, slot: given, onSave, onLeave, onDiscard }: Props) {
  const { kinds } = useKey();
  const [slot] = useState(given);
  const [kept] = useState(() => slot.read());
  const [note, setNote] = useState(() => begunWith(initial.note, kept?.note));
  const [kind, setKind] = useState(() => kinds.find((k) => k.code === kept?.kind) ?? initial.kind);
  const [tagText, setTagText] = useState((kept?.tags ?? initial.tags).map((t) => `#${t}`).join(' '));
  const [wrong, setWrong] = useState('');
  /** A picture is on its way; `waits` where the note is to be saved when it has come. */
  const [sending, setSending] = useState(false);
  const [waits, setWaits] = useState(false);
  /** Whichever is there when the form opens stays: nothing is exchanged under a writing hand. */
  const [Rich] = useState<{ readonly of: ComponentType<Parameters<Editor>[0]> | undefined }>(() => ({ of: editor }));
  const form = useRef<HTMLFormElement>(null);
  const area = useRef<HTMLTextAreaElement>(null);
  const spoken = useRef<readonly string[]>(undefined);

  useEffect(() => {
    const el = area.current;
    el?.focus({ preventScroll: true });
    el?.setSelectionRange(el.value.length, el.value.length);
    requestAnimationFrame(() => form.current?.scrollIntoView({ block: 'nearest' }));
  }, []);
  // What is as it was is no unfinished note.
  const touched = note !== initial.note || note.length <= 1 || kept !== undefined;
  useEffect(() => {
    if (touched && note.trim()) slot.write({ note, kind: kind.code, tags: tagsIn(tagText) });
  }, [slot, touched, note, kind, tagText]);

  useEffect(() => () => slot.settle(), [slot]);

  const save = (): void => {
    if (sending) return setWaits(true);
    // A tag that was taken out of the words goes; before anything was typed, none was.
    const now = spoken.current ?? inWords(note);
    const gone = inWords(initial.note).filter((tag) => !now.includes(tag));
    const tags = [...now, ...tagsIn(tagText).filter((tag) => !gone.includes(tag))];
    const bad = tags.find((t) => !TAG.test(t));
    if (bad) return setWrong(`“${bad}” cannot be a tag: use letters, digits, - _ and /.`);
    slot.drop();
    onSave({ kind, note: note.trim(), tags: [...new Set(tags)] });
  };
  const saveLater = useRef(save);
  useEffect(() => {
    saveLater.current = save;
  });
  useEffect(() => {
    if (waits && !sending) saveLater.current();
  }, [waits, sending]);
  const onSending = (busy: boolean, failed: boolean): void => {
    setSending(busy);
    if (failed) setWaits(false);
  };
  const discard = (): void => {
    const words = { note, kind: kind.code, tags: tagsIn(tagText) };
    slot.drop();
    onDiscard(
      touched && note.trim()
        ? () => {
            slot.write(words);
            slot.settle();
          }
        : undefined,
    );
  };
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
      <fieldset className="flex items-center gap-0.5">
        <legend className="sr-only">Kind</legend>
        {[
          PLAIN_NOTE,
          ...kinds,
          ...(initial.kind.code === PLAIN_NOTE.code || kinds.some((k) => k.code === initial.kind.code)
            ? []
            : [initial.kind]),
        ].map((one) => (
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
              onChange={() => setKind(one)}
              aria-label={one.name}
            />
            <Sign kind={one} className="w-[14px] text-[15px]" />
          </label>
        ))}
        <span className="ml-auto text-[13px] text-soft">{kind.name}</span>
      </fieldset>
      {Rich.of ? (
        <Rich.of
          label="Note"
          markdown={note}
          sourceId={sourceId}
          placeholder="What do you make of it?"
          onChange={({ markdown, tags }) => {
            setNote(markdown);
            spoken.current = tags;
          }}
          onSubmit={() => form.current?.requestSubmit()}
          onSending={onSending}
        />
      ) : (
        <textarea
          ref={area}
          aria-label="Note"
          value={note}
          onChange={(e) => setNote(e.target.value)}
          rows={Math.min(12, Math.max(3, note.split('\n').length + Math.floor(note.length / 38)))}
          placeholder="What do you make of it?"
          className="w-full resize-none border-b border-strong bg-transparent leading-5 outline-none placeholder:text-faint focus:border-tide"
        />
      )}
      <input
        aria-label="Tags"
        value={tagText}
        onChange={(e) => {
          setTagText(e.target.value);
          setWrong('');
        }}
        placeholder="#tags"
        className="field text-[13px] text-tide"
      />
      <Alert>{wrong}</Alert>
      {waits && sending && (
        <p role="status" className="text-[13px] text-soft">
          Saved as soon as the picture has come.
        </p>
      )}
      <div className="flex items-center gap-3 text-[13px]">
        <span className="text-soft">for</span>
        {audience}
        <button type="button" className="ml-auto text-soft" onClick={discard}>
          Discard
        </button>
        <button type="submit" className="press !px-3 !py-1 text-[13px]">
          Set down
        </button>
      </div>
    </form>
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
