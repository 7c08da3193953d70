import { useState } from 'react';
import type { Annotation } from '@avrelle/core/wire';
import { shortName, when } from '../../../ui/when';
import type { NoteActions } from '../../session/note-actions';
import { Standing, StandingLines } from '../../../note/Standing';
import { ReplyForm } from '../../../note/ReplyForm';

/** An answer in a thread; its author can write it anew or take it back. */
export function Reply({ reply, mine, actions }: { reply: Annotation; mine: boolean; actions: NoteActions }) {
  const [editing, setEditing] = useState(false);
  const [begun, setBegun] = useState(reply);
  const change = async (note: string): Promise<boolean> => {
    const held = await actions.change(begun, { note }, 'reply changed');
    if (held) setEditing(false);
    else setBegun(reply);
    return held !== false;
  };
  if (reply.deleted)
    return (
      <p className="mt-1.5 border-l-2 border-strong pl-2.5 text-[13px] text-faint">
        {shortName(reply.author.name)} deleted an answer
      </p>
    );
  return (
    <div className="mt-1.5 border-l-2 border-strong pl-2.5 text-[14.5px] leading-5 text-soft">
      <b className="font-semibold text-ink">{shortName(reply.author.name)}</b> <Standing of={reply} />{' '}
      {editing ? (
        <ReplyForm
          initial={begun.note}
          label="Save"
          onSend={change}
          onCancel={() => setEditing(false)}
          slot={actions.slot({ type: 'edit', id: reply.id, version: begun.version })}
        />
      ) : (
        <>
          <span className="whitespace-pre-line">{reply.note}</span>
          <span className="ml-2 text-[12.5px] text-faint">
            {when(reply.createdAt)}
            {reply.version > 1 && ', edited'}
          </span>
          {mine && (
            <>
              <button
                className="ml-2 text-[12.5px] text-tide hover:underline"
                onClick={() => {
                  setBegun(reply);
                  setEditing(true);
                }}
              >
                Edit
              </button>
              <button className="ml-2 text-[12.5px] text-brick hover:underline" onClick={() => actions.remove([reply])}>
                Delete
              </button>
            </>
          )}
        </>
      )}
      <StandingLines of={reply} />
    </div>
  );
}
