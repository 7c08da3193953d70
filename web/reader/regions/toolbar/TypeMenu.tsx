import type { ReactNode } from 'react';
import { Popover } from 'radix-ui';
import { KIND_WORDS, type SourceKind } from '@avrelle/core/wire';
import { adjust, FACES, PAPERS, USUAL, type Adjustable, type Type } from '../../document/type';

interface Props {
  readonly kind: SourceKind;
  readonly type: Type;
  /** False for pages that are pictures: only their paper can be chosen. */
  readonly flows: boolean;
  onType(type: Type): void;
}

/** How the text is set: its size, its lines, its column, its face and its paper. */
export function TypeMenu({ kind, type, flows, onType }: Props) {
  const step = (what: Adjustable, words: string, shown: string) => (
    <Row name={words}>
      <button
        aria-label={`Less: ${words.toLowerCase()}`}
        className="border border-strong px-2.5 leading-6 hover:bg-wash"
        onClick={() => onType(adjust(type, what, -1))}
      >
        −
      </button>
      <span className="min-w-[52px] text-center tabular-nums">{shown}</span>
      <button
        aria-label={`More: ${words.toLowerCase()}`}
        className="border border-strong px-2.5 leading-6 hover:bg-wash"
        onClick={() => onType(adjust(type, what, 1))}
      >
        +
      </button>
    </Row>
  );
  return (
    <Popover.Root>
      <Popover.Trigger className="hover:text-ink">
        Display <span aria-hidden="true">▾</span>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          aria-label="Display"
          align="start"
          sideOffset={8}
          className="over w-[330px] max-w-[94vw] p-4 text-[14px]"
        >
          {flows && (
            <>
              {step('size', 'Size', `${type.size}`)}
              {step('line', 'Line spacing', type.line.toFixed(1))}
              {step('measure', 'Column width', `${type.measure}`)}
              <Choice
                name="Font"
                of={FACES}
                value={type.face}
                names={{ literata: <span className="font-read">Literata</span>, atkinson: 'Atkinson' }}
                onChoose={(face) => onType({ ...type, face })}
              />
            </>
          )}
          <Choice
            name="Background"
            of={PAPERS}
            value={type.paper}
            names={{ 'as Avrelle': 'automatic', day: 'day', night: 'night' }}
            onChoose={(paper) => onType({ ...type, paper })}
          />
          <p className="mt-2 flex justify-between border-t border-rule pt-2 text-[13px] text-soft">
            For every source of this type: {KIND_WORDS[kind]}
            <button className="act" onClick={() => onType(USUAL)}>
              Reset
            </button>
          </p>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

interface ChoiceProps<T extends string> {
  readonly name: string;
  readonly of: readonly T[];
  readonly value: T;
  readonly names: Readonly<Record<T, ReactNode>>;
  onChoose(one: T): void;
}

function Choice<T extends string>({ name, of, value, names, onChoose }: ChoiceProps<T>) {
  return (
    <Row name={name}>
      <span role="group" aria-label={name} className="flex gap-3">
        {of.map((one) => (
          <button
            key={one}
            aria-pressed={one === value}
            className={one === value ? 'border-b-2 border-tide font-semibold' : 'text-soft hover:text-ink'}
            onClick={() => onChoose(one)}
          >
            {names[one]}
          </button>
        ))}
      </span>
    </Row>
  );
}

const Row = ({ name, children }: { name: string; children: ReactNode }) => (
  <div className="mb-2.5 flex items-center justify-between">
    <span className="text-soft">{name}</span>
    <span className="flex items-center gap-1">{children}</span>
  </div>
);
