import { v7 } from 'uuid';
import { blocksOf } from '@avrelle/core/study';
import type { ExcerptsPut, StudyNote } from '@avrelle/core/wire';
import type { DemoClock } from './clock';
import type { SourceKey } from './marks';

/** A passage that somebody marked, by its source and words; or words of one's own. */
type Block = string | readonly [source: SourceKey, quote: string];

interface DemoNote {
  readonly title: string;
  /** Begun and last written, in days before today. */
  readonly days: readonly [begun: number, written: number];
  readonly blocks: readonly Block[];
}

/** What Ines writes for herself. */
const NOTES: readonly DemoNote[] = [
  {
    title: 'Questions for the keeper',
    days: [6, 5],
    blocks: [
      'For Bram Oake, at the sluice on Saturday. Not more than three.',
      ['walk', 'A hundred and sixty years without mud, that is what you are looking at.'],
      '1. Who decided that the gate stays shut in a spring tide?\n2. Where is the book before 1961?',
      ['marsh', 'two of whom have not spoken since a matter of fencing in 1998'],
      'Better not this one.',
    ],
  },
  {
    title: 'Words of the marsh',
    days: [9, 3],
    blocks: ['As I understand them, shortest first.', ['lavender', 'Glasswort'], ['marsh', 'levées']],
  },
  {
    title: 'Managed retreat, for the essay',
    days: [13, 0],
    blocks: [
      'The argument starts from a subtraction. A marsh that gains three millimetres while the sea gains four is ' +
        'not a marsh that is standing still.',
      ['marsh', 'Between 1994 and 2024 the gauge at Cobb’s Hard recorded a rise of 117 mm'],
      ['marsh', 'it decides whether there will be a marsh at all'],
      'Against it stands the harbour’s reckoning, which counts the wall and not what stands before it.',
      '## Who would pay',
      [
        'packet',
        'where eighty metres of saltings lie before a wall, the wall can be a third lower for the same safety',
      ],
      ['marsh', 'nobody has shown what share of it would have reached the marsh'],
      'That is the weak place of the whole plan, and I should say so before somebody else does.',
      ['marsh', 'What saves it is room.'],
    ],
  },
];

interface World {
  readonly clock: DemoClock;
  send<T>(by: string, method: 'PUT' | 'POST' | 'PATCH', url: string, payload?: object): Promise<T>;
  /** The annotation on some words. */
  idOf(source: SourceKey, quote: string): string;
}

/** Writes the notes: their excerpts are put in, then stand among the words. */
export async function seedStudyNotes(world: World): Promise<void> {
  for (const note of NOTES) await writeNote(world, note);
}

async function writeNote({ clock, send, idOf }: World, { title, days, blocks }: DemoNote): Promise<void> {
  const url = `/api/notes/${v7()}`;
  clock.set(days[0], 16);
  await send('ines', 'PUT', url, { title, markdown: '' });
  const annotationIds = blocks.flatMap((block) => (typeof block === 'string' ? [] : [idOf(...block)]));
  const { note } = await send<ExcerptsPut>('ines', 'POST', `${url}/excerpts`, { annotationIds });
  const excerpts = new Map(blocksOf(note.markdown).map((block) => [block.annotationId, block.text]));
  const written = blocks.map((block) => (typeof block === 'string' ? block : excerpts.get(idOf(...block))!));
  clock.set(days[1], 10, 42);
  await send<StudyNote>('ines', 'PATCH', url, { version: note.version, markdown: written.join('\n\n') });
}
