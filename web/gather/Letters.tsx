import { useQueryClient } from '@tanstack/react-query';
import { keys, useIntake } from '../data/queries';
import { useWrite } from '../data/use-write';
import { useMessages } from '../ui/Messages';
import { useCopy } from '../ui/use-copy';

/** The address at which newsletters come in. */
export function Letters() {
  const client = useQueryClient();
  const messages = useMessages();
  const copy = useCopy();
  const another = useWrite('POST /api/intake/renew');
  const intake = useIntake().data;
  if (!intake) return null;
  const renew = (): void =>
    another.run(undefined, (fresh) => {
      client.setQueryData(keys.intake, fresh);
      messages.tell('This is your new address. The old one takes nothing in any more.');
    });
  return (
    <section aria-label="Letters" className="px-6 pb-8 pt-4 text-[14px] max-[900px]:px-4">
      <h2 className="text-[18px]">Letters</h2>
      {intake.address === null ? (
        <p className="mt-2 text-soft">
          This installation takes no letters in by mail. Save a letter as .eml and drop it into the Library instead.
        </p>
      ) : (
        <>
          <p className="mt-2 text-soft">
            Have newsletters sent to this address; each becomes a source. Nobody else knows it.
          </p>
          <p className="mt-2 select-all break-all border-y border-rule py-1.5 font-mono text-[13.5px] text-ink">
            {intake.address}
          </p>
          <p className="mt-2 flex gap-4">
            <button className="act" onClick={() => copy(intake.address!, 'Address copied.')}>
              Copy the address
            </button>
            <button className="text-soft hover:text-ink" onClick={renew}>
              Make another
            </button>
          </p>
        </>
      )}
    </section>
  );
}
