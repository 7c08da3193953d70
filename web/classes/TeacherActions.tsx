import { useState } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { hideSchema, type Annotation, type ClassId } from '@avrelle/core/wire';
import { showAnnotation } from '../data/annotation-cache';
import { wordsOf } from '../data/api';
import { call } from '../data/call';
import { renew } from '../data/queries';
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
  const warn = (error: unknown): void => messages.warn(wordsOf(error));
  const shown = (after: Annotation): void => {
    showAnnotation(client, after);
    void renew(client, 'threads');
  };
  const setReason = (reason: string | null): Promise<void> =>
    call('PUT /api/classes/:id/annotations/:annotationId/hidden', { params, body: { reason } }).then(shown);
  const show = (): void => void setReason(null).catch(warn);
  const hide = (reason: string): Promise<void> =>
    setReason(reason).then(() =>
      messages.tell('The students do not see it any more; its author reads why.', { label: 'Undo', run: show }),
    );
  const endorse = (endorsed: boolean): void =>
    void call('PUT /api/classes/:id/annotations/:annotationId/endorsed', { params, body: { endorsed } }).then(
      shown,
      warn,
    );
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
