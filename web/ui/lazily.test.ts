import { expect, test } from '@jest/globals';
import { createElement, Suspense } from 'react';
import { renderToString } from 'react-dom/server';
import { Boundary } from './Boundary';
import { lazily } from './lazily';
import { TagNames, TintContext } from './TagNames';

const Part = ({ words }: { words: string }) => createElement('p', null, words);
const shown = (part: ReturnType<typeof lazily<{ words: string }>>): string =>
  renderToString(createElement(Suspense, { fallback: 'waiting' }, createElement(part, { words: 'here' })));

test('a part whose code is there is shown at once; before, what stands in for it', async () => {
  let fetched = 0;
  const part = lazily(() => {
    fetched++;
    return Promise.resolve({ default: Part });
  });
  await part.fetchCode();
  expect([shown(part), fetched]).toEqual(['<!--$--><p>here</p><!--/$-->', 1]);
  const other = lazily(() => Promise.resolve({ default: Part }));
  expect(shown(other)).toContain('waiting');
});

test('what broke at one address is tried anew at another', () => {
  const broken = { at: '/find', ...Boundary.getDerivedStateFromError() } as { at: string; broken: boolean };
  expect(broken.broken).toBe(true);
  expect(Boundary.getDerivedStateFromProps({ at: '/find', children: null }, broken)).toBeNull();
  expect(Boundary.getDerivedStateFromProps({ at: '/desk', children: null }, broken)).toEqual({
    at: '/desk',
    broken: false,
  });
});

test('tags stand one after the other, with a ribbon where they or what they stand beneath have a tint', () => {
  const html = renderToString(
    createElement(
      TintContext.Provider,
      { value: { essay: 'moss' } },
      createElement(TagNames, { tags: ['essay/opening', 'mud'] }),
    ),
  );
  expect(html.replace(/<[^>]+>/g, '')).toBe('#essay/opening #mud');
  expect([...html.matchAll(/border-left:3px solid ([^;"]+)/g)].map((m) => m[1])).toEqual(['var(--moss)']);
});
