import { describe, expect, test } from '@jest/globals';
import { tagsIn } from './tags-in';
import { selectorOf } from './trim';
import { uploads } from './use-keeping';

const named = (...names: string[]): File[] => names.map((name) => new File(['x'], name));
const sent = (files: File[]): string[][] =>
  uploads(files).map((form) => [...form.entries()].map(([field, file]) => `${field}: ${(file as File).name}`));

describe('files that are dropped together', () => {
  test('a transcript goes with the recording of its name', () => {
    expect(sent(named('walk.vtt', 'gulls.wav', 'walk.ogg', 'gulls.srt'))).toEqual([
      ['file: gulls.wav', 'transcript: gulls.srt'],
      ['file: walk.ogg', 'transcript: walk.vtt'],
    ]);
  });

  test('with one other file there is only one it can belong to; alone it goes by itself, to be told so', () => {
    expect(sent(named('words.vtt', 'walk.ogg'))).toEqual([['file: walk.ogg', 'transcript: words.vtt']]);
    expect(sent(named('words.vtt'))).toEqual([['file: words.vtt']]);
    expect(sent(named('a.pdf', 'b.pdf', 'words.vtt'))).toEqual([['file: a.pdf'], ['file: b.pdf'], ['file: words.vtt']]);
  });

  test('a pasted picture gets a name of its own', () => {
    expect(sent(named('image.png'))[0]![0]).toMatch(/^file: Pasted picture \d{4}-\d\d-\d\d \d\d\.\d\d\.png$/);
  });
});

test('an element is named by its path', () => {
  expect(selectorOf('1/0/4')).toBe(':root>*:nth-child(2)>*:nth-child(1)>*:nth-child(5)');
});

test('tags are read however they are typed', () => {
  expect(tagsIn(' #Accretion, essay  #week5,,')).toEqual(['accretion', 'essay', 'week5']);
});
