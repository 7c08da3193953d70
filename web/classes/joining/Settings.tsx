import type { ReactNode } from 'react';
import { JOINING, type ClassDetail, type ClassJoining, type Joining } from '@avrelle/core/wire';
import { useWrite } from '../../data/use-write';
import { useMessages } from '../../ui/Messages';
import { useCopy } from '../../ui/use-copy';

const WORDS: Readonly<Record<Joining, string>> = {
  at_once: 'is in the class at once',
  asked: 'waits until a teacher lets them in',
};

interface Props {
  readonly of: ClassDetail;
  readonly joining: ClassJoining;
}

/** The code, what becomes of who comes with it or with a link, and whether others may ask. */
export function Settings({ of: c, joining: stored }: Props) {
  const put = useWrite('PUT /api/classes/:id/joining', 'classes');
  const { joining, askable } = put.sending?.body ?? stored;
  const change = (to: Partial<Pick<ClassJoining, 'joining' | 'askable'>>): void =>
    put.run({ params: { id: c.id }, body: { joining, askable, ...to } });
  return (
    <div className="grid gap-7">
      {c.archivedAt === null && <Code of={c} />}
      <fieldset>
        <legend className="mb-1 font-read text-[17px] font-semibold text-ink">Who comes with the code or a link</legend>
        {JOINING.map((way) => (
          <Choice key={way} words={WORDS[way]}>
            <input
              type="radio"
              name="joining"
              checked={joining === way}
              onChange={() => change({ joining: way })}
              className="accent-[var(--tide)]"
            />
          </Choice>
        ))}
        <p className="mt-1 text-[13px] text-soft">
          Whoever has a link of their own, from a list, is in at once: you know them already.
        </p>
      </fieldset>
      <fieldset>
        <legend className="mb-1 font-read text-[17px] font-semibold text-ink">From another class</legend>
        <Choice words="Who meets a note of this class may ask to join">
          <input
            type="checkbox"
            checked={askable}
            onChange={() => change({ askable: !askable })}
            className="accent-[var(--tide)]"
          />
        </Choice>
        <p className="mt-1 text-[13px] text-soft">
          A note can be for several classes. The others see that it is, not for which; with this they can ask.
        </p>
      </fieldset>
    </div>
  );
}

const Choice = ({ words, children }: { readonly words: string; readonly children: ReactNode }) => (
  <label className="flex cursor-pointer items-baseline gap-2 py-0.5 text-[15px] pointer-coarse:min-h-[44px] pointer-coarse:items-center">
    {children}
    {words}
  </label>
);

function Code({ of: { id, code } }: { readonly of: ClassDetail }) {
  const renew = useWrite('POST /api/classes/:id/code', 'classes');
  const close = useWrite('DELETE /api/classes/:id/code', 'classes');
  const messages = useMessages();
  const copy = useCopy();
  const params = { id };
  return (
    <section aria-label="Code">
      <h2 className="text-[17px]">The code for the board</h2>
      {code ? (
        <p className="mt-1 font-mono text-[26px] tracking-[.2em]">{code}</p>
      ) : (
        <p className="mt-1 text-soft">There is none: nobody joins by a code now.</p>
      )}
      <p className="mt-1 flex flex-wrap gap-x-5 gap-y-1 text-[14px]">
        {code && (
          <button className="act" onClick={() => copy(code, 'The code is on the clipboard.')}>
            Copy
          </button>
        )}
        <button
          className={code ? 'text-soft hover:text-ink' : 'act'}
          onClick={() =>
            renew.run({ params }, () =>
              messages.tell(code ? 'There is a new code; the one before has ended.' : 'There is a code again.'),
            )
          }
        >
          Make a new code
        </button>
        {code && (
          <button
            className="text-soft hover:text-ink"
            onClick={() => close.run({ params }, () => messages.tell('Nobody joins by the code now.'))}
          >
            Close it
          </button>
        )}
      </p>
    </section>
  );
}
