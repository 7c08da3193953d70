import { useQueryClient } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import { useWrite } from '../data/use-write';
import { Confirm } from '../ui/Confirm';
import { useMessages } from '../ui/Messages';

export type AskedOfClass = 'leave' | 'delete';

interface Props {
  readonly asked: AskedOfClass;
  readonly id: string;
  readonly name: string;
  readonly onClose: () => void;
}

/** What is asked before one leaves a class or deletes it; both lead to the list of classes. */
export function ClassDialogs({ asked, id, name, onClose }: Props) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const messages = useMessages();
  const leaving = useWrite('DELETE /api/classes/:id/membership');
  const deleting = useWrite('DELETE /api/classes/:id');
  const restoring = useWrite('POST /api/classes/:id/restore');
  const params = { id };
  const away = async (): Promise<void> => {
    await navigate('/classes');
    await client.invalidateQueries();
  };
  const leave = async (): Promise<void> => {
    await leaving.send({ params });
    messages.tell(`You left “${name}”.`);
    await away();
  };
  const bringBack = (): void =>
    restoring.run({ params }, () => {
      void client.invalidateQueries();
      messages.tell(`“${name}” is back.`);
    });
  const remove = async (): Promise<void> => {
    await deleting.send({ params });
    messages.tell(`“${name}” is deleted.`, { label: 'Undo', run: bringBack });
    await away();
  };
  return asked === 'leave' ? (
    <Confirm title={`Leave “${name}”?`} action="Leave" onClose={onClose} run={leave}>
      <p>You will no longer see what is read and written there, and need a code to come back.</p>
      <p>What you wrote for the class stays there under your name. What only you see stays with you.</p>
    </Confirm>
  ) : (
    <Confirm title={`Delete “${name}”?`} action="Delete" onClose={onClose} run={remove}>
      <p>Nobody in it will see its readings and what was written for it any more. Their own sources stay theirs.</p>
      <p>For thirty days you can bring it back from the list of your classes.</p>
    </Confirm>
  );
}
