import { Slider } from 'radix-ui';
import { Sign } from '../../../ui/Sign';
import { useDocument } from '../../document/document-context';
import { useSelecting } from '../../document/use-selection';
import { cssColour, HELD, HELD_HINTS, HELD_WORDS, SWATCHES, WIDTHS } from '../../drawing/tools';
import { useSession } from '../../session/reader-context';
import { useTools } from '../../session/tools-context';

const PART = 'flex items-center border-l border-rule pl-3';

/** In place of the Legend while one draws: tools by their digits, colours, width, and what can be done with what is chosen. */
export function DrawingStrip() {
  const { tool, chosen } = useTools().drawing;
  const at = chosen ? chosen.spot.tool : tool;
  const coloured = at !== 'eraser' && at !== 'sign' && at !== 'move';
  return (
    <footer
      className="steps-back flex h-[50px] items-center gap-4 whitespace-nowrap border-t-2 border-tide bg-sheet px-6 text-[14px] max-[900px]:px-3"
      aria-label="Drawing"
    >
      <div className="flex h-full min-w-0 flex-1 items-center gap-4 overflow-x-auto">
        <ToolChoice />
        {tool === 'sign' && !chosen && <SignChoice />}
        {coloured && <ColourChoice />}
        {at !== 'move' && <WidthChoice />}
      </div>
      <Actions />
    </footer>
  );
}

function ToolChoice() {
  const { tool, hold } = useTools().drawing;
  return (
    <div role="radiogroup" aria-label="Drawing tools" className="flex items-center">
      {HELD.map((held, n) => (
        <button
          key={held}
          role="radio"
          aria-checked={held === tool}
          title={`${HELD_HINTS[held]} (${(n + 1) % 10})`}
          onClick={() => hold(held)}
          className={`px-[7px] py-1 ${held === tool ? 'border-b-2 border-tide font-semibold text-ink' : 'text-soft hover:text-ink'}`}
        >
          {HELD_WORDS[held]}
          <small aria-hidden="true" className="pl-[3px] text-[12px] font-normal text-faint max-[1100px]:hidden">
            {(n + 1) % 10}
          </small>
        </button>
      ))}
    </div>
  );
}

function SignChoice() {
  const { kinds } = useSession().legend;
  const { sign, setSign } = useTools().drawing;
  return (
    <div role="radiogroup" aria-label="Sign" className={PART}>
      {kinds.map((kind) => (
        <button
          key={kind.code}
          role="radio"
          aria-checked={kind.code === sign.code}
          title={kind.name}
          onClick={() => setSign(kind.code)}
          className={`grid size-[26px] place-items-center ${kind.code === sign.code ? 'border border-tide' : ''}`}
        >
          <Sign kind={kind} className="text-[16px]" />
        </button>
      ))}
    </div>
  );
}

const FIRST_OWN = '#0e5a60';

function ColourChoice() {
  const { colour, setColour } = useTools().drawing;
  const own = colour.startsWith('#') ? colour : undefined;
  return (
    <div role="radiogroup" aria-label="Colour" className={PART}>
      {SWATCHES.map((swatch) => (
        <button
          key={swatch}
          role="radio"
          aria-checked={swatch === colour}
          aria-label={swatch}
          title={swatch}
          onClick={() => setColour(swatch)}
          className="grid size-[24px] place-items-center"
        >
          <span
            className={`block ${swatch === colour ? 'size-[20px] outline-2 outline-offset-1 outline-tide outline' : 'size-[14px]'}`}
            style={{ background: cssColour(swatch) }}
          />
        </button>
      ))}
      <label
        title="A colour of one’s own"
        className={`relative ml-1 grid size-[24px] cursor-pointer place-items-center text-[16px] text-soft hover:text-ink ${own ? 'outline-2 outline-tide outline' : ''}`}
        style={own ? { background: own } : undefined}
      >
        <span aria-hidden="true">{own ? '' : '+'}</span>
        <input
          type="color"
          aria-label="A colour of one’s own"
          value={own ?? FIRST_OWN}
          onChange={(e) => setColour(e.target.value)}
          className="absolute inset-0 cursor-pointer opacity-0"
        />
      </label>
    </div>
  );
}

function WidthChoice() {
  const { tool, chosen, width, setWidth } = useTools().drawing;
  const [least, most] = WIDTHS[chosen ? chosen.spot.tool : tool];
  const sized = tool === 'text' || tool === 'sign' || (chosen?.lines.length ?? 0) > 0;
  // What is drawn already is changed once, when the hand lets go.
  const value = chosen
    ? { defaultValue: [Math.round(width)], onValueCommit: ([to]: number[]) => setWidth(to!) }
    : { value: [width], onValueChange: ([to]: number[]) => setWidth(to!) };
  return (
    <label className={`gap-2 text-[13px] text-soft ${PART}`}>
      {sized ? 'Size' : 'Width'}
      <Slider.Root
        key={chosen?.thread.root.id ?? tool}
        min={least}
        max={most}
        step={1}
        {...value}
        className="relative flex h-5 w-[84px] touch-none select-none items-center"
      >
        <Slider.Track className="relative h-[3px] grow bg-rule">
          <Slider.Range className="absolute h-full bg-tide" />
        </Slider.Track>
        <Slider.Thumb
          aria-label={chosen ? 'Width of the drawing' : 'Width'}
          className="grid place-items-center before:h-[14px] before:w-[6px] before:bg-tide before:content-['']"
        />
      </Slider.Root>
      <span className="w-[22px] tabular-nums">{Math.round(width)}</span>
    </label>
  );
}

function Actions() {
  const { writer } = useSession();
  const { drawing } = useTools();
  const selecting = useSelecting(useDocument().page);
  const { tool, chosen } = drawing;
  return (
    <div className="flex items-center gap-4">
      {selecting && tool !== 'move' && tool !== 'eraser' && tool !== 'text' && (
        <button
          className="act"
          title="Draw it on the selected words (Enter)"
          onMouseDown={(e) => e.preventDefault()}
          onClick={drawing.onWords}
        >
          On the selected words
        </button>
      )}
      {chosen && (
        <button className="font-semibold text-brick hover:underline" onClick={drawing.remove}>
          Delete
        </button>
      )}
      <button className="text-soft hover:text-ink" title="Undo (Ctrl Z)" onClick={writer.undo}>
        Undo
      </button>
      <button className="press" title="Back to marking (Esc)" onClick={drawing.end}>
        Done
      </button>
    </div>
  );
}
