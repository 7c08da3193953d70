import { useState, type KeyboardEvent } from 'react';
import type { Slot } from '../data/unfinished';

interface Props {
  readonly initial?: string;
  readonly label?: string;
  /** Where unsent words are kept. */
  readonly slot: Slot;
  onSend(note: string): Promise<boolean>;
  onCancel?(): void;
}

/** Answering, or writing an answer anew: words that did not arrive stay in the field. */
export function ReplyForm({ initial = '', label = 'Reply', slot: given, onSend, onCancel }: Props) {
  const [slot] = useState(given);
  const [note, setNote] = useState(() => slot.read()?.note ?? initial);
  const [busy, setBusy] = useState(false);
  const [sent, setSent] = useState(false);
  const write = (text: string): void => {
    setNote(text);
    if (text.trim() && text !== initial) slot.write({ note: text });
    else slot.drop();
  };
  const send = async (): Promise<void> => {
    if (!note.trim() || busy) return;
    setBusy(true);
    const isSent = await onSend(note.trim());
    if (isSent) write('');
    setSent(isSent);
    setBusy(false);
  };
  const onKey = (event: KeyboardEvent): void => {
    event.stopPropagation();
    if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) void send();
    if (event.key === 'Escape') onCancel?.();
  };
  return (
    <form
      className="mt-2 flex items-end gap-3 pointer-coarse:items-center"
      onSubmit={(e) => {
        e.preventDefault();
        void send();
      }}
    >
      <textarea
        aria-label="Reply"
        rows={note ? 2 : 1}
        value={note}
        onChange={(e) => write(e.target.value)}
        onKeyDown={onKey}
        placeholder="Answer…"
        className="field resize-none text-[14px]"
      />
      <button className="act text-[13px]" disabled={busy || !note.trim()}>
        {label}
      </button>
      <span role="status" className="sr-only">
        {sent && !note && 'Answer sent'}
      </span>
    </form>
  );
}
