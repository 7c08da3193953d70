import { Slider } from 'radix-ui';
import { clockTime } from '@avrelle/core/text';
import type { Kind } from '@avrelle/core/legend';
import type { Thread } from '../../model/thread';
import type { Stretch } from './times';

export interface TimedMark extends Stretch {
  readonly thread: Thread;
}

interface Props {
  readonly length: number;
  readonly now: number;
  readonly marks: readonly TimedMark[];
  /** Where a stretch that is being marked began. */
  readonly begun: number | undefined;
  /** Of what is heard in order, to where it was heard. */
  readonly heardTo: number | undefined;
  onSeek(seconds: number): void;
  /** By so many seconds from where it stands. */
  onStep(by: number): void;
  onOpen(mark: TimedMark): void;
}

/** The recording from beginning to end: where it stands, and what is marked in it. */
export function Timeline({ length, now, marks, begun, heardTo, onSeek, onStep, onOpen }: Props) {
  const whole = Math.max(1, length);
  const at = Math.min(now, whole);
  const share = (seconds: number): string => `${(100 * Math.min(seconds, whole)) / whole}%`;
  return (
    <div className="relative h-[26px] min-w-[120px] flex-1">
      <Slider.Root
        min={0}
        max={whole}
        step={0.1}
        value={[at]}
        onValueChange={([seconds]) => onSeek(seconds!)}
        className="absolute inset-x-0 top-[15px] flex h-[10px] touch-none select-none items-center"
        onKeyDown={(e) => {
          const by = STEPS[e.key];
          if (by !== undefined) {
            e.preventDefault();
            onStep(by);
          }
        }}
      >
        <Slider.Track className="relative h-[3px] grow bg-rule">
          {heardTo !== undefined && (
            <span className="absolute h-full bg-[var(--strand)]" style={{ width: share(heardTo) }} />
          )}
          <Slider.Range className="absolute h-full bg-tide" />
        </Slider.Track>
        <Slider.Thumb
          aria-label="Moment"
          aria-valuetext={`${clockTime(now)} of ${clockTime(length)}`}
          className="grid place-items-center before:h-[14px] before:w-[5px] before:bg-tide before:content-['']"
        />
      </Slider.Root>
      {begun !== undefined && (
        <span
          aria-hidden="true"
          className="pointer-events-none absolute top-[13px] h-[14px] border-l-2 border-tide bg-wash opacity-70"
          style={{ left: share(begun), width: share(Math.max(0, now - begun)) }}
        />
      )}
      {marks.map((mark) => (
        <Tick
          key={mark.thread.root.id}
          mark={mark}
          kind={mark.thread.root.kind}
          left={share(mark.from)}
          width={share(mark.to - mark.from)}
          onOpen={onOpen}
        />
      ))}
    </div>
  );
}

/** Seconds to a key: the arrows are fine enough to find a word. */
const STEPS: Readonly<Record<string, number>> = {
  ArrowLeft: -1,
  ArrowRight: 1,
  ArrowDown: -1,
  ArrowUp: 1,
  PageDown: -10,
  PageUp: 10,
};

function Tick({
  mark,
  kind,
  left,
  width,
  onOpen,
}: {
  mark: TimedMark;
  kind: Kind;
  left: string;
  width: string;
  onOpen: (mark: TimedMark) => void;
}) {
  const words = `${kind.name} at ${clockTime(mark.from)}`;
  return (
    <>
      <span
        aria-hidden="true"
        className="pointer-events-none absolute top-0 h-[13px] min-w-[3px]"
        style={{ left, width, background: `var(--${kind.pigment}-line)` }}
      />
      {/* Wider than what is seen, and no higher: the line of time below it stays free. */}
      <button
        aria-label={words}
        title={words}
        onClick={() => onOpen(mark)}
        className="absolute top-0 h-[13px] min-h-0 -translate-x-[10px]"
        style={{ left, width: `calc(${width} + 20px)` }}
      />
    </>
  );
}
