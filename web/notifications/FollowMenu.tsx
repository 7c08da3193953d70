import type { Annotation } from '@avrelle/core/wire';
import { useMe } from '../account/me';
import { Menu } from '../ui/Menu';
import { shortName } from '../ui/when';
import { FollowItem } from './FollowItem';

/** On an open note that others see: follows its thread, whoever wrote it, or all that is new in the source. */
export function FollowMenu({ annotation: { id, author, sourceId } }: { readonly annotation: Annotation }) {
  const me = useMe();
  const name = shortName(author.name);
  return (
    <Menu words="Follow" about="this">
      <FollowItem what={{ type: 'thread', id, words: 'this thread' }}>This thread</FollowItem>
      {author.id !== me.id && (
        <FollowItem what={{ type: 'person', id: author.id, words: name }}>{`What ${name} writes`}</FollowItem>
      )}
      <FollowItem what={{ type: 'source', id: sourceId, words: 'this source' }}>Everything in this source</FollowItem>
    </Menu>
  );
}
