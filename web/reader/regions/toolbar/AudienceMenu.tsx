import type { ReactNode } from 'react';
import { DropdownMenu } from 'radix-ui';
import { audienceWords, ONLY_ME, type Audience } from '@avrelle/core/audience';
import type { Annotation, ClassRow } from '@avrelle/core/wire';
import { Tint } from '../../../ui/Tint';
import { mayHold } from '../../session/audience-choice';
import { useSession } from '../../session/reader-context';
import { useTools } from '../../session/tools-context';

interface Props {
  readonly label: string;
  readonly audience: Audience;
  onChoose(audience: Audience): void;
  readonly small?: boolean;
}

/** Who sees it, always in view in the class's own tint, and a menu to change that: only me, one class or several. */
export function AudienceMenu({ label, audience, onChoose, small }: Props) {
  const { source, classes, having } = useSession();
  const { classIds } = audience;
  const words = audienceWords(audience, (id) => classes.find((c) => c.id === id)?.name);
  const chosen = classes.filter((c) => classIds.includes(c.id));
  const offered = classes.filter(
    (c) =>
      classIds.includes(c.id) || (c.archivedAt === null && (having.has(c.id) || source.owned || c.role !== 'student')),
  );
  const put = (c: ClassRow, on: boolean): void => {
    const next = on ? [...classIds, c.id] : classIds.filter((id) => id !== c.id);
    const held = audience.held && mayHold(classes.filter((one) => next.includes(one.id)));
    onChoose(next.length === 0 ? ONLY_ME : { ...audience, classIds: next, held });
  };
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger aria-label={`${label}: ${words}`} className={small ? 'text-[13px]' : ''}>
        <Tint tint={chosen[0]?.tint}>
          {words} <span aria-hidden="true">▾</span>
        </Tint>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          sideOffset={6}
          collisionPadding={8}
          className="over max-h-[80vh] w-[300px] overflow-y-auto py-1.5 text-[14px]"
        >
          <DropdownMenu.Item className="item" onSelect={() => onChoose(ONLY_ME)}>
            <Check on={classIds.length === 0} />
            <b>Only me</b>
          </DropdownMenu.Item>
          {offered.map((c) => (
            <DropdownMenu.CheckboxItem
              key={c.id}
              className="item"
              checked={classIds.includes(c.id)}
              onSelect={(e) => e.preventDefault()}
              onCheckedChange={(on) => put(c, on)}
            >
              <Check on={classIds.includes(c.id)} />
              <span>
                <b>{c.name}</b>
                <Beside>
                  {having.has(c.id) ? `${c.people} people` : `${c.people} people · shares this source with them`}
                </Beside>
              </span>
            </DropdownMenu.CheckboxItem>
          ))}
          {offered.length === 0 && (
            <p className="px-4 py-1.5 text-[13px] text-soft">Join a class, and you can write for it here.</p>
          )}
          {chosen.length > 0 && <WhoInIt audience={audience} chosen={chosen} onChoose={onChoose} />}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

const IN_IT = [
  { who: 'all', words: 'Everybody there', beside: '' },
  { who: 'teachers', words: 'Only the teachers', beside: 'students do not see it' },
  { who: 'held', words: 'Held', beside: 'students see it when you release it' },
] as const;
type Who = (typeof IN_IT)[number]['who'];

/** Of the classes that are chosen, who sees it. */
function WhoInIt({
  audience: { classIds, teachersOnly, held },
  chosen,
  onChoose,
}: Pick<Props, 'audience' | 'onChoose'> & { readonly chosen: readonly ClassRow[] }) {
  const shown: Who = held ? 'held' : 'all';
  const who: Who = teachersOnly ? 'teachers' : shown;
  const choose = (next: string): void =>
    onChoose({ classIds, teachersOnly: next === 'teachers', held: next === 'held' });
  return (
    <DropdownMenu.RadioGroup
      value={who}
      onValueChange={choose}
      aria-label="Who in the class"
      className="mt-1.5 border-t border-rule pt-1.5"
    >
      {IN_IT.filter((one) => one.who !== 'held' || mayHold(chosen)).map((one) => (
        <DropdownMenu.RadioItem key={one.who} value={one.who} className="item" onSelect={(e) => e.preventDefault()}>
          <Check on={one.who === who} />
          <span>
            <b className="font-semibold">{one.words}</b>
            {one.beside && <Beside>{one.beside}</Beside>}
          </span>
        </DropdownMenu.RadioItem>
      ))}
    </DropdownMenu.RadioGroup>
  );
}

/** For whom an annotation is. */
export const audienceOf = ({ classIds, teachersOnly, held }: Annotation): Audience => ({
  classIds,
  teachersOnly: teachersOnly === true,
  held: held !== undefined,
});

/** Who sees an annotation: a menu for its author, words for others. */
export function NoteAudience({ annotation }: { readonly annotation: Annotation }) {
  const { me } = useSession();
  const { change } = useTools().noteActions;
  if (annotation.author.id !== me.id) return <SeenBy annotation={annotation} />;
  const give = ({ classIds, teachersOnly = false, held = false }: Audience): void =>
    void change(annotation, { classIds: [...classIds], teachersOnly, held }, 'audience changed');
  return <AudienceMenu small label="Seen by" audience={audienceOf(annotation)} onChoose={give} />;
}

/** Whom somebody else's annotation is for, of the classes we share. */
function SeenBy({ annotation: { classIds, teachersOnly } }: { readonly annotation: Annotation }) {
  const { classes } = useSession();
  const mine = classes.filter((c) => classIds.includes(c.id));
  return (
    <span className="flex gap-1.5 text-[13px]">
      <span className="sr-only">Seen by</span>
      {mine.map((c) => (
        <Tint key={c.id} tint={c.tint}>
          {teachersOnly ? `Teachers of ${c.name}` : c.name}
        </Tint>
      ))}
    </span>
  );
}

const Beside = ({ children }: { children: ReactNode }) => (
  <span className="block text-[13px] font-normal text-soft">{children}</span>
);

const Check = ({ on }: { on: boolean }) => (
  <span aria-hidden="true" className="w-3 shrink-0 text-tide">
    {on ? '✓' : ''}
  </span>
);
