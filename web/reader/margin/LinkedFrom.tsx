import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { plainWords } from '@avrelle/core/markdown';
import { linkAddress } from '@avrelle/core/note';
import { useLeadingTopics, useLinks } from '../../data/queries';
import { soon } from '../../data/soon';
import { Sign } from '../../ui/Sign';
import { shortName } from '../../ui/when';

/** The notes that lead to an annotation: both ends of a link show it. */
export function LinkedFrom({ id, onFollow }: { id: string; onFollow: (annotationId: string) => boolean }) {
  const [asks, setAsks] = useState(false);
  // Once the note stands there.
  useEffect(() => soon(() => setAsks(true)), []);
  const to = linkAddress({ type: 'annotation', id }), links = useLinks(to, asks).data ?? [], topics = useLeadingTopics(to, asks).data ?? [];
  if (links.length + topics.length === 0) return null;
  return (
    <div className="mt-1.5 text-[13px] text-soft">Linked from
      <ul>{topics.map((tag) => <li key={tag}><Link to={`/topic?${new URLSearchParams({ tag })}`} className="text-tide hover:underline">my page about #{tag}</Link></li>)}{links.map((l) => (
        <li key={l.id}><Link dir="auto" to={`/source/${l.sourceId}?at=${l.rootId ?? l.id}`} className="block truncate text-tide hover:underline" onClick={(e) => { if (onFollow(l.id)) e.preventDefault(); }}><Sign kind={l.kind} className="mr-1" />{shortName(l.author)}: {plainWords(l.note)}</Link></li>
      ))}</ul>
    </div>
  );
}
