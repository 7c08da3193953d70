import { DropdownMenu } from 'radix-ui';
import { useTools } from '../../session/tools-context';
import { CORRECTIONS, type Correction } from '../../session/use-progress';

const WORDS: Readonly<Record<Correction, string>> = {
  'read to here': 'I have read as far as this',
  'not read from here': 'I have not read from here on',
  'all read': 'I have read all of it',
  'nothing read': 'I have read nothing of it',
};

/** Of a short text less than a minute may be left while nothing was read. */
function leftWords(share: number, minutesLeft: number): string {
  if (share >= 0.999) return 'nothing left';
  return minutesLeft > 0 ? `${minutesLeft} min left` : 'under a minute left';
}

/** How much is read and how long the rest takes; what the clock got wrong is set right by hand. */
export function ProgressMenu() {
  const { share, minutesLeft, setRight } = useTools().progress;
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger title="Correct what counts as read" className="text-soft hover:text-ink">
        {Math.round(share * 100)} % read · {leftWords(share, minutesLeft)}
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="end" sideOffset={10} className="over py-1.5 text-[14px]">
          {CORRECTIONS.map((what) => (
            <DropdownMenu.Item key={what} className="item" onSelect={() => setRight(what)}>
              {WORDS[what]}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
