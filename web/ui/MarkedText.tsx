import type { Marked } from '@avrelle/core/query';

/** Words with those that were looked for marked. */
export const MarkedText = ({ pieces }: { pieces: Marked }) => <>{pieces.map((piece, i) => (piece.hit ? <mark key={i} className="bg-wash px-px font-semibold text-tide">{piece.text}</mark> : <span key={i}>{piece.text}</span>))}</>;
