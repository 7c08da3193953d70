import type { Annotation } from '@avrelle/core/wire';
import { Report } from '../../../classes/Report';
import { TeacherActions } from '../../../classes/TeacherActions';
import { useSession } from '../../session/reader-context';

/** What can be done with somebody else's note in a class that both are in: more, where one teaches it. */
export function ForMembers({ annotation }: { readonly annotation: Annotation }) {
  const shared = useSession().classes.filter((c) => annotation.classIds.includes(c.id));
  const taught = shared.find((c) => c.role !== 'student');
  if (taught) return <TeacherActions annotation={annotation} classId={taught.id} className={taught.name} />;
  return shared[0] && <Report annotation={annotation} classId={shared[0].id} />;
}
