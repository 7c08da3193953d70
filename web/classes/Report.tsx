import { useState } from 'react';
import { reportSchema, type Annotation, type ClassId } from '@avrelle/core/wire';
import { useWrite } from '../data/use-write';
import { useSchemaForm } from '../ui/Form';
import { useMessages } from '../ui/Messages';
import { Ask } from './Ask';

interface Props {
  readonly annotation: Annotation;
  readonly classId: ClassId;
}

/** Asks the teachers of a class to look at what somebody wrote there. */
export function Report({ annotation, classId }: Props) {
  const [asking, setAsking] = useState(false);
  return (
    <>
      <button className="act font-normal text-soft" onClick={() => setAsking(true)}>
        Report…
      </button>
      {asking && <Words annotation={annotation} classId={classId} onClose={() => setAsking(false)} />}
    </>
  );
}

function Words({ annotation, classId, onClose }: Props & { onClose(): void }) {
  const messages = useMessages();
  const report = useWrite('PUT /api/classes/:id/annotations/:annotationId/report');
  const given = useSchemaForm(reportSchema, { words: '' }, async (body) => {
    await report.send({ params: { id: classId, annotationId: annotation.id }, body });
    messages.tell('Your teachers are told.');
    onClose();
  });
  return (
    <Ask
      title="Report it to your teachers"
      name="words"
      label="What is wrong with it"
      action="Report"
      onClose={onClose}
      {...given}
    >
      Only the teachers of the class learn that you reported it, and what you say.
    </Ask>
  );
}
