import { useState } from 'react';
import { DropdownMenu } from 'radix-ui';
import type { ClassDetail } from '@avrelle/core/wire';
import { useNotifications } from '../data/notification-queries';
import { useWrite } from '../data/use-write';
import { Menu } from '../ui/Menu';
import { useMessages } from '../ui/Messages';
import { ClassDialogs, type AskedOfClass } from './ClassDialogs';
import { NextClass } from './NextClass';

/** The next class, the archive, leaving, and the end of the class. */
export function ClassMenu({ of: c }: { readonly of: ClassDetail }) {
  const [asked, setAsked] = useState<AskedOfClass | 'next'>();
  const archive = useArchive(c);
  const close = (): void => setAsked(undefined);
  return (
    <>
      <Menu words="Class">
        {c.role === 'teacher' && (
          <>
            <DropdownMenu.Item className="item" onSelect={() => setAsked('next')}>
              Begin the next class from this one…
            </DropdownMenu.Item>
            <DropdownMenu.Item className="item" onSelect={() => archive(c.archivedAt === null)}>
              {c.archivedAt === null ? 'Archive the class' : 'Open it again'}
            </DropdownMenu.Item>
          </>
        )}
        <MuteItem of={c} />
        <DropdownMenu.Item className="item" onSelect={() => setAsked('leave')}>
          Leave the class…
        </DropdownMenu.Item>
        {c.role === 'teacher' && (
          <DropdownMenu.Item className="item" onSelect={() => setAsked('delete')}>
            Delete the class…
          </DropdownMenu.Item>
        )}
      </Menu>
      {asked === 'next' && <NextClass of={c} onClose={close} />}
      {asked && asked !== 'next' && <ClassDialogs asked={asked} id={c.id} name={c.name} onClose={close} />}
    </>
  );
}

/** Nothing of the class is told to me any more, or again. */
function MuteItem({ of: { id, name } }: { readonly of: ClassDetail }) {
  const muted = useNotifications().data?.muted.some((one) => one.id === id) ?? false;
  const put = useWrite('PUT /api/classes/:id/muted', 'desk');
  const messages = useMessages();
  const set = (to: boolean): void =>
    put.run({ params: { id }, body: { muted: to } }, () =>
      messages.tell(to ? `You are told nothing of ${name} any more.` : `You are told of ${name} again.`, {
        label: 'Undo',
        run: () => set(!to),
      }),
    );
  return (
    <DropdownMenu.Item className="item" onSelect={() => set(!muted)}>
      {muted ? 'Unmute the class' : 'Mute the class'}
    </DropdownMenu.Item>
  );
}

/** Puts a class away, where it can still be looked at, or opens it again. */
export function useArchive({ id, name }: Pick<ClassDetail, 'id' | 'name'>): (archived: boolean) => void {
  const put = useWrite('PUT /api/classes/:id/archived', 'classes');
  const messages = useMessages();
  const change = (archived: boolean): void =>
    put.run({ params: { id }, body: { archived } }, () =>
      messages.tell(archived ? `${name} is archived: it can be looked at.` : `${name} goes on.`, {
        label: 'Undo',
        run: () => change(!archived),
      }),
    );
  return change;
}
