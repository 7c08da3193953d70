import { expect, test } from '@jest/globals';
import { fromMarkdown } from 'mdast-util-from-markdown';
import { walkthroughMarkdown } from './walkthrough';

const mark = {
  start: 0,
  kind: { name: 'Claim', sign: '§' },
  quote: 'It loses *height*.',
  note: 'Why?',
  tags: ['week4'],
  author: 'Ines Kestle',
  replies: [{ author: 'Tomas Rell', note: 'Mud.' }],
  what: '',
  address: 'https://avrelle.saltmere.test/source/1?at=2',
};

test('step by step: the passage, what was written, and what to say; a note that is gone is said', () => {
  const markdown = walkthroughMarkdown({
    name: 'From # numbers',
    className: 'Field Course B',
    steps: [
      { title: 'The Marsh', mark, words: 'Ask *first*.' },
      { title: '', mark: undefined, words: '' },
    ],
  });
  expect(markdown).toBe(
    [
      '# From # numbers\n\nField Course B\n',
      '## 1. The Marsh\n',
      '> It loses \\*height\\*.\n',
      '§ [*Claim*](https://avrelle.saltmere.test/source/1?at=2) · Ines Kestle\n',
      'Why?\n',
      '#week4\n',
      '- **Tomas Rell:** Mud.\n',
      '### To say\n',
      'Ask *first*.\n',
      '## 2. Without a note\n',
      '*The note of this step is not there any more.*\n',
    ].join('\n'),
  );
  // Read back by a parser of CommonMark, each heading is one.
  const depths = fromMarkdown(markdown).children.flatMap((node) => (node.type === 'heading' ? [node.depth] : []));
  expect(depths).toEqual([1, 2, 3, 2]);
});
