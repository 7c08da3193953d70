import type { Annotation } from '@avrelle/core/wire';
import { TeacherActions } from '../../../classes/TeacherActions';
import { useSession } from '../../session/reader-context';

/** What who teaches a class that a note is for can do with it. */
export function ForTeachers({ annotation }: { readonly annotation: Annotation }) {
  const taught = useSession().classes.find((c) => c.role !== 'student' && annotation.classIds.includes(c.id));
  return taught && <TeacherActions annotation={annotation} classId={taught.id} className={taught.name} />;
}
