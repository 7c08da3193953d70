import { useParams } from 'react-router';
import { useAnnotations, useClasses, useSource, useSourceText } from '../data/queries';
import { State } from '../ui/State';
import { Reader } from './Reader';

/** The reading view of one source. */
export default function ReaderPage() {
  const { id = '' } = useParams();
  const source = useSource(id);
  const text = useSourceText(id, source.data?.versionId);
  const annotations = useAnnotations(id);
  const classes = useClasses();
  const waiting = [source, text, annotations, classes].find((q) => !q.data);
  if (waiting || !source.data || !text.data || !annotations.data || !classes.data) return <main><State of={waiting ?? source} /></main>;
  return <Reader key={source.data.versionId} source={source.data} text={text.data} annotations={annotations.data} classes={classes.data} />;
}
