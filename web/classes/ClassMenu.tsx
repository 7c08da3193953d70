import { useState } from 'react';
import { DropdownMenu } from 'radix-ui';
import type { ClassDetail } from '@avrelle/core/wire';
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
