import { useState } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { DropdownMenu } from 'radix-ui';
import type { ClassDetail } from '@avrelle/core/wire';
import { wordsOf } from '../data/api';
import { call } from '../data/call';
import { renew } from '../data/queries';
import { Menu } from '../ui/Menu';
import { useMessages } from '../ui/Messages';
import { ClassDialogs, type AskedOfClass } from './ClassDialogs';

/** The code to join with, leaving, and the end of the class. */
export function ClassMenu({ of: { id, name, role, code } }: { readonly of: ClassDetail }) {
  const [asked, setAsked] = useState<AskedOfClass>();
  const client = useQueryClient();
  const messages = useMessages();
  const params = { id };
  const fresh = () => renew(client, 'classes');
  const change = (work: Promise<unknown>, words: string): void =>
    void work.then(fresh).then(
      () => messages.tell(words),
      (error: unknown) => messages.warn(wordsOf(error)),
    );
  return (
    <>
      <Menu words="Class">
        {role !== 'student' && (
          <>
            <DropdownMenu.Item
              className="item"
              onSelect={() =>
                change(call('POST /api/classes/:id/code', { params }), 'There is a new code; the one before has ended.')
              }
            >
              {code ? 'Make a new code' : 'Let others join again'}
            </DropdownMenu.Item>
            {code && (
              <DropdownMenu.Item
                className="item"
                onSelect={() => change(call('DELETE /api/classes/:id/code', { params }), 'Nobody can join now.')}
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
      {asked && <ClassDialogs asked={asked} id={id} name={name} onClose={() => setAsked(undefined)} />}
    </>
  );
}
