import { lazy, Suspense, useState } from 'react';
import { DropdownMenu } from 'radix-ui';
import { useNavigate } from 'react-router';
import type { SourceDetail } from '@avrelle/core/wire';
import { useHolding, useOutline } from '../../../data/queries';
import { FollowItem } from '../../../notifications/FollowItem';
import { ShelfItems } from '../../../library/RowActions';
import { useChanging } from '../../../library/use-changing';

const EditSource = lazy(() => import('../../../library/EditSource'));

/** Where the source at hand belongs: its state, its tags and facts, its collections. */
export function ShelfMenu({ source, back }: { source: SourceDetail; back: string }) {
  const [open, setOpen] = useState(false);
  const [editing, setEditing] = useState(false);
  const navigate = useNavigate();
  const changing = useChanging();
  const collections = useOutline(open).data?.collections.filter((c) => c.owned || c.may === 'add') ?? [];
  const holding = useHolding(source.id, open).data ?? [];
  return (
    <>
      <DropdownMenu.Root modal={false} open={open} onOpenChange={setOpen}>
        <DropdownMenu.Trigger
          className="whitespace-nowrap hover:text-ink"
          title="State, tags and collections of this source"
        >
          Organise <span aria-hidden="true">▾</span>
        </DropdownMenu.Trigger>
        <ShelfItems
          source={source}
          changing={changing}
          collections={collections}
          holding={holding}
          onEdit={() => setEditing(true)}
          onDeleted={() => void navigate(back)}
        >
          {source.classes.length > 0 && (
            <FollowItem what={{ type: 'source', id: source.id, words: 'this source' }}>
              Follow what is new in it
            </FollowItem>
          )}
        </ShelfItems>
      </DropdownMenu.Root>
      {editing && (
        <Suspense>
          <EditSource source={source} onClose={() => setEditing(false)} />
        </Suspense>
      )}
    </>
  );
}
