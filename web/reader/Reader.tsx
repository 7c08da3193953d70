import { lazy, Suspense, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useLocation } from 'react-router';
import { findDirective, parseTextDirective, type Spot } from '@avrelle/core/anchor';
import type {Annotation, ClassRow, SourceDetail, SourceText, ClassId } from '@avrelle/core/wire';
import { useMe } from '../account/me';
import { slotOf } from '../data/unfinished';
import { useMessages } from '../ui/Messages';
import { Areas } from './regions/page/Areas';
import { AudienceMenu, SeenBy } from './regions/toolbar/AudienceMenu';
import { useAudienceChoice } from './session/audience-choice';
import { ColumnEdge } from './regions/page/ColumnEdge';
import { ListenBar } from './regions/notices/ListenBar';
import { ProgressMenu } from './regions/legend/ProgressMenu';
import { useFocusMode } from './session/use-focus';
import { useProgress } from './session/use-progress';
import { useReadingAloud } from './session/use-reading-aloud';
import { useType } from './document/use-type';
import { DrawingLayer } from './regions/drawing/DrawingLayer';
import { DrawingStrip } from './regions/legend/DrawingStrip';
import { useDrawing } from './drawing/use-drawing';
import { usePictures } from './drawing/use-pictures';
import { RangeHandles } from './regions/page/RangeHandles';
import { FindWithin } from './regions/notices/FindWithin';
import { useFittedWords } from './document/pdf/use-pages';
import { Frame } from './regions/page/Frame';
import { KeyProvider, useChosenKey } from './session/key';
import { KeysDialog } from './regions/dialogs/KeysDialog';
import { Legend } from './regions/legend/Legend';
import { MarginColumn } from './regions/margin/MarginColumn';
import { SourceLinks } from './regions/margin/LinkedFrom';
import { MarginHead } from './regions/margin/MarginHead';
import type { NoteActions } from './session/note-actions';
import { useChoosing } from './session/use-choosing';
import { Notices } from './regions/notices/Notices';
import type { StreamRange } from '../page/page-frame';
import { isOverPicture, type View } from './document/page-style';
import { Player, type PlayerHandle } from './regions/recording/Player';
import { Toolbar } from './regions/toolbar/Toolbar';
import { ShowMenu } from './regions/legend/ShowMenu';
import { matchesFilter, threads, type Order, type Filter } from './model/thread';
import { Minimap } from './regions/minimap/Minimap';
import { indexOf } from '../page/text-index';
import { reveal, useArrival } from './session/use-arrival';
import { useClicks } from './document/use-clicks';
import { useFrameSize } from './document/use-frame-size';
import { useKeyboard } from './session/use-keyboard';
import { useLayout } from './document/use-layout';
import { usePainted } from './document/use-painted';
import { useMarkAsISelect, useMarking } from './session/use-marking';
import { useAnnotationWriter } from './session/use-annotation-writer';
import { usePage } from './document/use-page';
import { usePlacing } from './session/use-placing';
import { usePrepared } from './document/use-prepared';
import type { Scroll } from './session/use-reading';
import { useSharing } from './session/use-sharing';
import { useUnfinishedNotes } from './session/use-unfinished-notes';
import { useNavigation } from './session/use-navigation';
import { useWide } from './document/use-wide';
import { SourceNavigation } from './regions/toolbar/SourceNavigation';

const PdfPages = lazy(() => import('./document/pdf/PdfPages'));
const KeyDialog = lazy(() => import('../key/KeyDialog'));

interface Props {
  readonly source: SourceDetail;
  readonly text: SourceText;
  readonly annotations: readonly Annotation[];
  readonly classes: readonly ClassRow[];
}

const LEAST_MARGIN = 200;

/** Moves too small to see on the spine, and within what is drawn ahead, are passed over. */
const worthTelling = (before: Scroll, top: number, height: number, pageHeight: number): boolean => before.height !== height || Math.abs(top - before.top) >= Math.min(height / 3, pageHeight / 1_000);

