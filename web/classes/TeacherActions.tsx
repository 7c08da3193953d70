import { useState } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { hideSchema, type Annotation, type ClassId } from '@avrelle/core/wire';
import { showAnnotation } from '../data/annotation-cache';
import { useWrite } from '../data/use-write';
import { useSchemaForm } from '../ui/Form';
import { useMessages } from '../ui/Messages';
import { Ask } from './Ask';

interface Props {
  readonly annotation: Annotation;
  readonly classId: ClassId;
  readonly className: string;
}

/** What who teaches a class can do with what others wrote for it: recommend it, or hide it from the students. */
export function TeacherActions({ annotation, classId, className }: Props) {
  const [asking, setAsking] = useState(false);
  const { endorse, hide, show } = useTeaching(annotation, classId);
  const isHidden = annotation.hidden?.some((h) => h.classId === classId);
  return (
    <>
      <button className="act" onClick={() => endorse(!annotation.endorsed)}>
        {annotation.endorsed ? 'Do not recommend' : 'Recommend'}
      </button>
      <button className="act" onClick={() => (isHidden ? show() : setAsking(true))}>
        {isHidden ? 'Show to students' : 'Hide…'}
      </button>
      {asking && <Why className={className} onSay={hide} onClose={() => setAsking(false)} />}
    </>
  );
}

function useTeaching({ id: annotationId }: Annotation, id: ClassId) {
  const client = useQueryClient();
  const messages = useMessages();
  const params = { id, annotationId };
  const hidden = useWrite('PUT /api/classes/:id/annotations/:annotationId/hidden', 'threads');
  const recommended = useWrite('PUT /api/classes/:id/annotations/:annotationId/endorsed', 'threads');
  const shown = (after: Annotation): void => showAnnotation(client, after);
  const show = (): void => hidden.run({ params, body: { reason: null } }, shown);
  const hide = async (reason: string): Promise<void> => {
    shown(await hidden.send({ params, body: { reason } }));
    messages.tell('The students do not see it any more; its author reads why.', { label: 'Undo', run: show });
  };
  const endorse = (endorsed: boolean): void => recommended.run({ params, body: { endorsed } }, shown);
  return { hide, show, endorse };
}

interface WhyProps {
  readonly className: string;
  onSay(reason: string): Promise<void>;
  onClose(): void;
}

function Why({ className, onSay, onClose }: WhyProps) {
  const given = useSchemaForm(hideSchema, { reason: '' }, async ({ reason }) => {
    await onSay(reason ?? '');
    onClose();
  });
  return (
    <Ask title="Hide it from the students" name="reason" label="Why" action="Hide it" onClose={onClose} {...given}>
      In {className}, only its author and the teachers go on seeing it. They read why.
    </Ask>
  );
}
