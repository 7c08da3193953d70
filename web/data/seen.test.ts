/**
 * @jest-environment ./web/testing/environment.mjs
 */
import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { noteSeen } from './seen';

let sent: string[][];
let fails: boolean;
const { fetch } = globalThis;
beforeEach(() => {
  sent = [];
  fails = false;
  jest.useFakeTimers();
  globalThis.fetch = (_url, init) => {
    if (fails) return Promise.reject(new TypeError('no line'));
    sent.push((JSON.parse(String(init?.body)) as { annotationIds: string[] }).annotationIds);
    return Promise.resolve(new Response(null, { status: 204 }));
  };
});
afterEach(() => {
  jest.useRealTimers();
  globalThis.fetch = fetch;
});
const later = () => jest.advanceTimersByTimeAsync(5_000);

test('what was seen is told together and once; what could not be told, with what is seen next', async () => {
  noteSeen('ines', ['a', 'b']);
  noteSeen('ines', ['b', 'c']);
  await later();
  expect(sent).toEqual([['a', 'b', 'c']]);
  noteSeen('ines', ['a']);
  await later();
  expect(sent).toHaveLength(1);
  fails = true;
  noteSeen('ines', ['d']);
  await later();
  fails = false;
  noteSeen('ines', ['e']);
  await later();
  expect(sent.slice(1)).toEqual([['d', 'e']]);
});

test('whoever signs in after somebody else tells what they see themselves, and nothing for the other', async () => {
  noteSeen('tomas', ['a', 'x']);
  noteSeen('greta', ['a']);
  await later();
  expect(sent).toEqual([['a']]);
});
