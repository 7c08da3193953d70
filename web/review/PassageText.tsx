import type { CardPassage, PassageBlock } from '@avrelle/core/wire';

interface Props {
  readonly passage: CardPassage;
  readonly language: string;
  readonly lifted: boolean;
  onLift(): void;
}

/** A passage in its place: what stands around it steps back, and words to be remembered lie under slips. */
export function PassageText({ passage, language, lifted, onLift }: Props) {
  return (
    <div className="font-read text-[18px] leading-[31px]" lang={language || undefined}>
      {passage.blocks.map((block) => (
        <Block key={block.start} block={block} passage={passage} lifted={lifted} onLift={onLift} />
      ))}
    </div>
  );
}

interface BlockProps extends Omit<Props, 'language'> {
  readonly block: PassageBlock;
}

function Block({ block, passage, lifted, onLift }: BlockProps) {
  const { kind } = passage;
  const look = kind ? { '--wash': `var(--${kind.pigment})`, '--line': `var(--${kind.pigment}-line)` } : {};
  const words = block.parts.map((part, n) => {
    const marked = part.marked && kind ? `line-${kind.line}` : '';
    if (part.slip === null)
      return (
        <span key={n} className={marked}>
          {part.text}
        </span>
      );
    if (lifted)
      return (
        <span key={n} className={`slip-lifted ${marked}`}>
          {part.text}
        </span>
      );
    return (
      <span key={n} className="slip" onClick={onLift}>
        <span className="sr-only"> (words under a slip) </span>
        <span aria-hidden="true">{part.text}</span>
      </span>
    );
  });
  const shade = block.holds ? '' : 'text-faint';
  return (
    <p
      dir="auto"
      style={look as React.CSSProperties}
      data-holds={block.holds || undefined}
      className={`mb-[15px] ${shade} ${block.isHeading ? 'text-[20px] font-semibold' : ''}`}
    >
      {words}
    </p>
  );
}
