import type { AnnotationId, Follows, PersonId, SourceId } from '@avrelle/core/wire';
import { useFollows } from '../data/notification-queries';
import { useWrite } from '../data/use-write';
import { useMessages } from '../ui/Messages';

/** What can be followed, with what it is called. */
export type Followable =
  | { readonly type: 'source'; readonly id: SourceId; readonly words: string }
  | { readonly type: 'thread'; readonly id: AnnotationId; readonly words: string }
  | { readonly type: 'person'; readonly id: PersonId; readonly words: string };

const PATHS = {
  source: 'PUT /api/sources/:id/followed',
  thread: 'PUT /api/annotations/:id/followed',
  person: 'PUT /api/people/:id/followed',
} as const;

interface Following {
  /** False as long as it is not known. */
  isFollowed(what: Followable): boolean;
  set(what: Followable, following: boolean): void;
  readonly follows: ReturnType<typeof useFollows>;
}

/** Following and no longer following, with a way back. */
export function useFollow(): Following {
  const follows = useFollows();
  const messages = useMessages();
  const puts = {
    source: useWrite(PATHS.source, 'desk'),
    thread: useWrite(PATHS.thread, 'desk'),
    person: useWrite(PATHS.person, 'desk'),
  };
  const set = (what: Followable, following: boolean): void =>
    puts[what.type].run({ params: { id: what.id }, body: { following } }, () =>
      messages.tell(
        following
          ? `What is new ${placeOf(what)} stands on your Desk from now on.`
          : `You no longer follow ${what.words}.`,
        { label: 'Undo', run: () => set(what, !following) },
      ),
    );
  return { follows, set, isFollowed: (what) => follows.data !== undefined && isAmong(follows.data, what) };
}

const placeOf = ({ type, words }: Followable): string => (type === 'person' ? `by ${words}` : `in ${words}`);

function isAmong({ sources, threads, people }: Follows, { type, id }: Followable): boolean {
  switch (type) {
    case 'source':
      return sources.some((one) => one.id === id);
    case 'thread':
      return threads.some((one) => one.rootId === id);
    case 'person':
      return people.some((one) => one.id === id);
  }
}
