import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { DropdownMenu, Popover } from 'radix-ui';
import { LINES, PIGMENTS, PLAIN_NOTE, type Kind } from '@avrelle/core/legend';
import { Marked, Sign } from '../ui/Sign';
import { count } from '../ui/when';
import { SIGNS } from './signs';

interface Props {
  readonly kind: Kind;
  readonly digit: number;
  /** How many marks are of this kind. */
  readonly uses: number;
  /** Kinds its marks could be made. */
  readonly others: readonly Kind[];
  readonly last: boolean;
  onChange(to: Partial<Kind>): void;
  onReplace(to: Kind): void;
  onRemove(): void;
}

const LINE_WORDS: Readonly<Record<string, string>> = {
  solid: 'plain',
  dashed: 'dashed',
  wavy: 'wavy',
  dotted: 'dotted',
  double: 'double',
  thick: 'thick',
};

/** One kind of the Legend: dragged to its digit, named, and given its look. */
export function KindRow({ kind, digit, uses, others, last, onChange, onReplace, onRemove }: Props) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id: kind.code });
  const name = kind.name || 'New kind';
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className={`grid grid-cols-[22px_20px_130px_1fr_auto] items-center gap-3 border-t border-rule py-1.5 max-[600px]:grid-cols-[22px_20px_92px_1fr] ${isDragging ? 'relative z-10 bg-wash' : ''}`}
    >
      <button
        {...attributes}
        {...listeners}
        aria-label={`Move ${name}`}
        title="Drag to another digit; or press Space and the arrows"
        className="cursor-grab touch-none text-faint"
      >
        <svg aria-hidden="true" viewBox="0 0 12 16" width="12" height="16">
          <path d="M1 4h10M1 8h10M1 12h10" stroke="currentColor" />
        </svg>
      </button>
      <span className="font-read text-faint">{digit}</span>
      <LookButton kind={kind} name={name} onChange={onChange} />
      <input
        aria-label={`Name of kind ${digit}`}
        value={kind.name}
        maxLength={30}
        onChange={(e) => onChange({ name: e.target.value })}
        placeholder="Its name"
        className="field"
      />
      <span className="flex items-center gap-4 text-[13px] text-soft max-[600px]:[grid-column:3/-1]">
        <span className="min-w-[58px] text-right">{uses === 0 ? 'not used' : count(uses, 'mark')}</span>
        <DropdownMenu.Root modal={false}>
          <DropdownMenu.Trigger className="act" aria-label={`More for ${name}`}>
            More <span aria-hidden="true">▾</span>
          </DropdownMenu.Trigger>
          <DropdownMenu.Portal>
            <DropdownMenu.Content align="end" sideOffset={4} className="over py-1 text-[14px]">
              {uses > 0 && others.length > 0 && (
                <>
                  <DropdownMenu.Label className="px-4 pt-1 text-[12.5px] text-faint">
                    Make {uses === 1 ? 'its mark' : `all ${uses} marks`}
                  </DropdownMenu.Label>
                  {[...others, PLAIN_NOTE].map((to) => (
                    <DropdownMenu.Item key={to.code} className="item" onSelect={() => onReplace(to)}>
                      <Sign kind={to} className="w-4" />
                      {to.name}
                    </DropdownMenu.Item>
                  ))}
                  <DropdownMenu.Separator className="my-1 border-t border-rule" />
                </>
              )}
              <DropdownMenu.Item
                className="item text-brick data-[disabled]:text-faint"
                disabled={last}
                onSelect={onRemove}
              >
                {uses > 0 ? 'Remove from the Legend; its marks stay as they are' : 'Remove from the Legend'}
              </DropdownMenu.Item>
            </DropdownMenu.Content>
          </DropdownMenu.Portal>
        </DropdownMenu.Root>
      </span>
    </li>
  );
}

/** How it looks, and a panel to change that: sign, pigment, line. */
function LookButton({ kind, name, onChange }: { kind: Kind; name: string; onChange: (to: Partial<Kind>) => void }) {
  const typed = (SIGNS as readonly string[]).includes(kind.sign) ? '' : kind.sign;
  return (
    <Popover.Root>
      <Popover.Trigger
        aria-label={`Look of ${name}`}
        title="Change its sign, colour and line"
        className="flex min-w-0 items-baseline gap-2 border border-transparent px-1 py-0.5 text-left hover:border-strong"
      >
        <Sign kind={kind} className="w-[18px] text-[17px]" />
        <span className="truncate">
          <Marked look={kind}>{name}</Marked>
        </span>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          aria-label="How it is drawn"
          align="start"
          sideOffset={6}
          className="over w-[304px] p-4 text-[14px]"
        >
          <Choice legend="Sign">
            <div className="flex flex-wrap">
              {SIGNS.map((sign) => (
                <Option key={sign} name="sign" label={sign} on={kind.sign === sign} onChoose={() => onChange({ sign })}>
                  <Sign kind={{ ...kind, sign }} className="w-[22px] text-[16px]" />
                </Option>
              ))}
              <input
                aria-label="Another sign"
                value={typed}
                maxLength={16}
                onChange={(e) => e.target.value && onChange({ sign: e.target.value.trim() })}
                placeholder="or type one"
                className="field ml-1 !w-[84px] text-[13px]"
              />
            </div>
          </Choice>
          <Choice legend="Colour">
            <div className="flex">
              {PIGMENTS.map((pigment) => (
                <Option
                  key={pigment}
                  name="pigment"
                  label={pigment}
                  on={kind.pigment === pigment}
                  onChoose={() => onChange({ pigment })}
                >
                  <span
                    className="block size-[22px]"
                    style={{ background: `var(--${pigment})`, borderBottom: `4px solid var(--${pigment}-line)` }}
                  />
                </Option>
              ))}
            </div>
          </Choice>
          <Choice legend="Line">
            <div className="grid grid-cols-3 gap-y-1">
              {LINES.map((line) => (
                <Option
                  key={line}
                  name="line"
                  label={LINE_WORDS[line]!}
                  on={kind.line === line}
                  onChoose={() => onChange({ line })}
                >
                  <Marked look={{ pigment: kind.pigment, line }}>{LINE_WORDS[line]!}</Marked>
                </Option>
              ))}
            </div>
          </Choice>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

const Choice = ({ legend, children }: { legend: string; children: React.ReactNode }) => (
  <fieldset className="mb-3 last:mb-0">
    <legend className="mb-1 text-[12.5px] text-faint">{legend}</legend>
    {children}
  </fieldset>
);

function Option({
  name,
  label,
  on,
  onChoose,
  children,
}: {
  name: string;
  label: string;
  on: boolean;
  onChoose: () => void;
  children: React.ReactNode;
}) {
  return (
    <label
      title={label}
      className={`cursor-pointer border p-1 has-[:focus-visible]:outline-2 has-[:focus-visible]:outline-tide ${on ? 'border-tide' : 'border-transparent'}`}
    >
      <input type="radio" name={name} className="sr-only" aria-label={label} checked={on} onChange={onChoose} />
      {children}
    </label>
  );
}
