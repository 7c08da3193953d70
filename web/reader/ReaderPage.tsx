import { useEffect, useMemo, useState } from 'react';
import { useParams, useSearchParams } from 'react-router';
import type { Annotation, SourceDetail } from '@avrelle/core/wire';
import { useAnnotations, useClasses, useSetHere, useSource, useSourceText } from '../data/queries';
import { State } from '../ui/State';
import { fetchFaces } from './document/page-style';
import { useWide } from '../ui/use-width';
import { Reader } from './Reader';
import type { Opened } from './session/SessionProvider';

/** Until the marks have come, one can read. */
const NONE: readonly Annotation[] = [];

/** The reading view of one source: of the version asked for, else of the one that was newest when it was opened. */
export default function ReaderPage() {
  const { id = '' } = useParams();
  const at = useVersion(id);
  const { detail, version } = at;
  useEarlyPdf(detail);
  useEffect(fetchFaces, []);
  // What is shown above the text comes with it.
  useSetHere(id);
  const text = useSourceText(id, detail?.versionId, version);
  const annotations = useAnnotations(id, version);
  const classes = useClasses();
  const opened = useMemo(
    (): Opened | undefined =>
      detail && text.data && classes.data
        ? { source: detail, text: text.data, annotations: annotations.data ?? NONE, classes: classes.data }
        : undefined,
    [detail, text.data, classes.data, annotations.data],
  );
  const failed = annotations.error && !annotations.data ? annotations : undefined;
  if (opened && !failed) return <Reader key={opened.source.versionId} opened={opened} />;
  const waiting = [at.source, text, classes].find((q) => !q.data || q.error) ?? failed ?? at.source;
  return (
    <main>
      <State of={waiting} />
    </main>
  );
}

/** The version that is read. When a newer one comes meanwhile, the page is not taken from under the reader. */
function useVersion(id: string) {
  const [params] = useSearchParams();
  const [first, setFirst] = useState<SourceDetail>();
  const newest = useSource(id);
  if (newest.data && first?.id !== id) setFirst(newest.data);
  const number = Number(params.get('version')) || first?.versionNumber;
  /** As the server is asked for it: the newest is asked for by no number. */
  const version = number === undefined || number === newest.data?.newest ? undefined : number;
  const source = useSource(id, version);
  const known = [source.data, first].find((each) => each !== undefined && each.versionNumber === number);
  const last = newest.data?.newest;
  const detail = useMemo(() => known && { ...known, newest: last ?? known.newest }, [known, last]);
  return { source, detail, version };
}

/** The pages of a PDF are opened while its text and marks are still on their way. */
function useEarlyPdf(detail: SourceDetail | undefined): void {
  const wide = useWide();
  const { kind, versionId, facts } = detail ?? {};
  const password = facts?.password;
  useEffect(() => {
    if (kind === 'pdf' && wide)
      void import('./document/pdf/pdf-file')
        .then(({ openPdf }) => openPdf(`/files/${versionId}`, password))
        .catch(() => undefined);
  }, [kind, wide, versionId, password]);
}
