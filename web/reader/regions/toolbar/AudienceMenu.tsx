import type { ReactNode } from 'react';
import { DropdownMenu } from 'radix-ui';
import { audienceWords, ONLY_ME, type Audience } from '@avrelle/core/audience';
import type { Annotation, Assignment, ClassRow, GroupId, InGroup } from '@avrelle/core/wire';
import { namesOf } from '../../../classes/words';
import { useSetHere } from '../../../data/queries';
import { Tint } from '../../../ui/Tint';
import { mayHold } from '../../session/audience-choice';
import { useSession } from '../../session/reader-context';
import { useTools } from '../../session/tools-context';

interface Props {
  readonly label: string;
  readonly audience: Audience;
  onChoose(audience: Audience): void;
  readonly small?: boolean;
  /** Groups it is for, as they are named: of one that was dissolved nobody else knows. */
  readonly groups?: readonly InGroup[];
}

/** Who sees it, always in view in the class's own tint, and a menu to change that: only me, one class or several. */
export function AudienceMenu({ label, audience, onChoose, small, groups = [] }: Props) {
  const { source, classes, having } = useSession();
  const set = useSetHere(source.id).data;
  const { classIds } = audience;
  const words = audienceWords(audience, naming(classes, groups));
  const chosen = classes.filter((c) => classIds.includes(c.id));
  const offered = classes.filter(
    (c) =>
      classIds.includes(c.id) || (c.archivedAt === null && (having.has(c.id) || source.owned || c.role !== 'student')),
  );
  const put = (c: ClassRow, on: boolean): void => {
    const next = on ? [...classIds, c.id] : classIds.filter((id) => id !== c.id);
    const held = audience.held && mayHold(classes.filter((one) => next.includes(one.id)));
    const stays = (id: GroupId): boolean => on || !c.groups.some((group) => group.id === id);
    const groups = audience.groupIds ? { groupIds: audience.groupIds.filter(stays) } : {};
    onChoose(next.length === 0 ? ONLY_ME : { ...audience, classIds: next, held, ...groups });
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
                  {besideWords(
                    c,
                    having.has(c.id),
                    set?.find((one) => one.class.id === c.id),
                  )}
                </Beside>
              </span>
            </DropdownMenu.CheckboxItem>
          ))}
          {offered.length === 0 && (
            <p className="px-4 py-1.5 text-[13px] text-soft">Join a class, and you can write for it here.</p>
          )}
          {chosen.length > 0 && <WhoInIt audience={audience} chosen={chosen} onChoose={onChoose} />}
          {!audience.teachersOnly &&
            chosen
              .filter((c) => c.groups.length > 0)
              .map((c) => <WhichGroup key={c.id} of={c} among={chosen} audience={audience} onChoose={onChoose} />)}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

/** Who else sees what is written for a class. */
function besideWords({ people }: ClassRow, has: boolean, set: Assignment | undefined): string {
  if (!has) return `${people} people · shares this source with them`;
  return set && set.together.length > 0 ? `${people} people, and ${namesOf(set.together)}` : `${people} people`;
}

const IN_IT = [
  { who: 'all', words: 'Everybody there', beside: '' },
  { who: 'teachers', words: 'Only the teachers', beside: 'students do not see it' },
  { who: 'held', words: 'Held', beside: 'students see it when you release it' },
] as const;
type Who = (typeof IN_IT)[number]['who'];

/** Of the classes that are chosen, who sees it. */
function WhoInIt({
  audience,
  chosen,
  onChoose,
}: Pick<Props, 'audience' | 'onChoose'> & { readonly chosen: readonly ClassRow[] }) {
  const { teachersOnly, held, groupIds } = audience;
  const shown: Who = held ? 'held' : 'all';
  const who: Who = teachersOnly ? 'teachers' : shown;
  const choose = (next: string): void => {
    const isForTeachers = next === 'teachers';
    const groups = isForTeachers && groupIds ? { groupIds: [] } : {};
    onChoose({ ...audience, teachersOnly: isForTeachers, held: next === 'held', ...groups });
  };
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

/** Of a class, whether everybody sees it or one of its groups; students choose their own. */
function WhichGroup({
  of: c,
  among,
  audience,
  onChoose,
}: Pick<Props, 'audience' | 'onChoose'> & { readonly of: ClassRow; readonly among: readonly ClassRow[] }) {
  const { groupIds = [] } = audience;
  const others = groupIds.filter((id) =>
    among.some((one) => one.id !== c.id && one.groups.some((group) => group.id === id)),
  );
  const chosen = c.groups.find(({ id }) => groupIds.includes(id))?.id ?? '';
  return (
    <DropdownMenu.RadioGroup
      value={chosen}
      onValueChange={(id) => onChoose({ ...audience, groupIds: id === '' ? others : [...others, id] })}
      aria-label={`Who in ${c.name}`}
      className="mt-1.5 border-t border-rule pt-1.5"
    >
      {[{ id: '', name: `All groups of ${c.name}` }, ...c.groups].map(({ id, name }) => (
        <DropdownMenu.RadioItem key={id} value={id} className="item" onSelect={(e) => e.preventDefault()}>
          <Check on={id === chosen} />
          <b className="font-semibold">{id === '' || c.role !== 'student' ? name : `Only my group, ${name}`}</b>
        </DropdownMenu.RadioItem>
      ))}
    </DropdownMenu.RadioGroup>
  );
}

/** Classes as they are named, with groups that an annotation names itself. */
const naming = (classes: readonly ClassRow[], groups: readonly InGroup[]) =>
  classes.map(({ id, name, groups: own }) => {
    const further = groups.filter(({ classId, groupId }) => classId === id && !own.some((one) => one.id === groupId));
    return { id, name, groups: [...own, ...further.map((one) => ({ id: one.groupId, name: one.name }))] };
  });

/** For whom an annotation is. */
export const audienceOf = ({ classIds, teachersOnly, held, groups = [] }: Annotation): Audience => ({
  classIds,
  groupIds: groups.map(({ groupId }) => groupId),
  teachersOnly: teachersOnly === true,
  held: held !== undefined,
});

/** Who sees an annotation: a menu for its author, words for others. */
export function NoteAudience({ annotation }: { readonly annotation: Annotation }) {
  const { me } = useSession();
  const { change } = useTools().noteActions;
  if (annotation.author.id !== me.id) return <SeenBy annotation={annotation} />;
  const give = ({ classIds, teachersOnly = false, held = false, groupIds = [] }: Audience): void =>
    void change(annotation, { classIds: [...classIds], teachersOnly, held, groupIds }, 'audience changed');
  const { groups = [] } = annotation;
  return <AudienceMenu small label="Seen by" audience={audienceOf(annotation)} groups={groups} onChoose={give} />;
}

/** Whom somebody else's annotation is for, of the classes we share. */
function SeenBy({ annotation }: { readonly annotation: Annotation }) {
  const { classes } = useSession();
  const mine = classes.filter((c) => annotation.classIds.includes(c.id));
  const audience = audienceOf(annotation);
  return (
    <span className="flex gap-1.5 text-[13px]">
      <span className="sr-only">Seen by</span>
      {mine.map((c) => (
        <Tint key={c.id} tint={c.tint}>
          {audienceWords({ ...audience, classIds: [c.id], held: false }, naming(classes, annotation.groups ?? []))}
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