export function Reader({ source, text, annotations, classes }: Props) {
  const me = useMe();
  const wide = useWide(); const messages = useMessages();
  const [view, setView] = useState<View>(source.kind === 'pdf' && wide ? 'kept' : 'main');
  const [shown, setShown] = useState<Filter>({ whose: 'all' });
  const [order, setOrder] = useState<Order>('place');
  const [opened, setOpened] = useState<ReadonlySet<string>>(new Set());
  const [held, setHeld] = useState<string>();
  const [keysOpen, setKeysOpen] = useState(false);
  const [keyOpen, setKeyOpen] = useState(false);
  const [drawing, setDrawing] = useState(false);
  const [marking, setMarking] = useState(false);
  const [finding, setFinding] = useState(false);
  const player = useRef<PlayerHandle>(null);
  const [seen, setSeen] = useState<Scroll>({ top: 0, height: 600 });
  const scroller = useRef<HTMLDivElement>(null);

  const [type, setType] = useType(source.kind);
  const [focused, setFocused] = useFocusMode();
  const { hold, measure, zoom, setZoom, size } = useFrameSize(source, view);
  const { page, height, layout, onLoad } = usePage({ view, kind: source.kind, unit: size.unit, type }, size.scale);
  const drawn = isOverPicture({ view, kind: source.kind }); const isRecording = source.kind === 'audio' || source.kind === 'video';
  useFittedWords(page, size.unit, drawn);
  usePrepared(page, text);
  useEffect(() => { if (page && source.kind === 'pdf') measure(page.adapter.document); }, [page, source.kind, measure]);
  const { having, memberOf, share } = useSharing(source, classes);
  const [audience, setAudience] = useAudienceChoice(source.id, memberOf);
  const key = useChosenKey(audience, false);
  const marks = useAnnotationWriter(source, text, me, key);
  const { placed: all, unplaced } = useMemo(() => threads(annotations), [annotations]);
  const roots = useMemo(() => all.map((t) => t.root), [all]);
  const visible = useMemo(() => all.filter((t) => matchesFilter(t.root, shown, me.id)), [all, shown, me.id]);
  /** Those that mean the words they stand at; areas, points and moments are only tied to theirs, and what was deleted means nothing any more. */
  const inText = useMemo(() => visible.filter((t) => !t.root.anchor?.spot && !t.root.deleted), [visible]);
  const scroll = useCallback((): Scroll | undefined => scroller.current ? { top: scroller.current.scrollTop, height: scroller.current.clientHeight } : undefined, []);
  const goTo = useCallback((top: number) => scroller.current?.scrollTo({ top: Math.max(0, top) }), []);
  const open = useCallback((id: string) => { setOpened((before) => new Set([...before, id])); setHeld(id); }, []);
  const { placing, mayWrite, choose, putHere, leave, accept, copyAddress } = usePlacing({ source, text, annotations, marks, page });
  const spoken = useRef<HTMLParagraphElement>(null); const say = (words: string): void => { if (spoken.current) spoken.current.textContent = words; };
  const { draft, selection, mark, markAgain, write, writeAt, begin, setDown, copy, leaveDraft } = useMarking({ page, text: text.text, marks, threads: all, me: me.id, key, audience, scroller, placing, putHere, mayWrite, open, say,
    beginning: () => setFocused(false),
    hidden: (made) => (matchesFilter({ ...made, author: me, classIds: audience }, shown, me.id) ? undefined : () => setShown({ whose: 'all' })),
  });
  useMarkAsISelect(page, marking, markAgain);
  const { places, draftPlace, draftBox, blocks, laid } = useLayout(page, layout, visible, opened, draft);
  const unfinished = useUnfinishedNotes({ source, text, me: me.id, blocks, draft });
  const { step, walk, goToMark } = useNavigation({ source, text, page, blocks, threads: visible, places, opened, held, scroll, goTo, open, selection });
  /** Goes to an annotation of this source, wherever a note leads to it. */
  const follow = (id: string): boolean => {
    const thread = all.find((t) => t.root.id === id || t.replies.some((r) => r.id === id));
    if (thread) goToMark(thread.root.id);
    return thread !== undefined;
  };
  const here = useRef(follow);
  useEffect(() => { here.current = follow; });
  const { listening, listens, listen } = useReadingAloud({ source, text, page, blocks, scroll, goTo, selection });
  const progress = useProgress({ source, text, blocks, scroll });
  const ink = useDrawing({ page, blocks, language: source.language, marks, laid, kinds: key.kinds, audience, selection, mayWrite });
  const pictures = usePictures(source, page, visible, laid);
  const draw = (on: boolean): void => { if (!on || mayWrite()) { setDrawing(false); ink.turn(on); } };
  const choosing = useChoosing(visible, me.id, marks);

  usePainted(page, inText, opened, blocks, seen);
  const findPassage = useCallback((passage: string) => { const directive = parseTextDirective(passage); return directive && findDirective(indexOf(text), directive); }, [text]);
  useArrival({ page, layout, places, goTo, open, find: findPassage, source });

  const drawAt = (spot: Spot, about: StreamRange): void => { setDrawing(false); writeAt(spot, about); };
  const letGo = (): void => { leave(); setDrawing(false); ink.turn(false); setFocused(false); choosing.end(); page?.adapter.select(undefined); page?.painter.found(undefined); setOpened(new Set()); setHeld(undefined); };
  const openThread = all.find((t) => t.root.id === held && opened.has(t.root.id) && t.root.author.id === me.id && !t.root.deleted); const openMine = openThread?.root;
  useKeyboard(page, key.kinds, {
    selecting: () => Boolean(selection()), mark, markAgain: () => (ink.on ? ink.onWords() : markAgain()), write, step, walk, letGo, undo: marks.undo, redo: marks.redo,
    rekind: (kind) => { if (openMine) void marks.change(openMine, { kind: kind.code }, `made a ${kind.name.toLowerCase()}`); return Boolean(openMine); },
    remove: () => (ink.on ? ink.remove() : openMine && marks.remove([openMine])), showKeys: () => setKeysOpen(true), area: () => setDrawing((on) => !on), draw: () => draw(!ink.on),
    hold: ink.on ? ink.holdBy : undefined, find: () => setFinding(true), player: () => player.current,
    markAsISelect: () => setMarking((on) => !on), focus: () => setFocused(!focused), listen: () => listen(!listens), ends: (edge) => document.querySelector<HTMLElement>(`[data-edge=${edge}]`)?.focus({ preventScroll: true }),
  });
  const press = useClicks({ page, visible: inText, laid, opened, held, setOpened, setHeld });

  const menu = useCallback((label: string, classIds: readonly ClassId[], onChoose: (ids: readonly string[]) => void, small = false) =>
    <AudienceMenu label={label} classIds={classIds} classes={classes} having={having} maySource={source.owned} onChoose={onChoose} small={small} />, [classes, having, source.owned]);
  const actions = useMemo((): NoteActions => {
    const change: NoteActions['change'] = async (a, fields, words) => (fields.classIds ? await share(fields.classIds) : true) && marks.change(a, fields, words);
    return {
      change, slot: (purpose) => slotOf(me.id, source.id, purpose), discarded: (restore) => messages.tell('Unfinished note discarded.', { label: 'Undo', run: restore }), remove: marks.remove, reply: marks.reply, choosePlace: choose, choose: choosing.toggle, follow: (id) => here.current(id), downloadArea: pictures.downloadArea,
      toggle: (id) => { setOpened((before) => { const after = new Set(before); if (!after.delete(id)) after.add(id); return after; }); setHeld(id); },
      audienceOf: (a) => (a.author.id === me.id ? menu('Seen by', a.classIds, (ids) => void change(a, { classIds: [...ids] }, 'audience changed'), true) : <SeenBy classIds={a.classIds} classes={classes} />),
      ...(isRecording ? { playFrom: (seconds: number) => player.current?.playFrom(seconds) } : {}), ...(source.address ? { copyAddress } : {}),
    };
  }, [marks, share, choose, choosing.toggle, menu, classes, me.id, copyAddress, pictures.downloadArea, source.id, source.address, isRecording, messages]);
  const chooseAudience = async (classIds: readonly ClassId[]): Promise<void> => { if (await share(classIds)) setAudience(classIds); };
  const forAll = async (classIds: readonly ClassId[]): Promise<void> => { if (await share(classIds)) choosing.change(() => ({ classIds }), 'given another audience'); };

  const room = page?.adapter.document.documentElement.clientWidth ?? 0; const columnRight = Math.min(Math.max(0, (room - type.measure - 300) / 2) + 72 + type.measure, Math.max(0, room - 24));
  const fromClass = useLocation().state as { back?: { to: string; words: string } } | null;
  return (
    <KeyProvider value={key}>
      <main className="grid h-full min-h-0 grid-rows-[auto_auto_1fr_auto]">
        <Toolbar source={source} view={view} onView={setView} {...(drawn ? { zoom, onZoom: setZoom } : {})} back={fromClass?.back ?? { to: '/library', words: 'Library' }} within={<SourceNavigation source={source} text={text} view={view} type={type} finding={finding} listens={isRecording || source.kind === 'image' ? undefined : listens} onGo={(block) => goTo((page?.adapter.boxes(block)[0]?.top ?? 0) - 24)} onFind={setFinding} onListen={listen} onType={setType} onFocus={() => setFocused(true)} />}
          {...(pictures.downloadPicture ? { onPicture: pictures.downloadPicture } : {})} audience={menu('Writing for', audience, (ids) => void chooseAudience(ids))} />
        <div>{listens && <ListenBar listening={listening} language={source.language} onClose={() => listen(false)} />}{finding && <FindWithin text={text.text} outline={text.outline} showWhole={view === 'main' && (source.kind === 'page' || source.kind === 'letter') ? () => setView('kept') : undefined} onClose={() => setFinding(false)} onShow={(range) => { page?.painter.found(range); if (range) reveal(page?.adapter.boxes(range)[0]?.top, scroll(), goTo); }} />}<Notices source={source} text={text.text} me={me.id} unplaced={unplaced} placing={placing} page={page} onPutHere={putHere} onCancel={leave} onChoose={choose} onAccept={accept}
          onShow={(range) => { page?.painter.found(range); goTo((page?.adapter.boxes(range)[0]?.top ?? 0) - 120); }} /></div>
        <div className="grid min-h-0 grid-rows-[minmax(0,1fr)] grid-cols-[96px_1fr] max-[900px]:grid-cols-1 [[data-focus]_&]:grid-cols-1">
          <Minimap blocks={blocks} spans={progress.spans} threads={visible} places={places} pageHeight={height} view={seen} text={text.text} onGo={goTo} />
          <div className="grid min-h-0 min-w-0 grid-rows-[auto_minmax(0,1fr)]">
            {isRecording ? <Player ref={player} source={source} page={page} threads={visible} onMark={(stretch, block) => writeAt({ type: 'time', ...stretch }, block)} onOpen={goToMark} onFollow={(block) => reveal(page?.adapter.boxes(block)[0]?.top, scroll(), goTo)} /> : <span />}
            <div ref={scroller} className="relative min-h-0 overflow-y-auto overflow-x-hidden bg-sheet" onScroll={(e) => { const { scrollTop: top, clientHeight } = e.currentTarget; setSeen((before) => (worthTelling(before, top, clientHeight, height) ? { top, height: clientHeight } : before)); }}>
              <div className="relative grid min-h-full grid-cols-[1fr_360px] max-[900px]:grid-cols-1 [[data-focus]_&]:grid-cols-1" style={{ minHeight: `max(100%, ${Math.max(height, LEAST_MARGIN)}px)` }}>
                <Frame source={source} size={size} height={height} hold={hold} open={page !== undefined} shown={layout > 0} onLoad={onLoad} theme={type.paper === 'as Avrelle' ? undefined : type.paper}>
                  {page && view === 'main' && <ColumnEdge right={columnRight} type={type} onType={setType} />}
                  {drawn && <PdfPages address={`/files/${source.versionId}`} password={source.facts.password} page={page} layout={layout} seen={seen} />}
                  <Areas page={page} layout={layout} threads={visible} opened={opened} drawing={drawing} draft={draftBox} onOpen={open} onDrawn={drawAt} onOverWords={(from, to) => { const made = ink.areaOverWords(from, to); if (made) drawAt(made.spot, made.range); }} />
                  <DrawingLayer drawing={ink} laid={laid} me={me.id} opened={opened} onOpen={open} />
                  {page && openThread && inText.includes(openThread) && source.versionNumber === source.newest && <RangeHandles key={openThread.root.id} page={page} layout={layout} thread={openThread} text={text} language={source.language} onPress={press} onMove={(range) => marks.move(openThread.root, range)} />}
                </Frame>
                <MarginColumn wide={wide} height={height} view={seen} turn={columnRight + 18} threads={visible} places={places} opened={opened} held={held} order={order} chosen={choosing.ids} draft={draft} draftPlace={draftPlace} me={me.id} sourceId={source.id} actions={actions} pageLoaded={layout > 0}
                  head={(notes) => <MarginHead links={<SourceLinks sourceId={source.id} onFollow={actions.follow} />} unfinished={unfinished.length} onUnfinished={() => goTo((unfinished[0]?.top ?? 0) - 120)} shown={notes} order={order} onOrder={setOrder} onWhole={() => { const first = text.outline[0]; if (first) writeAt({ type: 'whole' }, first); }} choosing={choosing} audienceOf={(chosen) => menu('Seen by', chosen[0]?.classIds ?? [], (ids) => void forAll(ids), true)} />}
                  draftAudience={menu('For', audience, (ids) => void chooseAudience(ids), true)} unfinished={unfinished} onContinue={({ range, purpose }) => { if (mayWrite()) begin(range, purpose.type === 'note' ? purpose.spot : undefined); }} onSetDown={setDown} onLeave={leaveDraft} onWholePage={() => setView('kept')} />
              </div>
            </div>
          </div>
        </div>
        {ink.on ? <DrawingStrip drawing={ink} page={page} onUndo={marks.undo} /> : <Legend page={page} onKind={mark} onCopy={copy} onKey={() => setKeyOpen(true)} onKeys={() => setKeysOpen(true)} marking={marking} onMarking={setMarking} onDraw={() => draw(true)} drawing={drawing} onDrawing={setDrawing}>
          <ShowMenu shown={shown} marks={roots} classes={classes} me={me.id} onShow={setShown} />
          <ProgressMenu share={progress.share} minutesLeft={progress.minutesLeft} onCorrect={progress.setRight} />
        </Legend>}
        {focused && <button className="fixed bottom-3 right-5 z-30 text-[13px] text-faint hover:text-ink" onClick={() => setFocused(false)}>Show the rest (Esc)</button>}
        <p ref={spoken} className="sr-only" role="status" />
        <KeysDialog open={keysOpen} kinds={key.kinds.length} onOpenChange={setKeysOpen} />
        {keyOpen && <Suspense><KeyDialog open onOpenChange={setKeyOpen} ownerId={key.className === null ? undefined : key.ownerId} /></Suspense>}
      </main>
    </KeyProvider>
  );
}
