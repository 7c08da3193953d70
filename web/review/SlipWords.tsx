import { ToggleGroup } from 'radix-ui';
import type { WordBlock } from './slip-words';

interface Props {
  readonly blocks: readonly WordBlock[];
  /** Keys of the words that lie under slips. */
  readonly chosen: readonly string[];
  onChoose(keys: string[]): void;
}

/** The words of a passage; each is put under a slip, or taken out again, by pressing it. */
export function SlipWords({ blocks, chosen, onChoose }: Props) {
  return (
    <fieldset>
      <legend className="mb-1 text-[14px] text-soft">
        Words under a slip: press them. Press none, and a question hides the whole passage.
      </legend>
      <ToggleGroup.Root
        type="multiple"
        value={[...chosen]}
        onValueChange={onChoose}
        aria-label="Words under a slip"
        className="max-h-[32vh] overflow-y-auto border border-strong bg-paper px-3 py-2 font-read text-[16px] leading-[29px]"
      >
        {blocks.map(({ start, stretches }) => (
          <p key={start} dir="auto">
            {stretches.map(({ key, text, marked }, n) =>
              key === null ? (
                <span key={n}>{text}</span>
              ) : (
                <ToggleGroup.Item
                  key={key}
                  value={key}
                  className={`slip-word ${marked ? 'underline decoration-(--strand) underline-offset-4' : ''}`}
                >
                  {text}
                </ToggleGroup.Item>
              ),
            )}
          </p>
        ))}
      </ToggleGroup.Root>
    </fieldset>
  );
}
