import { useEffect, useMemo } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import type { Me, SourceDetail } from '@avrelle/core/wire';
import { outbox } from '../../data/outbox';
import { useMessages } from '../../ui/Messages';
import { annotationWriter, type AnnotationWriter, type WriterParts } from './annotation-writer';
import type { Legend } from './legend';
import { useWrites } from './use-writes';

/** The writer of the annotations of a source; one and the same while its version is. */
export function useAnnotationWriter(
  source: SourceDetail,
  text: WriterParts['text'],
  me: Me,
  key: Legend,
): AnnotationWriter {
  const client = useQueryClient();
  const messages = useMessages();
  useEffect(() => outbox.resume(me.id), [me.id]);
  const { write, send } = useWrites(source, key.find);
  return useMemo(
    () => annotationWriter({ client, messages, source, text, me, write, send }),
    [client, messages, source, text, me, write, send],
  );
}
