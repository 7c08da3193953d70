import { escapeMarkdown, markBlock, type TakenMark } from './study-notes';

export interface TakenStep {
  /** Of the source. */
  readonly title: string;
  /** Undefined where the note was deleted, or is not for who takes it out. */
  readonly mark: TakenMark | undefined;
  /** What to say, in Markdown. */
  readonly words: string;
}

export interface TakenWalkthrough {
  readonly name: string;
  readonly className: string;
  readonly steps: readonly TakenStep[];
}

/** A walkthrough as CommonMark, step by step: the passage, what was written about it, and what to say. */
export function walkthroughMarkdown({ name, className, steps }: TakenWalkthrough): string {
  const head = `# ${escapeMarkdown(name)}\n\n${escapeMarkdown(className)}\n`;
  return [head, ...steps.map((step, at) => stepBlock(step, at + 1))].join('\n');
}

function stepBlock({ title, mark, words }: TakenStep, number: number): string {
  const body = mark ? markBlock(mark, '') : '*The note of this step is not there any more.*\n';
  const say = words.trim() ? `\n### To say\n\n${words.trim()}\n` : '';
  return `## ${number}. ${escapeMarkdown(title || 'Without a note')}\n\n${body}${say}`;
}
