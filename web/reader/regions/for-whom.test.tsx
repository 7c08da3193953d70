/**
 * @jest-environment ./web/testing/environment.mjs
 */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { ONLY_ME, type Audience } from '@avrelle/core/audience';
import type { ClassRow } from '@avrelle/core/wire';
import { StandingLines } from '../../note/Standing';
import { ForMembers } from './margin/ForMembers';
import { HeldLine } from './margin/HeldLine';
import { HeldHere } from './notices/HeldHere';
import { AudienceMenu } from './toolbar/AudienceMenu';
import { noteBy, stage } from './stage';

afterEach(cleanup);
const user = userEvent.setup();
const forB = { classIds: ['b'] };
const held = { ...forB, held: [{ classId: 'b', releaseAt: null }] };

/** Opens the menu on an audience; what is chosen there, in order. */
async function menu(
  audience: Audience,
  role: 'student' | 'teacher',
  groups: ClassRow['groups'] = [],
): Promise<readonly Audience[]> {
  const chosen: Audience[] = [];
  stage(<AudienceMenu label="For" audience={audience} onChoose={(one) => chosen.push(one)} />, { role, groups });
  await user.click(screen.getByRole('button', { name: /^For:/ }));
  return chosen;
}
const choices = (): (string | null)[] => screen.queryAllByRole('menuitemradio').map((item) => item.textContent);

test('who in the class sees it is asked once a class is chosen; only who teaches can hold it', async () => {
  await menu(ONLY_ME, 'teacher');
  expect(choices()).toEqual([]);
  cleanup();
  await menu(forB, 'student');
  expect(choices()).toEqual(['✓Everybody there', 'Only the teachersstudents do not see it']);
  cleanup();
  const chosen = await menu(forB, 'teacher');
  await user.click(screen.getByRole('menuitemradio', { name: /Held/ }));
  await user.click(screen.getByRole('menuitemcheckbox', { name: /Field Course B/ }));
  expect(chosen).toEqual([{ ...forB, teachersOnly: false, held: true }, ONLY_ME]);
});

test('a student chooses between the class and their own group; what is for teachers is for no group', async () => {
  const mud = { id: 'm', name: 'Mud' };
  const chosen = await menu(forB, 'student', [mud]);
  expect(choices().slice(2)).toEqual(['✓All groups of Field Course B', 'Only my group, Mud']);
  await user.click(screen.getByRole('menuitemradio', { name: 'Only my group, Mud' }));
  cleanup();
  const inMud = { ...forB, groupIds: ['m'] };
  const after = await menu(inMud, 'teacher', [mud, { id: 's', name: 'Salt' }]);
  expect(screen.getByRole('button', { name: 'For: Mud of Field Course B' })).toBeTruthy();
  await user.click(screen.getByRole('menuitemradio', { name: 'Salt' }));
  await user.click(screen.getByRole('menuitemradio', { name: /Only the teachers/ }));
  await user.click(screen.getByRole('menuitemcheckbox', { name: /Field Course B/ }));
  expect([...chosen, ...after]).toEqual([
    inMud,
    { ...forB, groupIds: ['s'] },
    { ...forB, teachersOnly: true, held: false, groupIds: [] },
    ONLY_ME,
  ]);
});

test('of a group that was dissolved the name stays; its note can be for the class or another group again', async () => {
  const chosen: Audience[] = [];
  const audience = { ...forB, groupIds: ['gone'] };
  const groups = [{ classId: 'b', groupId: 'gone', name: 'Mud' }];
  stage(<AudienceMenu label="For" audience={audience} groups={groups} onChoose={(one) => chosen.push(one)} />, {
    groups: [{ id: 's', name: 'Salt' }],
  });
  await user.click(screen.getByRole('button', { name: 'For: Mud of Field Course B' }));
  await user.click(screen.getByRole('menuitemradio', { name: 'Only my group, Salt' }));
  await user.click(screen.getByRole('menuitemradio', { name: 'All groups of Field Course B' }));
  expect(chosen.map((one) => one.groupIds)).toEqual([['s'], []]);
});

test('what another class reads, too, says so; one asks to join where that is allowed', () => {
  stage(<StandingLines of={noteBy('Tomas Rell', '1', { ...forB, elsewhere: 'askable' })} />);
  expect(screen.getByRole('button', { name: 'Ask to join it' })).toBeTruthy();
  cleanup();
  stage(<StandingLines of={noteBy('Tomas Rell', '1', { ...forB, elsewhere: 'closed' })} />);
  expect(screen.getByText(/Another class reads this note, too/)).toBeTruthy();
  expect(screen.queryByRole('button')).toBeNull();
});

test('what is held is counted for who teaches, with whose it is; the strip stands before the first of it', () => {
  stage(<HeldHere />, {
    role: 'teacher',
    annotations: [noteBy('Ines Kestle', '1', held), noteBy('Tomas Rell', '2', held), noteBy('Tomas Rell', '3', forB)],
  });
  expect(screen.getByText('2 notes held', { exact: false }).textContent).toBe('2 notes held, 1 not by you');
  expect(screen.getByRole('button', { name: 'Release all 2' })).toBeTruthy();
  cleanup();
  stage(<HeldHere />, { role: 'teacher', audience: { ...forB, held: true } });
  expect(screen.getByText('what you write now is held until you release it')).toBeTruthy();
  cleanup();
  stage(<HeldHere />, { role: 'student', annotations: [noteBy('Tomas Rell', '2', held)] });
  expect(screen.queryByText(/held/)).toBeNull();
});

test('an open note says from whom it is held, and when that ends', () => {
  stage(<HeldLine annotation={noteBy('Ines Kestle', '1', held)} />, { role: 'teacher' });
  expect(screen.getByText('The students of Field Course B do not see it yet.', { exact: false })).toBeTruthy();
  cleanup();
  const timed = { ...forB, held: [{ classId: 'b', releaseAt: '2099-01-02T08:00:00.000Z' }] };
  stage(<HeldLine annotation={noteBy('Ines Kestle', '1', timed)} />, { role: 'teacher' });
  expect(screen.getByText(/^The students of Field Course B see it 2 Jan 2099/)).toBeTruthy();
});

test('who teaches can recommend and hide; students report; on what is not shared there is nothing to do', () => {
  const actions = (role: 'student' | 'teacher', more: object) => {
    cleanup();
    stage(<ForMembers annotation={noteBy('Tomas Rell', '1', more)} />, { role });
    return screen.queryAllByRole('button').map((button) => button.textContent);
  };
  expect(actions('teacher', forB)).toEqual(['Recommend', 'Hide…']);
  const hidden = { ...forB, endorsed: 'Dr Aldous', hidden: [{ classId: 'b', reason: 'No.', by: 'Dr Aldous' }] };
  expect(actions('teacher', hidden)).toEqual(['Do not recommend', 'Show to students']);
  expect(actions('student', forB)).toEqual(['Report…']);
  expect(actions('student', { classIds: ['x'] })).toEqual([]);
});
