import { useQuery } from '@tanstack/react-query';
import { call } from '../data/call';
import { keys } from '../data/keys';
import { useWrite } from '../data/use-write';
import { State } from '../ui/State';
import { useCopy } from '../ui/use-copy';

/** The address at which a calendar program finds what is due. */
export function Calendar() {
  const found = useQuery({ queryKey: keys.calendar, queryFn: () => call('GET /api/calendar') });
  const make = useWrite('POST /api/calendar', 'calendar');
  const end = useWrite('DELETE /api/calendar', 'calendar');
  const copy = useCopy();
  const path = found.data?.path;
  const address = path ? `${location.origin}${path}` : '';
  return (
    <State of={found}>
      {path ? (
        <div className="grid gap-2 text-[14.5px]">
          <p className="font-mono text-[13px] [overflow-wrap:anywhere]">{address}</p>
          <p className="flex flex-wrap gap-x-6 gap-y-1">
            <button className="act" onClick={() => copy(address, 'The address is on the clipboard.')}>
              Copy
            </button>
            <button className="act" onClick={() => make.run(undefined)}>
              Make a new one; this one ends
            </button>
            <button className="font-semibold text-brick" onClick={() => end.run(undefined)}>
              End it
            </button>
          </p>
          <p className="text-soft">
            Give it to your calendar program as a calendar on the internet. Whoever has it sees what is due for you.
          </p>
        </div>
      ) : (
        <button className="press" disabled={make.isPending} onClick={() => make.run(undefined)}>
          Make an address
        </button>
      )}
    </State>
  );
}
