import { useImperativeHandle, useMemo, useRef, useState, type Ref, type SyntheticEvent } from 'react';
import { heardTo } from '@avrelle/core/reading';
import { clockTime, type Block, type Outline } from '@avrelle/core/text';
import type { SourceDetail, AnnotationId } from '@avrelle/core/wire';
import type { Thread } from '../../model/thread';
import type { PlayerHandle } from '../../session/player-handle';
import type { OpenPage } from '../../document/use-page';
import { Timeline, type TimedMark } from './Timeline';
import { lineAt, stretchOf, type Stretch } from './times';
import { useHeard } from './use-heard';
import { useSpoken, useTimeClicks } from './use-spoken';

interface Props {
  readonly source: SourceDetail;
  /** Whether it is heard in order: ahead only to where it was heard. */
  readonly isOrdered: boolean;
  readonly page: OpenPage | undefined;
  readonly threads: readonly Thread[];
  /** Scrolls a passage into view. */
  onFollow(block: Block): void;
  /** A note at a moment or on a stretch; the block is what is said there, or the title. Absent where it is only heard. */
  readonly onMark: ((stretch: Stretch, block: Block) => void) | undefined;
  onOpen(annotationId: AnnotationId): void;
}

const BACK = 5;
const SPEEDS = [0.75, 1, 1.25, 1.5, 2] as const;
/** Finer than anybody can press a key. */
const tenths = (seconds: number): number => Math.round(seconds * 10) / 10;

/** Playing a recording, as its element tells of it. */
function usePlayback({ source, isOrdered }: Props) {
  const media = useRef<HTMLVideoElement>(null);
  const [now, setNow] = useState(0);
  const [length, setLength] = useState(source.facts.seconds ?? 0);
  const [playing, setPlaying] = useState(false);
  const [speed, setSpeed] = useState<number>(1);
  const [wrong, setWrong] = useState(false);
  const listening = useHeard(source, isOrdered, media);
  /** Asked of the recording itself: what is shown is up to a quarter of a second old, and keys come faster than it tells. */
  const moment = (): number => media.current?.currentTime ?? now;
  const seek = (seconds: number): void => {
    const to = listening.goTo(Math.min(Math.max(0, seconds), length || seconds));
    if (media.current) media.current.currentTime = to;
    // The recording tells of it later; the next key goes on from here.
    setNow(to);
  };
  const toggle = (): void => {
    if (media.current?.paused) void media.current.play().catch(() => setWrong(true));
    else media.current?.pause();
  };
  return {
    ...{ now, length, playing, speed, wrong, moment, seek, toggle },
    heard: listening.heard,
    step: (by: number): void => seek(moment() + by),
    playFrom: (seconds: number): void => {
      seek(seconds);
      if (media.current?.paused) toggle();
    },
    nextSpeed: (): void => {
      const next = SPEEDS[(SPEEDS.findIndex((s) => s === speed) + 1) % SPEEDS.length]!;
      setSpeed(next);
      if (media.current) media.current.playbackRate = next;
    },
    /** For the element that plays. */
    element: {
      ref: media,
      onClick: toggle,
      onTimeUpdate: (e: MediaEvent) => {
        setNow(e.currentTarget.currentTime);
        listening.element.onTimeUpdate();
      },
      onSeeking: listening.element.onSeeking,
      onSeeked: (e: MediaEvent) => setNow(e.currentTarget.currentTime),
      onLoadedMetadata: (e: MediaEvent) =>
        Number.isFinite(e.currentTarget.duration) && setLength(e.currentTarget.duration),
      onPlay: () => {
        setPlaying(true);
        listening.element.onPlay();
      },
      onPause: () => {
        setPlaying(false);
        listening.element.onPause();
      },
      onError: () => setWrong(true),
    },
  };
}
type MediaEvent = SyntheticEvent<HTMLVideoElement>;
type Playback = ReturnType<typeof usePlayback>;

/** Notes at a moment, and on a stretch from where it was begun. */
function useNoting({ page, onMark }: Props, { moment }: Playback) {
  const [begun, setBegun] = useState<number>();
  const outline = page?.adapter.stream.outline;
  const note = (from: number, to: number): void => {
    const block = outline && (lineAt(outline, from) ?? outline[0]);
    if (block) onMark?.({ from: tenths(from), to: tenths(to) }, block);
  };
  return {
    begun,
    mark: (): void => note(moment(), moment()),
    stretch: (): void => {
      const at = moment();
      if (begun === undefined) return setBegun(at);
      setBegun(undefined);
      note(Math.min(begun, at), Math.max(begun, at));
    },
  };
}

