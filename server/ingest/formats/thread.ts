import { mf2 } from 'microformats-parser';
import { escapeHtml, page } from '../documents';
import { readDate, readMetadata, type Metadata } from '../metadata';
import { select, serializeTree, type PageTree } from '../page-tree';

type Item = ReturnType<typeof mf2>['items'][number];

interface Post {
  readonly author: string;
  readonly at: string | null;
  readonly content: string;
  readonly length: number;
  readonly address: string;
}

const LONGEST_POST = 2_500;
const LEAST_POSTS = 2;

/**
 * A page that is a thread of short posts: at least two entries of microformats2 (h-entry), all short, without names of
 * their own. Its posts in order of time, each with author and time. Undefined for any other page.
 */
export function readThread(
  tree: PageTree,
  address: string,
): { readonly html: string; readonly meta: Partial<Metadata> } | undefined {
  if (select(tree, '.h-entry').length < LEAST_POSTS) return undefined;
  const items = mf2(serializeTree(tree), { baseUrl: address }).items;
  const feed = items.find((item) => item.type?.includes('h-feed'));
  const feedAuthor = feed && authorOf(feed);
  const entries = entriesIn(feed?.children ?? items);
  const posts = entries.map((entry) => readPost(entry, feedAuthor ?? ''));
  if (posts.length < LEAST_POSTS || !posts.every((post, n) => post.length <= LONGEST_POST && !named(entries[n]!)))
    return undefined;
  const meta = readMetadata(tree, address);
  const name = feed && wordsOf(feed, 'name');
  return written(
    [...posts].sort((a, b) => (a.at ?? '').localeCompare(b.at ?? '')),
    meta,
    name,
  );
}

/** A page of posts in their order. */
function written(posts: readonly Post[], meta: Metadata, name = ''): { html: string; meta: Partial<Metadata> } {
  const authors = [...new Set(posts.map((post) => post.author).filter(Boolean))].join('; ');
  const title = name || meta.title || `Thread by ${authors}`;
  const body = `<main><h1>${escapeHtml(title)}</h1>${posts.map(postHtml).join('\n')}</main>`;
  return {
    html: page(title, body, '', meta.language),
    meta: { ...meta, title, author: authors || meta.author, publishedAt: posts[0]?.at ?? meta.publishedAt },
  };
}

/** Entries with the answers that stand inside them. */
const entriesIn = (items: readonly Item[]): Item[] =>
  items
    .filter((item) => item.type?.includes('h-entry'))
    .flatMap((entry) => [
      entry,
      ...entriesIn(entry.children ?? []),
      ...entriesIn((entry.properties.comment ?? []).filter(isItem)),
    ]);

const isItem = (value: unknown): value is Item => typeof value === 'object' && value !== null && 'type' in value;

function wordsOf(item: Item, property: string): string {
  const [value] = item.properties[property] ?? [];
  const given = typeof value === 'object' && value !== null && 'value' in value ? String(value.value) : value;
  const words = typeof given === 'string' ? given : '';
  return words.replace(/\s+/g, ' ').trim();
}

function authorOf(item: Item): string {
  const [author] = item.properties.author ?? [];
  return isItem(author) ? wordsOf(author, 'name') : wordsOf(item, 'author');
}

/** An entry with a name that is not just its content is an article, not a post. */
function named(entry: Item): boolean {
  const name = wordsOf(entry, 'name');
  const content = wordsOf(entry, 'content');
  return name !== '' && content !== '' && name !== content && !content.startsWith(name);
}

function readPost(entry: Item, feedAuthor: string): Post {
  const [content] = entry.properties.content ?? [];
  const html =
    typeof content === 'object' && content !== null && 'html' in content
      ? String(content.html)
      : escapeHtml(wordsOf(entry, 'content') || wordsOf(entry, 'name'));
  const photos = (entry.properties.photo ?? []).map((photo) =>
    typeof photo === 'string' ? { value: photo, alt: '' } : (photo as { value: string; alt?: string }),
  );
  const pictures = photos
    .filter(({ value }) => !html.includes(value))
    .map(({ value, alt = '' }) => `<img src="${escapeHtml(value)}" alt="${escapeHtml(alt)}">`)
    .join('');
  return {
    author: authorOf(entry) || feedAuthor,
    at: readDate(wordsOf(entry, 'published')),
    content: html + pictures,
    length: wordsOf(entry, 'content').length,
    address: wordsOf(entry, 'url'),
  };
}

function postHtml({ author, at, content, address }: Post): string {
  const time = at === null ? '' : `<time datetime="${at}">${at.replace('T', ' ').slice(0, 16)}</time>`;
  const when = /^https?:/.test(address) && time ? `<a href="${escapeHtml(address)}">${time}</a>` : time;
  return `<article class="post"><p class="byline"><b>${escapeHtml(author)}</b>${author && when ? ' · ' : ''}${when}</p><div>${content}</div></article>`;
}
