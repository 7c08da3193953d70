import { expect, test } from '@jest/globals';
import { ValidationError } from 'yup';
import { questionPutSchema, type Question } from '@avrelle/core/wire';
import { askSchema, putOf, valuesOf, type AskValues } from './ask-form';

const NEW = valuesOf(undefined);
const choice = (words: string, isRight = false) => ({ words, isRight });
const wrong = async (values: AskValues): Promise<string> =>
  askSchema.validate(values).then(
    () => '',
    (error: unknown) => (error as ValidationError).path ?? 'somewhere',
  );

test('lines without words are no choices, and what is right keeps its place among the others', () => {
  const choices = [choice(''), choice(' Mud '), choice(''), choice('Salt', true)];
  const put = putOf({ ...NEW, form: 'one', choices }, 3);
  expect([put.choices, put.right, put.version]).toEqual([['Mud', 'Salt'], [1], 3]);
  expect(questionPutSchema.isValidSync(put)).toBe(true);
});

test('what is asked goes into the form and comes out the same', () => {
  const key = { right: [0, 2], number: null, tolerance: 0, model: 'Both.' };
  const shown = { choices: ['Mud', 'Salt', 'Peat'], unit: '', answersShown: 'by_hand', key, version: 2 };
  const question = { form: 'several', ...shown } as unknown as Question;
  const { choices, right, model, answersShown, form } = putOf(valuesOf(question), 2);
  expect({ choices, right, model, answersShown, form }).toEqual({
    choices: shown.choices,
    right: [0, 2],
    model: 'Both.',
    answersShown: 'by_hand',
    form: 'several',
  });
});

test('what cannot be asked is said where it stands', async () => {
  const two = [choice('Mud', true), choice('Salt', true)];
  expect(await wrong({ ...NEW, form: 'one', choices: [choice('Mud'), choice('')] })).toBe('choices');
  expect(await wrong({ ...NEW, form: 'several', choices: [choice('Mud'), choice(' Mud')] })).toBe('choices');
  expect(await wrong({ ...NEW, form: 'one', choices: two })).toBe('choices');
  expect(await wrong({ ...NEW, form: 'several', choices: two })).toBe('');
  expect(await wrong({ ...NEW, form: 'number', tolerance: -1 })).toBe('tolerance');
  // Of an open question nothing has to be chosen.
  expect(await wrong({ ...NEW, form: 'open' })).toBe('');
});
