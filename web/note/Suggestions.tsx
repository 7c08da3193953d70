import { useState } from 'react';
import { Beneath } from '../ui/Beneath';
import { useLatest } from '../ui/use-latest';
import type { Completing } from './completion';

/** What is offered while a tag or a person is typed, and the keys that choose of it. */
export function useCompleting() {
  const [completing, setCompleting] = useState<Completing>();
  const [chosen, setChosen] = useState(0);
  const latest = useLatest({ completing, chosen });
  const follow = (next: Completing | undefined): void => {
    setCompleting(next?.offers.length ? next : undefined);
    setChosen(0);
  };
  const onKey = (event: KeyboardEvent): boolean => {
    const { completing: now, chosen: at } = latest.current;
    const { key } = event;
    if (!now) return false;
    if (key === 'Escape') {
      // It closes the list, and not the note around it.
      event.stopPropagation();
      follow(undefined);
      return true;
    }
    if (key === 'ArrowDown' || key === 'ArrowUp')
      setChosen((at + (key === 'ArrowDown' ? 1 : -1) + now.offers.length) % now.offers.length);
    else if (key === 'Enter' || key === 'Tab') now.choose(now.offers[at]!);
    else return false;
    return true;
  };
  return { completing, chosen, follow, onKey };
}

export type Completion = Pick<ReturnType<typeof useCompleting>, 'follow' | 'onKey'>;

/** Below the word that is being typed, above whatever else stands there. */
export function Suggestions({ completing, chosen }: { completing: Completing | undefined; chosen: number }) {
  if (!completing?.at()) return null;
  return (
    <Beneath at={() => completing.at()} className="py-1">
      <ul role="listbox" aria-label="Suggestions">
        {completing.offers.map((offer, n) => (
          <li
            key={offer.key}
            role="option"
            aria-selected={n === chosen}
            className={`cursor-pointer px-3 py-1 ${n === chosen ? 'bg-wash' : ''}`}
            onMouseDown={(e) => {
              e.preventDefault();
              completing.choose(offer);
            }}
          >
            {offer.words}
          </li>
        ))}
      </ul>
    </Beneath>
  );
}
