import { useLayoutEffect, useRef, type ReactNode, type Ref } from 'react';
import { Popover } from 'radix-ui';

interface Props {
  /** Where it stands that this belongs to; null where it stands nowhere. */
  at(): DOMRect | null;
  readonly label?: string;
  readonly className?: string;
  readonly ref?: Ref<HTMLDivElement>;
  onEscape?(): void;
  readonly children: ReactNode;
}

/** Beneath something on the page, above whatever else stands there; one goes on writing where one writes. */
export function Beneath({ at, label, className = '', ref, onEscape, children }: Props) {
  const anchor = useRef({ getBoundingClientRect: () => new DOMRect() });
  useLayoutEffect(() => {
    anchor.current.getBoundingClientRect = () => at() ?? new DOMRect();
  });
  return (
    <Popover.Root open>
      <Popover.Anchor virtualRef={anchor} />
      <Popover.Portal>
        <Popover.Content
          ref={ref}
          aria-label={label}
          align="start"
          sideOffset={4}
          collisionPadding={8}
          updatePositionStrategy="always"
          className={`over z-50 text-[14px] ${className}`}
          onOpenAutoFocus={(e) => e.preventDefault()}
          onCloseAutoFocus={(e) => e.preventDefault()}
          {...(onEscape ? { onEscapeKeyDown: onEscape } : {})}
        >
          {children}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
