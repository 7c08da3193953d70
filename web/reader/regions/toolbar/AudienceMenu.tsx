import { DropdownMenu } from 'radix-ui';
import { audienceWords } from '@avrelle/core/audience';
import type { Annotation, ClassId } from '@avrelle/core/wire';
import { Tint } from '../../../ui/Tint';
import { useSession } from '../../session/reader-context';
import { useTools } from '../../session/tools-context';

interface Props {
  readonly label: string;
  readonly classIds: readonly ClassId[];
  onChoose(classIds: readonly ClassId[]): void;
  readonly small?: boolean;
}

/** Who sees it, always in view in the class's own tint, and a menu to change that: only me, one class or several. */
export function AudienceMenu({ label, classIds, onChoose, small }: Props) {
  const { source, classes, having } = useSession();
  const words = audienceWords({ classIds }, (id) => classes.find((c) => c.id === id)?.name);
  const tint = classes.find((c) => c.id === classIds[0])?.tint;
  const offered = classes.filter((c) => having.has(c.id) || source.owned || c.role !== 'student');
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger aria-label={`${label}: ${words}`} className={small ? 'text-[13px]' : ''}>
        <Tint tint={tint}>
          {words} <span aria-hidden="true">▾</span>
        </Tint>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="end" sideOffset={6} className="over w-[290px] py-1.5 text-[14px]">
          <DropdownMenu.Item className="item" onSelect={() => onChoose([])}>
            <Check on={classIds.length === 0} />
            <span>
              <b>Only me</b>
            </span>
          </DropdownMenu.Item>
          {offered.map((c) => (
            <DropdownMenu.CheckboxItem
              key={c.id}
              className="item"
              checked={classIds.includes(c.id)}
              onSelect={(e) => e.preventDefault()}
              onCheckedChange={(on) => onChoose(on ? [...classIds, c.id] : classIds.filter((id) => id !== c.id))}
            >
              <Check on={classIds.includes(c.id)} />
              <span>
                <b>{c.name}</b>
                <span className="block text-[13px] text-soft">
                  {having.has(c.id) ? `${c.people} people` : `${c.people} people · shares this source with them`}
                </span>
              </span>
            </DropdownMenu.CheckboxItem>
          ))}
          {offered.length === 0 && (
            <p className="px-4 py-1.5 text-[13px] text-soft">Join a class, and you can write for it here.</p>
          )}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

/** Who sees an annotation: a menu for its author, words for others. */
export function NoteAudience({ annotation }: { readonly annotation: Annotation }) {
  const { me } = useSession();
  const { change } = useTools().noteActions;
  if (annotation.author.id !== me.id) return <SeenBy classIds={annotation.classIds} />;
  return (
    <AudienceMenu
      small
      label="Seen by"
      classIds={annotation.classIds}
      onChoose={(ids) => void change(annotation, { classIds: [...ids] }, 'audience changed')}
    />
  );
}

/** Whom somebody else's annotation is for, of the classes we share. */
function SeenBy({ classIds }: { readonly classIds: readonly ClassId[] }) {
  const { classes } = useSession();
  const mine = classes.filter((c) => classIds.includes(c.id));
  return (
    <span className="flex gap-1.5 text-[13px]">
      <span className="sr-only">Seen by</span>
      {mine.map((c) => (
        <Tint key={c.id} tint={c.tint}>
          {c.name}
        </Tint>
      ))}
    </span>
  );
}

const Check = ({ on }: { on: boolean }) => (
  <span aria-hidden="true" className="w-3 shrink-0 text-tide">
    {on ? '✓' : ''}
  </span>
);
