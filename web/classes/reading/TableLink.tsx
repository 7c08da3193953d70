import type { AssignmentDetail } from '@avrelle/core/wire';
import { hrefOf } from '../../data/call';

interface Props {
  readonly set: AssignmentDetail;
  readonly of: 'students' | 'passages';
}

/** All of it, whichever group is looked at, as a table. */
export const TableLink = ({ set, of }: Props) => (
  <a
    className="act font-ui text-[13px]"
    href={hrefOf(`GET /api/classes/:id/assignments/:sourceId/${of}.csv`, {
      params: { id: set.class.id, sourceId: set.source.id },
    })}
    download
  >
    All as a table (CSV)
  </a>
);
