import { useState } from 'react';
import { useParams, useSearchParams } from 'react-router';
import { useAnnotations, useClasses, useSource, useSourceText } from '../data/queries';
import { State } from '../ui/State';
import { Reader } from './Reader';

/** The reading view of one source: of the version asked for, else of the one that was newest when it was opened. */
export default function ReaderPage() {
  const { id = '' } = useParams();
  const [params] = useSearchParams();
  const [opened, setOpened] = useState<{ id: string; number: number }>();
  const newest = useSource(id);
  if (newest.data && opened?.id !== id) setOpened({ id, number: newest.data.newest });
  const number = Number(params.get('version')) || (opened?.id === id ? opened.number : undefined);
  const version = number === undefined || number === newest.data?.newest ? undefined : number;
  const source = useSource(id, version);
  const text = useSourceText(id, source.data?.versionId, version);
  const annotations = useAnnotations(id, version);
  const classes = useClasses();
  const waiting = [source, text, annotations, classes].find((q) => !q.data);
  if (waiting || !source.data || !text.data || !annotations.data || !classes.data) return <main><State of={waiting ?? source} /></main>;
  return <Reader key={source.data.versionId} source={{ ...source.data, newest: newest.data?.newest ?? source.data.newest }} text={text.data} annotations={annotations.data} classes={classes.data} />;
}
