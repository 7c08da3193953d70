import webvtt, { type WebVTTParser } from 'webvtt-parser';
import { clockTime } from '@avrelle/core/text';
import { AppError } from '../../errors';
import { AssetCollector } from '../assets';
import { decodeText } from '../decode-text';
import { escapeHtml } from '../documents';
import type { Got } from '../got';
import { titleOf, type ReadyPage, type Tools } from '../made';

/** Words with the time they are spoken, in seconds. */
export interface Cue {
  readonly from: number;
  readonly to: number;
  readonly speaker: string;
  readonly text: string;
}

/** A recording: the player is the reader's own, the text is its transcript, a paragraph a cue. */
export function readRecording(got: Got, mediaType: string, kind: 'audio' | 'video', { transcript }: Tools): ReadyPage {
  const cues = transcript ? readTranscript(decodeText(transcript.bytes, transcript.name), transcript.name) : [];
  const title = titleOf(got.name);
  const seconds = cues.at(-1)?.to;
  const said = cues.map((cue, n) => cueHtml(cue, cues[n - 1])).join('\n');
  const body = `<main><h1>${escapeHtml(title)}</h1>${said}</main>`;
  return {
    form: 'ready',
    kind,
    body,
    collector: new AssetCollector(undefined),
    meta: { title },
    file: { bytes: got.bytes, mediaType },
    facts: { transcript: cues.length > 0, ...(seconds ? { seconds } : {}) },
  };
}

function cueHtml(cue: Cue, before: Cue | undefined): string {
  const speaker = cue.speaker && cue.speaker !== before?.speaker ? `<b>${escapeHtml(cue.speaker)}:</b> ` : '';
  return `<p data-avrelle-from="${round(cue.from)}" data-avrelle-to="${round(cue.to)}" data-avrelle-clock="${clockTime(cue.from)}">${speaker}${escapeHtml(cue.text)}</p>`;
}

const round = (seconds: number): number => Math.round(seconds * 1000) / 1000;

function cuesOf(lines: string, name: string): readonly Cue[] {
  if (/^WEBVTT/.test(lines)) return fromVtt(lines, name);
  if (!/-->/.test(lines)) return fromPlainText(lines);
  return fromVtt(`WEBVTT\n\n${lines.replace(/(\d{1,2}:\d{2}:\d{2}),(\d{3})/g, '$1.$2')}`, name);
}

/** WebVTT, SubRip, or plain text whose lines begin with a time. Throws `bad_transcript` with the line at fault. */
export function readTranscript(text: string, name: string): readonly Cue[] {
  const lines = text.replace(/^\uFEFF/, '').replace(/\r\n?/g, '\n');
  const cues = cuesOf(lines, name);
  if (cues.length === 0)
    throw new AppError('bad_transcript', { name, reason: 'no line of it begins with a time' }, { field: 'file' });
  return cues;
}

type VttNode = ReturnType<WebVTTParser['parse']>['cues'][number]['tree'];

/** WebVTT 6.4: the character references a cue's text may hold. */
const ENTITIES = { '&amp;': '&', '&lt;': '<', '&gt;': '>', '&lrm;': '\u200e', '&rlm;': '\u200f', '&nbsp;': '\u00a0' };

/** By the parser of the W3C's own validator. What it can still read counts; a file with no cue says its first fault. */
function fromVtt(text: string, name: string): Cue[] {
  const { cues, errors } = new webvtt.WebVTTParser(ENTITIES).parse(text, 'subtitles/captions/descriptions');
  if (cues.length === 0 && errors[0])
    throw new AppError(
      'bad_transcript',
      { name, reason: `line ${errors[0].line}: ${errors[0].message}` },
      { field: 'file' },
    );
  return cues
    .map(({ startTime, endTime, tree }) => ({
      from: startTime,
      to: Math.max(startTime, endTime),
      speaker: voiceOf(tree),
      text: textOf(tree).replace(/\s+/g, ' ').trim(),
    }))
    .filter((cue) => cue.text !== '');
}

function textOf(node: VttNode): string {
  if (node.type === 'text') return node.value ?? '';
  if (node.type === 'object' && node.name === 'rt') return '';
  return (node.children ?? []).map(textOf).join('');
}
function voiceOf(node: VttNode): string {
  if (node.name === 'v') return node.value ?? '';
  for (const child of node.children ?? []) {
    const voice = voiceOf(child);
    if (voice) return voice;
  }
  return '';
}

const TIMED = /^\s*[[(]?(?:(\d{1,2}):)?(\d{1,2}):(\d{2})(?:[.,](\d{1,3}))?[\])]?\s*[-–:]?\s*(.*)$/;

/** Lines as `[1:05] words`; lines without a time go on with the words before them. */
function fromPlainText(text: string): Cue[] {
  const cues: { from: number; words: string[] }[] = [];
  for (const line of text.split('\n')) {
    const [, hours = '0', minutes, seconds, part = '', words = ''] = TIMED.exec(line) ?? [];
    if (minutes !== undefined)
      cues.push({
        from: Number(hours) * 3600 + Number(minutes) * 60 + Number(seconds) + Number(`0.${part || 0}`),
        words: [words],
      });
    else if (line.trim()) cues.at(-1)?.words.push(line.trim());
  }
  return cues
    .map(({ from, words }, n) => ({
      from,
      to: Math.max(from, cues[n + 1]?.from ?? from + 5),
      speaker: '',
      text: words.join(' ').trim(),
    }))
    .filter((cue) => cue.text !== '');
}
