import { useState } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { DropdownMenu } from 'radix-ui';
import { useNavigate } from 'react-router';
import { closeCode, deleteClass, leaveClass, renewCode, restoreClass } from '@avrelle/core/api';
import type { ClassDetail } from '@avrelle/core/wire';
import { wordsOf } from '../data/api';
import { call } from '../data/call';
import { keys } from '../data/queries';
import { Confirm } from '../ui/Confirm';
import { Menu } from '../ui/Menu';
import { useMessages } from '../ui/Messages';

/** The code to join with, leaving, and the end of the class. */
export function ClassMenu({ of: { id, name, role, code } }: { readonly of: ClassDetail }) {
  const [asked, setAsked] = useState<'leave' | 'delete'>();
  const client = useQueryClient();
  const navigate = useNavigate();
  const messages = useMessages();
  const params = { id };
  const renew = () => client.invalidateQueries({ queryKey: keys.classes });
  const change = (work: Promise<unknown>, words: string): void =>
    void work.then(renew).then(
      () => messages.tell(words),
      (error: unknown) => messages.warn(wordsOf(error)),
    );
  const away = async (): Promise<void> => {
    void navigate('/classes');
    await client.invalidateQueries();
  };
  const leave = async (): Promise<void> => {
    await call(leaveClass, { params });
    messages.tell(`You left “${name}”.`);
    await away();
  };
  const remove = async (): Promise<void> => {
    await call(deleteClass, { params });
    messages.tell(`“${name}” is deleted.`, {
      label: 'Undo',
      run: () => change(call(restoreClass, { params }), `“${name}” is back.`),
    });
    await away();
  };
  return (
    <>
      <Menu words="Class">
        {role !== 'student' && (
          <>
            <DropdownMenu.Item
              className="item"
              onSelect={() => change(call(renewCode, { params }), 'There is a new code; the one before has ended.')}
            >
              {code ? 'Make a new code' : 'Let others join again'}
            </DropdownMenu.Item>
            {code && (
              <DropdownMenu.Item
                className="item"
                onSelect={() => change(call(closeCode, { params }), 'Nobody can join now.')}
              >
                Let nobody join any more
              </DropdownMenu.Item>
            )}
          </>
        )}
        <DropdownMenu.Item className="item" onSelect={() => setAsked('leave')}>
          Leave the class…
        </DropdownMenu.Item>
        {role === 'teacher' && (
          <DropdownMenu.Item className="item" onSelect={() => setAsked('delete')}>
            Delete the class…
          </DropdownMenu.Item>
        )}
      </Menu>
      {asked === 'leave' && (
        <Confirm title={`Leave “${name}”?`} action="Leave" onClose={() => setAsked(undefined)} run={leave}>
          <p>You will no longer see what is read and written there, and need a code to come back.</p>
          <p>What you wrote for the class stays there under your name. What only you see stays with you.</p>
        </Confirm>
      )}
      {asked === 'delete' && (
        <Confirm title={`Delete “${name}”?`} action="Delete" onClose={() => setAsked(undefined)} run={remove}>
          <p>Nobody in it will see its readings and what was written for it any more. Their own sources stay theirs.</p>
          <p>For thirty days you can bring it back from the list of your classes.</p>
        </Confirm>
      )}
    </>
  );
}
