import type { SourceId, VersionId } from '@avrelle/core/wire';
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
