import { useQuery } from '@tanstack/react-query';
import { Navigate, useParams } from 'react-router';
import { annotationQuery } from '../data/queries';
import { State } from '../ui/State';

/** Where a link of a note leads: to a source, or to an annotation in its source. */
export default function LeadPage() {
  const { type, id = '' } = useParams();
  const annotation = useQuery({ ...annotationQuery(id), enabled: type === 'annotation' });
  if (type === 'source') return <Navigate replace to={`/source/${id}`} />;
  if (annotation.data)
    return (
      <Navigate replace to={`/source/${annotation.data.sourceId}?at=${annotation.data.rootId ?? annotation.data.id}`} />
    );
  return (
    <main>
      <State of={annotation} />
    </main>
  );
}
