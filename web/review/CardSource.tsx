import { Link } from 'react-router';
import type { CardRow } from '@avrelle/core/wire';

/** The source of a card in a table, opened at its mark; one that others made may be of a mark one does not see. */
export function CardSource({ card: { sourceId, title, annotationId, given } }: { card: CardRow }) {
  if (!sourceId) return <span className="text-faint">{title}</span>;
  return (
    <Link
      to={given ? `/source/${sourceId}` : `/source/${sourceId}?at=${annotationId}`}
      className="reach text-soft hover:text-tide"
      dir="auto"
    >
      {title}
    </Link>
  );
}
