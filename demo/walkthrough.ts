import { v7 } from 'uuid';
import type { SourceKey } from './marks';

/** Seven steps through what Field Course B marked, with what Dr Aldous says at each. */
export const WALKTHROUGH: {
  readonly name: string;
  readonly steps: readonly (readonly [source: SourceKey, quote: string, words: string])[];
} = {
  name: 'From numbers to a decision',
  steps: [
    [
      'marsh',
      'A salt marsh keeps its height above the tide only by catching mud',
      'Begin with the sentence everybody marked. **What would have to be true** for it to be wrong?',
    ],
    [
      'marsh',
      'Between 1994 and 2024 the gauge at Cobb’s Hard recorded a rise of 117 mm',
      'Two numbers, two instruments. Let Tomas say which he trusts less, and why.',
    ],
    [
      'marsh',
      'it decides whether there will be a marsh at all',
      'Ask who agrees before showing Luz’s answer. The thumb is 21 mm in thirty years: ' +
        'is that more or less than the error of a peg?',
    ],
    [
      'marsh',
      'the surface gains almost nothing',
      'Table 2 of the handbook beside it: 1.1 in the lavender zone, minus 1.3 in the pans.',
    ],
    ['report', 'The marsh is not drowning everywhere.', 'A PDF now. The second half of the abstract is the report.'],
    [
      'walk',
      'A hundred and sixty years without mud, that is what you are looking at.',
      'Let it play to the end of the sentence. Then ask what a number cannot say.',
    ],
    [
      'marsh',
      'The quantity everybody wants to know, how much longer, depends less on the mud than on ' +
        'what people do behind the wall',
      'Everybody answers in one sentence. Show the answers only when all have.',
    ],
  ],
};

type Send = (by: string, method: 'PUT', url: string, payload?: object) => Promise<unknown>;

/** Gives each of its notes a star, and puts them in their order. */
export async function seedWalkthrough(
  send: Send,
  classUrl: string,
  idOf: (source: SourceKey, quote: string) => string,
): Promise<void> {
  const steps = WALKTHROUGH.steps.map(([source, quote, words]) => ({ annotationId: idOf(source, quote), words }));
  for (const { annotationId } of steps)
    await send('aldous', 'PUT', `/api/annotations/${annotationId}/star`, { starred: true });
  const { name } = WALKTHROUGH;
  await send('aldous', 'PUT', `${classUrl}/walkthroughs/${v7()}`, { version: 0, name, steps });
}
