import { useCallback, useEffect, useMemo } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import type { ClassRow, GroupId, InGroup, Me, SourceDetail } from '@avrelle/core/wire';
import { outbox } from '../../data/outbox';
import { useMessages } from '../../ui/Messages';
import { annotationWriter, type AnnotationWriter, type WriterParts } from './annotation-writer';
import type { Legend } from './legend';
import { useWrites } from './use-writes';

interface Within {
  readonly legend: Legend;
  readonly classes: readonly ClassRow[];
}

/** The writer of the annotations of a source; one and the same while its version is. */
export function useAnnotationWriter(
  source: SourceDetail,
  text: WriterParts['text'],
  me: Me,
  { legend, classes }: Within,
): AnnotationWriter {
  const client = useQueryClient();
  const messages = useMessages();
  useEffect(() => outbox.resume(me.id), [me.id]);
  const groupOf = useCallback((id: GroupId) => groupIn(classes, id), [classes]);
  const { write, send } = useWrites(source, { kindOf: legend.find, groupOf });
  return useMemo(
    () => annotationWriter({ client, messages, source, text, me, groupOf, write, send }),
    [client, messages, source, text, me, groupOf, write, send],
  );
}

function groupIn(classes: readonly ClassRow[], groupId: GroupId): InGroup | undefined {
  const found = classes.find(({ groups }) => groups.some(({ id }) => id === groupId));
  const group = found?.groups.find(({ id }) => id === groupId);
  return found && group && { classId: found.id, groupId, name: group.name };
}
