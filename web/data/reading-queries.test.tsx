/**
 * @jest-environment ./web/testing/environment.mjs
 */
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { act, cleanup, renderHook, waitFor } from '@testing-library/react';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import type { ClassDetail } from '@avrelle/core/wire';
import { useAllReadings, useReadings } from './reading-queries';

const readings = Array.from({ length: 7 }, (_, n) => ({ id: `r${n}`, title: `Reading ${n}` }));
/** A class of seven readings, the first three of which come with it. */
const CLASS = { id: 'c', sources: 7, readings: readings.slice(0, 3) } as unknown as ClassDetail;
const PART = 3;

let asked: number[];
const { fetch } = globalThis;
beforeEach(() => {
  asked = [];
  globalThis.fetch = (url) => {
    const offset = Number(new URL(String(url), 'http://here.test').searchParams.get('offset'));
    asked.push(offset);
    return Promise.resolve(Response.json(readings.slice(offset, offset + PART)));
  };
});
afterEach(() => {
  cleanup();
  globalThis.fetch = fetch;
});
/** With what one browser knows. */
const known = () => {
  const client = new QueryClient();
  return ({ children }: { readonly children: ReactNode }) => (
    <QueryClientProvider client={client}>{children}</QueryClientProvider>
  );
};

test('readings beyond those that come with a class are offered, and come part by part', async () => {
  const { result } = renderHook(() => useReadings(CLASS), { wrapper: known() });
  expect([result.current.readings.length, result.current.isMore, asked]).toEqual([3, true, []]);
  await act(() => result.current.fetchMore());
  await waitFor(() => expect(result.current.readings).toHaveLength(6));
  expect(result.current.isMore).toBe(true);
  await act(() => result.current.fetchMore());
  await waitFor(() => expect(result.current.isMore).toBe(false));
  expect(result.current.readings.map((r) => r.id)).toEqual(readings.map((r) => r.id));
});

test('where all are needed, each part is asked for once', async () => {
  const { result } = renderHook(() => useAllReadings(CLASS), { wrapper: known() });
  await waitFor(() => expect(result.current).toHaveLength(7));
  expect(asked).toEqual([3, 6]);
});
