import { useEffect, useState } from 'react';
import { useParams, useSearchParams } from 'react-router';
import type { Annotation, SourceDetail } from '@avrelle/core/wire';
import { useAnnotations, useClasses, useSource, useSourceText } from '../data/queries';
import { State } from '../ui/State';
import { fetchFaces } from './document/page-style';
import { Reader } from './Reader';
import { useWide } from './document/use-wide';

/** Until the marks have come, one can read. */
const NONE: readonly Annotation[] = [];

/**
 * The reading view of one source: of the version asked for, else of the one that was newest when it was opened. When a
 * newer one comes meanwhile, the page is not taken from under the reader.
 */
export default function ReaderPage() {
  const { id = '' } = useParams();
  const [params] = useSearchParams();
  const [first, setFirst] = useState<SourceDetail>();
  const newest = useSource(id);
  if (newest.data && first?.id !== id) setFirst(newest.data);
  const number = Number(params.get('version')) || first?.versionNumber;
  const version = number === undefined || number === newest.data?.newest ? undefined : number;
  const source = useSource(id, version);
  const detail = [source.data, first].find((known) => known !== undefined && known.versionNumber === number);
  const wide = useWide();
  const { kind, versionId, facts } = detail ?? {};
  // Opened while text and marks are still on their way.
  useEffect(() => {
    if (kind === 'pdf' && wide)
      void import('./document/pdf/pdf-file')
        .then(({ openPdf }) => openPdf(`/files/${versionId}`, facts?.password))
        .catch(() => undefined);
  }, [kind, wide, versionId, facts?.password]);
  useEffect(fetchFaces, []);
  const text = useSourceText(id, detail?.versionId, version);
  const annotations = useAnnotations(id, version);
  const classes = useClasses();
  const waiting =
    [source, text, classes].find((q) => !q.data || q.error) ?? (annotations.error ? annotations : undefined);
  if (!detail || !text.data || !classes.data || (annotations.error && !annotations.data))
    return (
      <main>
        <State of={waiting ?? source} />
      </main>
    );
  return (
    <Reader
      key={detail.versionId}
      source={{ ...detail, newest: newest.data?.newest ?? detail.newest }}
      text={text.data}
      annotations={annotations.data ?? NONE}
      classes={classes.data}
    />
  );
}
