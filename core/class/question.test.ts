import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { areShown, countsOf, isRight, type Given } from './question';

const given = (of: Partial<Given>): Given => ({ choices: [], number: null, words: '', ...of });
const key = (of: object) => ({ right: [], number: null, tolerance: 0, ...of });

describe('what is right', () => {
  test('one or several choices: all that are right, and nothing else', () => {
    const several = key({ right: [0, 2] });
    const marked = [[0, 2], [0], [0, 1, 2], [1], []].map((choices) => isRight('several', several, given({ choices })));
    expect(marked).toEqual([true, false, false, false, false]);
    expect(isRight('one', key({ right: [1] }), given({ choices: [1] }))).toBe(true);
  });

  test('a number within its tolerance, its ends included, however it is written in binary', () => {
    const about = key({ number: 0.2, tolerance: 0.1 });
    const marked = [0.1, 0.3, 0.1 + 0.2, 0.301, 0.0999, -0.2].map((number) =>
      isRight('number', about, given({ number })),
    );
    expect(marked).toEqual([true, true, true, false, false, false]);
    expect(isRight('number', key({ number: 1e12, tolerance: 0 }), given({ number: 1e12 + 5_000 }))).toBe(false);
    expect(isRight('number', key({ number: 0 }), given({ number: 1e-12 }))).toBe(false);
  });

  test('where nothing is right, nothing is wrong', () => {
    expect(isRight('open', key({ right: [0] }), given({ words: 'Mud.' }))).toBeNull();
    expect(isRight('one', key({}), given({ choices: [0] }))).toBeNull();
    expect(isRight('number', key({}), given({ number: 7 }))).toBeNull();
  });
});

test('answers are shown after one’s own, after one’s own due date, or by hand; by hand always', () => {
  const now = '2026-10-02T08:00:00.000Z';
  const nobody = { shownAt: null, dueAt: null, hasAnswered: false };
  const shown = (of: Partial<Parameters<typeof areShown>[0]> & Pick<Parameters<typeof areShown>[0], 'answersShown'>) =>
    areShown({ ...nobody, ...of }, now);
  expect(shown({ answersShown: 'after_own' })).toBe(false);
  expect(shown({ answersShown: 'after_own', hasAnswered: true })).toBe(true);
  expect(shown({ answersShown: 'after_due', hasAnswered: true })).toBe(false);
  expect(shown({ answersShown: 'after_due', dueAt: '2026-10-02T08:00:00.001Z' })).toBe(false);
  expect(shown({ answersShown: 'after_due', dueAt: now })).toBe(true);
  expect(shown({ answersShown: 'by_hand', dueAt: now, hasAnswered: true })).toBe(false);
  for (const answersShown of ['after_own', 'after_due', 'by_hand'] as const)
    expect(shown({ answersShown, shownAt: now })).toBe(true);
});

describe('counting', () => {
  test('each choice by those who took it, numbers by how often, and how many are right', () => {
    const several = { form: 'several', choices: ['mud', 'salt', 'peat'] } as const;
    const counted = countsOf(several, key({ right: [0, 1] }), [
      given({ choices: [0, 1] }),
      given({ choices: [0] }),
      given({ choices: [2] }),
    ]);
    expect(counted).toEqual({ answered: 3, right: 1, byChoice: [2, 1, 1], numbers: [] });
    const numbers = countsOf({ form: 'number', choices: [] }, key({ number: 21, tolerance: 1 }), [
      given({ number: 22 }),
      given({ number: 9 }),
      given({ number: 22 }),
    ]);
    const values = [
      { value: 9, count: 1 },
      { value: 22, count: 2 },
    ];
    expect(numbers).toEqual({ answered: 3, right: 2, byChoice: [], numbers: values });
    expect(countsOf({ form: 'one', choices: ['a', 'b'] }, key({}), []).right).toBeNull();
  });

  test('of one choice each, the counts are as many as those who answered', () => {
    fc.assert(
      fc.property(fc.array(fc.nat({ max: 4 })), fc.nat({ max: 4 }), (taken, right) => {
        const question = { form: 'one', choices: ['a', 'b', 'c', 'd', 'e'] } as const;
        const answers = taken.map((at) => given({ choices: [at] }));
        const counted = countsOf(question, key({ right: [right] }), answers);
        expect(counted.byChoice.reduce((sum, n) => sum + n, 0)).toBe(taken.length);
        expect(counted.right).toBe(counted.byChoice[right]);
      }),
    );
  });
});
