import Markdown from 'react-markdown';

/** A note's Markdown. Raw HTML in it stays text; links open beside Avrelle. */
export default function NoteText({ children }: { children: string }) {
  return <div className="prose-note"><Markdown components={{ a: ({ href, children: words }) => <a href={href} target="_blank" rel="noreferrer noopener">{words}</a>, img: ({ alt }) => <span>{alt}</span> }}>{children}</Markdown></div>;
}
