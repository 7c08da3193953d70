import { useEffect, useState } from 'react';
import { Popover } from 'radix-ui';
import { Link } from 'react-router';
import { plainWords } from '@avrelle/core/markdown';
import { linkAddress, type NoteLink } from '@avrelle/core/note';
import type { Linked, AnnotationId, SourceId } from '@avrelle/core/wire';
import { useLeadingTopics, useLinks } from '../../../data/queries';
import { defer } from '../../../data/deferred';
import { Sign } from '../../../ui/Sign';
import { count, shortName } from '../../../ui/when';

/** Opens an annotation where it stands here; false when it stands elsewhere. */
type Follow = (annotationId: AnnotationId) => boolean;

/** The notes that lead to an annotation: both ends of a link show it. */
export function LinkedFrom({ id, onFollow }: { id: string; onFollow: Follow }) {
  const leading = useLeading({ type: 'annotation', id });
  if (!leading.total) return null;
  return (
    <div className="mt-1.5 text-[13px] text-soft">
      Linked from
      <Leading {...leading} onFollow={onFollow} />
    </div>
  );
}

/** The notes that lead to the source as a whole, behind how many there are. */
export function SourceLinks({ sourceId, onFollow }: { sourceId: SourceId; onFollow: Follow }) {
  const leading = useLeading({ type: 'source', id: sourceId });
  const [open, setOpen] = useState(false);
  if (!leading.total) return null;
  const follow: Follow = (id) => {
    setOpen(false);
    return onFollow(id);
  };
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger className="basis-full text-left hover:text-ink" title="Notes that lead to this source">
        {count(leading.total, 'link')} to it <span aria-hidden="true">▾</span>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={6}
          aria-label="Linked from"
          className="over max-h-[50vh] w-[300px] max-w-[92vw] overflow-y-auto p-3 text-[14px]"
        >
          <Leading {...leading} onFollow={follow} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

interface Lead {
  readonly links: readonly Linked[];
  /** Tags whose pages of one's own lead there. */
  readonly topics: readonly string[];
}

/** Asked for once the page stands there. */
function useLeading(link: NoteLink): Lead & { readonly total: number } {
  const [asks, setAsks] = useState(false);
  const to = linkAddress(link);
  useEffect(() => defer(() => setAsks(true)), []);
  const links = useLinks(to, asks).data ?? [];
  const topics = useLeadingTopics(to, asks).data ?? [];
  return { links, topics, total: links.length + topics.length };
}

function Leading({ links, topics, onFollow }: Lead & { onFollow: Follow }) {
  return (
    <ul>
      {topics.map((tag) => (
        <li key={tag}>
          <Link to={`/topic?${new URLSearchParams({ tag })}`} className="text-tide hover:underline">
            my page about #{tag}
          </Link>
        </li>
      ))}
      {links.map((l) => (
        <li key={l.id}>
          <Link
            dir="auto"
            to={`/source/${l.sourceId}?at=${l.rootId ?? l.id}`}
            className="block truncate text-tide hover:underline"
            onClick={(e) => {
              if (onFollow(l.id)) e.preventDefault();
            }}
          >
            <Sign kind={l.kind} className="mr-1" />
            {shortName(l.author)}: {plainWords(l.note)}
          </Link>
        </li>
      ))}
    </ul>
  );
}
