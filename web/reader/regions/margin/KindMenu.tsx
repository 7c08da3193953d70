import { DropdownMenu } from 'radix-ui';
import { PLAIN_NOTE, type Kind } from '@avrelle/core/legend';
import { Sign } from '../../../ui/Sign';
import { useLegend } from '../../session/legend';

/** The Legend as a menu: for one annotation, or for several. */
export function KindMenu({ current, onChoose }: { current?: string; onChoose: (kind: Kind) => void }) {
  const { kinds } = useLegend();
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger className="act">
        Kind <span aria-hidden="true">▾</span>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content sideOffset={4} className="over py-1 text-[14px]">
          {[...kinds, PLAIN_NOTE].map((kind) => (
            <DropdownMenu.Item
              key={kind.code}
              className={`item ${kind.code === current ? 'font-semibold' : ''}`}
              onSelect={() => onChoose(kind)}
            >
              <Sign kind={kind} className="w-4" />
              {kind.name}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
