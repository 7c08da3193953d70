import type { ClassDetail, JoinRequest } from '@avrelle/core/wire';
import { useWrite } from '../../data/use-write';
import { useMessages } from '../../ui/Messages';
import { when } from '../../ui/when';

interface Props {
  readonly of: ClassDetail;
  readonly requests: readonly JoinRequest[];
}

/** Who asks to be let in. */
export function Waiting({ of: c, requests }: Props) {
  const answer = useWrite('PUT /api/classes/:id/requests/:requestId', 'classes');
  const messages = useMessages();
  const say = ({ id, person }: JoinRequest, letIn: boolean): void =>
    answer.run({ params: { id: c.id, requestId: id }, body: { letIn } }, () =>
      messages.tell(letIn ? `${person.name} is in ${c.name} now.` : `${person.name} is not let in.`),
    );
  return (
    <section aria-label="Waiting to be let in">
      <h2 className="text-[18px]">Waiting to be let in</h2>
      <ul className="mt-1">
        {requests.map((request) => (
          <li
            key={request.id}
            className="flex flex-wrap items-baseline gap-x-5 gap-y-1 border-t border-rule border-l-[3px] border-l-brick py-2 pl-3"
          >
            <span>
              <b className="font-semibold">{request.person.name}</b>{' '}
              <span className="text-[14px] text-soft">
                asked {when(request.askedAt)}
                {request.sourceTitle !== null && `, after a note of this class on “${request.sourceTitle}”`}
              </span>
            </span>
            <span className="ml-auto flex gap-5 text-[14px]">
              <button className="act" onClick={() => say(request, true)}>
                Let in<span className="sr-only"> {request.person.name}</span>
              </button>
              <button className="text-soft hover:text-ink" onClick={() => say(request, false)}>
                Not now<span className="sr-only">: {request.person.name}</span>
              </button>
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