/** When each of the threads is heard. */
const timed = (outline: Outline | undefined, threads: readonly Thread[]): readonly TimedMark[] =>
  threads.flatMap((thread): TimedMark[] => {
    const heard = outline && stretchOf(outline, thread.range, thread.root.anchor?.spot);
    return heard ? [{ thread, ...heard }] : [];
  });

/** The recording above its words: what is spoken is followed on the page, and what is marked is seen on its timeline. */
export function Player({ ref, ...props }: Props & { readonly ref: Ref<PlayerHandle> }) {
  const { source, page, threads, onFollow, onOpen } = props;
  const playback = usePlayback(props);
  const noting = useNoting(props, playback);
  const { now, length, playing, seek, step, toggle, playFrom } = playback;
  const { begun, mark, stretch } = noting;
  const back = (): void => step(-BACK);
  useSpoken(page, now, playing, onFollow);
  useTimeClicks(page, playFrom);
  useImperativeHandle(ref, () => ({ playFrom, toggle, back, mark, stretch }));
  const marks = useMemo(() => timed(page?.adapter.stream.outline, threads), [page, threads]);
  return (
    <section
      aria-label="Recording"
      className="flex flex-wrap items-center gap-x-5 gap-y-1 border-b border-rule bg-paper px-6 py-2 text-[14px] max-[900px]:px-3"
    >
      {/* One element for sound and film: a film without a picture is sound. Its words stand below. */}
      <video
        {...playback.element}
        src={`/files/${source.versionId}`}
        preload="metadata"
        aria-label={source.title}
        hidden={source.kind === 'audio'}
        className="max-h-[34vh] max-w-full"
      />
      <button className="press min-w-[84px]" title="Space" onClick={toggle}>
        {playing ? 'Pause' : 'Play'}
      </button>
      <button className="act whitespace-nowrap" title={`Back ${BACK} seconds (b)`} onClick={back}>
        Back {BACK} s
      </button>
      {props.onMark && (
        <>
          <button className="act whitespace-nowrap" title="A note at this moment (m)" onClick={mark}>
            Note this moment
          </button>
          <StretchButton begun={begun} onPress={stretch} />
        </>
      )}
      <Timeline
        length={length}
        now={now}
        marks={marks}
        begun={begun}
        heardTo={props.isOrdered ? heardTo(playback.heard) : undefined}
        onSeek={seek}
        onStep={step}
        onOpen={({ thread, from }) => {
          seek(from);
          onOpen(thread.root.id);
        }}
      />
      <span className="whitespace-nowrap tabular-nums text-soft">
        {clockTime(now)} of {clockTime(length)}
      </span>
      <button className="whitespace-nowrap text-soft hover:text-ink" title="Speed" onClick={playback.nextSpeed}>
        {playback.speed} ×
      </button>
      {props.isOrdered && <Ahead heardTo={heardTo(playback.heard)} length={length} />}
      <Troubles wrong={playback.wrong} mute={source.facts.transcript === false} />
    </section>
  );
}

function StretchButton({ begun, onPress }: { readonly begun: number | undefined; readonly onPress: () => void }) {
  const [title, words] =
    begun === undefined
      ? ['Marks from here to where you press it again (s)', 'Begin a stretch']
      : ['Ends the stretch with a note (s)', `End the stretch from ${clockTime(begun)}`];
  return (
    <button className="act whitespace-nowrap" title={title} onClick={onPress}>
      {words}
    </button>
  );
}

/** How far one may go ahead in what is heard in order. */
function Ahead({ heardTo, length }: { readonly heardTo: number; readonly length: number }) {
  return (
    <span className="basis-full text-[13px] text-soft">
      {heardTo < Math.floor(length)
        ? `Your class hears it in order: you can go back, and ahead to ${clockTime(heardTo)}, as far as you have heard.`
        : 'You have heard it to the end.'}
    </span>
  );
}

function Troubles({ wrong, mute }: { readonly wrong: boolean; readonly mute: boolean }) {
  return (
    <>
      {wrong && (
        <span role="alert" className="text-brick">
          This browser cannot play the file. Its words can be read all the same.
        </span>
      )}
      {mute && (
        <span className="basis-full text-[13px] text-soft">
          It has no transcript. Upload one (WebVTT, SRT, or text with times) from the menu of versions above.
        </span>
      )}
    </>
  );
}
