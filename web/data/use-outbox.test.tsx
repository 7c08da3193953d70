/**
 * @jest-environment ./web/testing/environment.mjs
 */
import { afterEach, expect, test } from '@jest/globals';
import { act, cleanup, renderHook } from '@testing-library/react';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import type { PersonId } from '@avrelle/core/wire';
import type { ReactNode } from 'react';
import type { Watcher } from './outbox';
import { useOutbox } from './use-outbox';

afterEach(cleanup);

const wrapper = ({ children }: { children: ReactNode }) => (
  <QueryClientProvider client={new QueryClient()}>{children}</QueryClientProvider>
);

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
