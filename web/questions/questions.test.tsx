/**
 * @jest-environment ./web/testing/environment.mjs
 */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { MemoryRouter } from 'react-router';
import type { AskedClass, ClassRow, Question, QuestionResults } from '@avrelle/core/wire';
import { untilShown } from '../data/question-queries';
import type { Slot, Unfinished } from '../data/unfinished';
import { MessagesProvider } from '../ui/Messages';
import QuestionBox from './QuestionBox';

afterEach(cleanup);
const user = userEvent.setup();
const B = { id: 'b', name: 'Field Course B', tint: 'tide' };
const CHOICES = ['At six', 'At seven', 'Never'];

const question = (more: Partial<Question> = {}): Question =>
  ({
    ...{ id: 'q', words: 'When?', form: 'one', choices: CHOICES, unit: '', answersShown: 'by_hand', version: 1 },
    ...{ isMine: false, isForMe: true, isOpen: true, response: null, key: null, classes: [asked()] },
    ...more,
  }) as unknown as Question;
const asked = (more: Partial<AskedClass> = {}): AskedClass => ({
  ...{ id: 'b', shownAt: null, dueAt: null, results: null },
  ...more,
});
const RESULTS: QuestionResults = { students: 4, answered: 3, right: 2, byChoice: [1, 2, 0], numbers: [], words: [] };
const KEY = { right: [1], number: null, tolerance: 0, model: 'It *says* so.' };

function show(of: Question, role: ClassRow['role'] = 'student', kept?: string) {
  const written: string[] = [];
  const slot: Slot = {
    read: () => (kept === undefined ? undefined : ({ note: kept } as unknown as Unfinished)),
    write: ({ note }) => void written.push(note),
    drop: () => void written.push('dropped'),
    settle: () => undefined,
  };
  render(
    <QueryClientProvider client={new QueryClient()}>
      <MemoryRouter>
        <MessagesProvider>
          <QuestionBox question={of} classes={[{ ...B, role }]} slot={slot} />
        </MessagesProvider>
      </MemoryRouter>
    </QueryClientProvider>,
  );
  return written;
}

test('who is asked chooses one, and is told that it can be changed; nothing of others stands there', async () => {
  show(question());
  await user.click(screen.getByLabelText('At six'));
  await user.click(screen.getByLabelText('At seven'));
  expect(CHOICES.map((words) => (screen.getByLabelText(words) as HTMLInputElement).checked)).toEqual([
    false,
    true,
    false,
  ]);
  expect(screen.getByText(/change it until a teacher shows/)).toBeTruthy();
  expect(screen.queryByText(/answered/)).toBeNull();
});

test('several are taken together and let go one by one', async () => {
  show(question({ form: 'several' }));
  for (const words of ['At six', 'Never', 'At six']) await user.click(screen.getByLabelText(words));
  expect(CHOICES.map((words) => (screen.getByLabelText(words) as HTMLInputElement).checked)).toEqual([
    false,
    false,
    true,
  ]);
});

test('words of an answer are kept as they are written, and are there again', async () => {
  const written = show(question({ form: 'open' }), 'student', 'The mo');
  const field = screen.getByLabelText<HTMLTextAreaElement>('Your answer');
  expect(field.value).toBe('The mo');
  await user.type(field, 'on');
  expect(written.at(-1)).toBe('The moon');
  await user.clear(field);
  expect(written.at(-1)).toBe('dropped');
});

test('shown: what is right, one’s own and how many took each are said in words', () => {
  const response = { choices: [0], number: null, words: '', at: '2026-10-20T08:00:00.000Z', isRight: false };
  show(question({ isOpen: false, response, key: KEY, classes: [asked({ results: RESULTS })] }));
  expect(screen.getByText('Your answer: not right')).toBeTruthy();
  expect(screen.getByText('3 of 4')).toBeTruthy();
  expect(screen.getAllByRole('listitem').map((row) => row.textContent)).toEqual([
    'At sixyours1',
    'At seven✓ right2',
    'Never0',
  ]);
  expect(screen.queryByRole('button', { name: /answer/i })).toBeNull();
});

test('who teaches sees how it stands, and when the class will; who asked can change it', () => {
  const of = question({ isForMe: false, isMine: true, key: KEY, classes: [asked({ results: RESULTS })] });
  show(of, 'teacher');
  expect(screen.getByText(/does not see the answers yet/)).toBeTruthy();
  expect(screen.getByRole('button', { name: 'Show the answers' })).toBeTruthy();
  expect(screen.getByRole('button', { name: 'Change the question…' })).toBeTruthy();
  expect(screen.queryByLabelText('At six')).toBeNull();
});

test('answers that are shown by themselves are asked for when their time has come, the next first', () => {
  const now = Date.parse('2026-10-20T08:00:00.000Z');
  const due = (dueAt: string | null, answersShown: Question['answersShown'] = 'after_due') =>
    question({ answersShown, classes: [asked({ dueAt })] });
  const some = [due('2026-10-20T08:02:00.000Z'), due('2026-10-20T08:01:00.000Z'), due('2026-10-20T07:00:00.000Z')];
  expect(untilShown(some, now)).toBe(61_000);
  // Here it was due a minute ago; the server's clock is behind.
  expect(untilShown([due('2026-10-20T07:59:00.000Z')], now)).toBe(30_000);
  expect(untilShown([due('2030-10-20T08:00:00.000Z')], now)).toBe(2 ** 31 - 1);
  expect(untilShown([due(null), due('2026-10-20T08:01:00.000Z', 'by_hand')], now)).toBe(false);
});
