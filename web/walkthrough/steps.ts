import type { StoredPage } from '../data/page-saver';
import type { AnnotationId, Walkthrough, WalkthroughPut } from '@avrelle/core/wire';

/** What of a walkthrough is written: its name, and its steps in their order. */
export type Written = Pick<WalkthroughPut, 'name' | 'steps'>;
type Step = Written['steps'][number];

export const withStep = ({ steps, ...rest }: Written, annotationId: AnnotationId): Written =>
  steps.some((step) => step.annotationId === annotationId)
    ? { ...rest, steps }
    : { ...rest, steps: [...steps, { annotationId, words: '' }] };
export const withoutStep = ({ steps, ...rest }: Written, annotationId: AnnotationId): Written => ({
  ...rest,
  steps: steps.filter((step) => step.annotationId !== annotationId),
});
/** Put back where it was, or at the end of what has become shorter. */
export const withStepAt = (written: Written, step: Step, at: number): Written => {
  const { steps, ...rest } = withoutStep(written, step.annotationId);
  return { ...rest, steps: steps.toSpliced(at, 0, step) };
};
export const withWords = ({ steps, ...rest }: Written, annotationId: AnnotationId, words: string): Written => ({
  ...rest,
  steps: steps.map((step) => (step.annotationId === annotationId ? { ...step, words } : step)),
});
/** Moved to the place of another. */
export function movedStep(written: Written, annotationId: AnnotationId, over: AnnotationId): Written {
  const from = written.steps.findIndex((step) => step.annotationId === annotationId);
  const to = written.steps.findIndex((step) => step.annotationId === over);
  return from < 0 || to < 0 ? written : withStepAt(written, written.steps[from]!, to);
}

/** As it is kept and compared: the same walkthrough is the same words. */
export const textOf = ({ name, steps }: Written): string =>
  JSON.stringify({ name: name.trim(), steps: steps.map(({ annotationId, words }) => ({ annotationId, words })) });
export const writtenIn = (text: string): Written => JSON.parse(text) as Written;
export const storedOf = (walkthrough: Walkthrough): StoredPage => ({
  text: textOf(walkthrough as unknown as Written),
  version: walkthrough.version,
});
