/**
 * @jest-environment ./web/testing/environment.mjs
 */
import { afterEach, expect, test } from '@jest/globals';
import { act, cleanup, renderHook } from '@testing-library/react';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import type { PersonId } from '@avrelle/core/wire';
import type { ReactNode } from 'react';
import type { Watcher } from './outbox';
import { keys } from './keys';
import { useOutbox } from './use-outbox';

afterEach(cleanup);

const within =
  (client: QueryClient) =>
  ({ children }: { children: ReactNode }) => <QueryClientProvider client={client}>{children}</QueryClientProvider>;
const wrapper = within(new QueryClient());

/** The queue's code, whose each loading ends when the test says so. */
function lateCode() {
  const resumed: (PersonId | undefined)[] = [];
  const watching = new Set<Watcher>();
  const ends: (() => void)[] = [];
  const code = {
    outbox: { resume: (personId: PersonId | undefined) => void resumed.push(personId) },
    watchOutbox: (by: Watcher) => {
      watching.add(by);
      by.waiting(false);
      return () => void watching.delete(by);
    },
  };
  const load = () => new Promise<typeof code>((done) => ends.push(() => done(code)));
  return { load, ends, resumed, watching };
}

test('the queue belongs to who is signed in, in whatever order its code comes', async () => {
  const { load, ends, resumed, watching } = lateCode();
  const ada = 'ada' as PersonId;
  const { rerender, unmount } = renderHook(({ person }) => useOutbox(person, load), {
    wrapper,
    initialProps: { person: undefined as PersonId | undefined },
  });
  rerender({ person: ada });
  expect(ends).toHaveLength(2);
  await act(async () => ends[1]!());
  await act(async () => ends[0]!());
  expect([resumed, watching.size]).toEqual([[ada], 1]);
  unmount();
  expect(watching.size).toBe(0);
});

test('whether something waits is shown until it is sent', async () => {
  const { load, ends, watching } = lateCode();
  const { result } = renderHook(() => useOutbox('ada' as PersonId, load), { wrapper });
  await act(async () => ends[0]!());
  expect(result.current).toBe(false);
  const [watcher] = watching;
  act(() => watcher!.waiting(true));
  expect(result.current).toBe(true);
  act(() => watcher!.waiting(false));
  expect(result.current).toBe(false);
});

test('what an earlier visit wrote comes into the lists that were asked for before it was stored', async () => {
  const { load, ends, watching } = lateCode();
  const client = new QueryClient();
  const lists = [['found', 'is:mine'], ['annotations', 's'], keys.library];
  for (const key of lists) client.setQueryData(key, []);
  renderHook(() => useOutbox('ada' as PersonId, load), { wrapper: within(client) });
  await act(async () => ends[0]!());
  const [watcher] = watching;
  act(() => watcher!.ended({} as never));
  expect(lists.map((key) => client.getQueryState(key)?.isInvalidated)).toEqual([true, true, true]);
});
