import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { rosterClasses, rosterOf, type Rows } from './roster';

const short = (table: readonly (readonly string[])[]) => {
  const roster = rosterOf(table);
  return (
    roster && {
      people: roster.people.map(({ name, email, role }) => [name, email, role]),
      leftOut: roster.leftOut.map(({ line, why }) => [line, why]),
    }
  );
};

describe('a list of people', () => {
  test('is read by the names of its columns, however they are written', () => {
    expect(
      short([
        ['Family name', 'First name', 'E-mail address', 'Role'],
        ['Kestle', 'Ines', 'Ines@College.Saltmere.test', ''],
        ['Aldous', 'Maud', ' aldous@college.saltmere.test ', 'Teacher'],
      ]),
    ).toEqual({
      people: [
        ['Ines Kestle', 'ines@college.saltmere.test', 'student'],
        ['Maud Aldous', 'aldous@college.saltmere.test', 'teacher'],
      ],
      leftOut: [],
    });
  });

  test('needs no names of columns where addresses stand in it, in any place', () => {
    expect(
      short([
        ['ines@college.saltmere.test', 'Ines', 'Kestle'],
        ['Tomas Rell', 'tomas@college.saltmere.test'],
      ]),
    ).toEqual({
      people: [
        ['Ines Kestle', 'ines@college.saltmere.test', 'student'],
        ['Tomas Rell', 'tomas@college.saltmere.test', 'student'],
      ],
      leftOut: [],
    });
    expect(rosterOf([['Ines Kestle'], ['Tomas Rell']])).toBeUndefined();
    expect(rosterOf([])).toBeUndefined();
  });

  test('says of whom it leaves out why, and keeps the first of two with the same address', () => {
    expect(
      short([
        ['name', 'email', 'role'],
        ['Ines', 'ines@college.saltmere.test', ''],
        ['Ines Kestle', 'INES@college.saltmere.test', ''],
        ['Tomas', 'tomas at college', ''],
        ['Priya', '', ''],
        ['', 'kit@college.saltmere.test', ''],
        ['Luz', 'luz@college.saltmere.test', 'guardian'],
        ['', '', ''],
      ]),
    ).toEqual({
      people: [['Ines', 'ines@college.saltmere.test', 'student']],
      leftOut: [
        [3, 'twice'],
        [4, 'bad_address'],
        [5, 'no_address'],
        [6, 'no_name'],
        [7, 'no_part'],
      ],
    });
  });

  test('one bad row of a thousand leaves out that row alone; nobody is lost or doubled', () => {
    fc.assert(
      fc.property(fc.nat(999), fc.constantFrom('', 'no address', 'a@', '@b'), (bad, written) => {
        const rows = Array.from({ length: 1000 }, (_, n) => [`P ${n}`, n === bad ? written : `p${n}@saltmere.test`]);
        const { people, leftOut } = rosterOf([['name', 'email'], ...rows])!;
        expect([people.length, leftOut.map((l) => l.line)]).toEqual([999, [bad + 2]]);
      }),
      { numRuns: 5 },
    );
  });
});

// OneRoster 1.2 CSV (1EdTech): names and values of columns from memory.
const TABLES: Readonly<Record<'classes' | 'users' | 'enrollments', Rows>> = {
  classes: [
    { sourcedId: 'c1', status: 'active', title: 'Field Course B', classCode: 'FC-B' },
    { sourcedId: 'c2', status: '', title: '', classCode: 'FC-A' },
    { sourcedId: 'c3', status: 'tobedeleted', title: 'Old' },
  ],
  users: [
    { sourcedId: 'u1', enabledUser: 'true', givenName: 'Ines', familyName: 'Kestle', email: 'ines@saltmere.test' },
    { sourcedId: 'u2', enabledUser: 'true', givenName: 'Maud', familyName: 'Aldous', email: 'aldous@saltmere.test' },
    { sourcedId: 'u3', enabledUser: 'false', givenName: 'Kit', familyName: 'Ansell', email: 'kit@saltmere.test' },
    {
      sourcedId: 'u4',
      enabledUser: 'true',
      givenName: 'Wilhelm',
      preferredFirstName: 'Wim',
      familyName: 'Sorley',
      email: '',
    },
  ],
  enrollments: [
    { classSourcedId: 'c1', userSourcedId: 'u1', role: 'student' },
    { classSourcedId: 'c1', userSourcedId: 'u2', role: 'teacher' },
    { classSourcedId: 'c1', userSourcedId: 'u3', role: 'student' },
    { classSourcedId: 'c1', userSourcedId: 'u4', role: 'student' },
    { classSourcedId: 'c2', userSourcedId: 'u1', role: 'student', endDate: '2026-07-31' },
    { classSourcedId: 'c2', userSourcedId: 'u2', role: 'administrator' },
    { classSourcedId: 'c2', userSourcedId: 'u1', role: 'proctor', beginDate: '2026-09-01' },
    { classSourcedId: 'c2', userSourcedId: 'u9', role: 'student' },
  ],
};

test('a OneRoster bundle is read class by class, as it is on a day', () => {
  const found = rosterClasses(TABLES, '2026-10-01').map(({ key, title, roster }) => ({
    key,
    title,
    people: roster.people.map(({ name, role }) => `${name}, ${role}`),
    leftOut: roster.leftOut.map(({ line, words, why }) => [line, words, why]),
  }));
  expect(found).toEqual([
    {
      key: 'c1',
      title: 'Field Course B',
      people: ['Ines Kestle, student', 'Maud Aldous, teacher'],
      leftOut: [
        [4, 'Kit Ansell, kit@saltmere.test, student', 'ended'],
        [5, 'Wim Sorley, student', 'no_address'],
      ],
    },
    {
      key: 'c2',
      title: 'FC-A',
      people: ['Ines Kestle, assistant'],
      leftOut: [
        [6, 'Ines Kestle, ines@saltmere.test, student', 'ended'],
        [7, 'Maud Aldous, aldous@saltmere.test, administrator', 'no_part'],
        [9, 'u9, student', 'no_address'],
      ],
    },
  ]);
});
