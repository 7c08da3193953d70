import { DropdownMenu } from 'radix-ui';
import { useFollow, type Followable } from './use-follow';

interface Props {
  readonly what: Followable;
  readonly children: string;
}

/** Of a menu: follows something, or no longer. */
export function FollowItem({ what, children }: Props) {
  const { isFollowed, set } = useFollow();
  const followed = isFollowed(what);
  return (
    <DropdownMenu.CheckboxItem className="item" checked={followed} onCheckedChange={(on) => set(what, on)}>
      <span aria-hidden="true" className="w-3 shrink-0 text-tide">
        {followed ? '✓' : ''}
      </span>
      {children}
    </DropdownMenu.CheckboxItem>
  );
}
