import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { v7 } from 'uuid';
import { object, string } from 'yup';
import type { ClassDetail, WalkthroughRow } from '@avrelle/core/wire';
import { Ask } from '../classes/Ask';
import { OfClass, PartHead } from '../classes/ClassPart';
import { useWrite } from '../data/use-write';
import { useWalkthroughs } from '../data/walkthrough-queries';
import { useSchemaForm } from '../ui/Form';
import { useMessages } from '../ui/Messages';
import { State } from '../ui/State';
import { count, when } from '../ui/when';

/** The walkthroughs of a class, for who teaches it. */
export default function WalkthroughsPage() {
  return <OfClass>{(c) => <Walkthroughs of={c} />}</OfClass>;
}

function Walkthroughs({ of: c }: { readonly of: ClassDetail }) {
  const found = useWalkthroughs(c.id);
  const [naming, setNaming] = useState(false);
  return (
    <main className="grid min-h-0 grid-rows-[auto_1fr] bg-sheet">
      <PartHead of={c} title="Walkthroughs">
        Notes in an order in which you lead the class through them, with words to say. Students do not see this.
      </PartHead>
      <div className="min-h-0 overflow-y-auto px-[30px] py-4 max-[900px]:px-4">
        <p className="mb-3">
          <button className="press" onClick={() => setNaming(true)}>
            New walkthrough
          </button>
        </p>
        <State of={found}>
          {found.data?.length === 0 && (
            <p className="max-w-[56ch] text-soft">
              There is none yet. Give a star to the notes you want to talk about, in the discussion; then put them in an
              order here.
            </p>
          )}
          <ul className="max-w-[860px]">
            {found.data?.map((walkthrough) => (
              <Row key={walkthrough.id} of={walkthrough} classId={c.id} />
            ))}
          </ul>
        </State>
      </div>
      {naming && <Name classId={c.id} onClose={() => setNaming(false)} />}
    </main>
  );
}

function Row({ of, classId }: { readonly of: WalkthroughRow; readonly classId: ClassDetail['id'] }) {
  const { id, name, steps, by, changedAt } = of;
  const messages = useMessages();
  const remove = useWrite('DELETE /api/classes/:id/walkthroughs/:walkthroughId', 'walkthroughs');
  const restore = useWrite('POST /api/classes/:id/walkthroughs/:walkthroughId/restore', 'walkthroughs');
  const given = { params: { id: classId, walkthroughId: id } };
  const take = (): void =>
    remove.run(given, () =>
      messages.tell(`“${name}” deleted; its notes stay.`, { label: 'Undo', run: () => restore.run(given) }),
    );
  return (
    <li className="flex flex-wrap items-baseline gap-x-5 gap-y-1 border-t border-rule py-2.5 last:border-b">
      <h2 className="min-w-0 text-[17px]">
        <Link to={`/classes/${classId}/walkthroughs/${id}`} dir="auto" className="hover:text-tide">
          {name}
        </Link>
      </h2>
      <span className="text-[13.5px] text-soft">
        {count(steps, 'step')} · {by}, {when(changedAt)}
      </span>
      <span className="ml-auto flex items-baseline gap-x-5 text-[14px] pointer-coarse:items-center">
        {steps > 0 && (
          <Link className="act" to={`/classes/${classId}/walkthroughs/${id}/walk`}>
            Walk through it
          </Link>
        )}
        <button className="text-soft hover:text-brick" aria-label={`Delete ${name}`} onClick={take}>
          Delete
        </button>
      </span>
    </li>
  );
}

const nameSchema = object({ name: string().trim().required('Give it a name.').max(200, 'At most 200 characters.') });

function Name({ classId, onClose }: { readonly classId: ClassDetail['id']; onClose(): void }) {
  const navigate = useNavigate();
  const put = useWrite('PUT /api/classes/:id/walkthroughs/:walkthroughId', 'walkthroughs');
  const [id] = useState(() => v7());
  const given = useSchemaForm(nameSchema, { name: '' }, async ({ name }) => {
    await put.send({ params: { id: classId, walkthroughId: id }, body: { version: 0, name, steps: [] } });
    await navigate(`/classes/${classId}/walkthroughs/${id}`);
  });
  return (
    <Ask title="New walkthrough" name="name" label="Its name" action="Make it" onClose={onClose} {...given}>
      Only who teaches the class sees it.
    </Ask>
  );
}
