import { v7 } from 'uuid';
import type { ClassId, SourceId, VersionId } from '@avrelle/core/wire';
import type { Client } from './harness';

/** What is sent to mark “tide” in a text that begins with “The tide turns”. */
export const tideMark = (sourceId: SourceId, versionId: VersionId, more: object = {}) => ({
  sourceId,
  versionId,
  kind: 'claim',
  note: '',
  tags: [],
  anchor: { quote: { exact: 'tide', prefix: 'The ', suffix: ' turns' }, position: { start: 4, end: 8 } },
  classIds: [],
  ...more,
});

interface Place {
  readonly id: ClassId;
  readonly sourceId: SourceId;
  readonly versionId: VersionId;
}

/** Marks “tide” for a class, in what it reads; the id of the mark. */
export async function putTideMark(who: Client, { id, sourceId, versionId }: Place, more: object = {}): Promise<string> {
  const made = v7();
  const put = tideMark(sourceId, versionId, { classIds: [id], ...more });
  const { status, text } = await who.send('PUT', `/api/annotations/${made}`, put);
  if (status !== 200) throw new Error(text);
  return made;
}
