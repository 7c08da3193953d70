import { expect, type Page } from '@playwright/test';
import type { SourcePage, SourceText } from '@avrelle/core/wire';
import { v7 } from 'uuid';

const TEXT = 'The tide turns at seven.\n\nThe pegs rose by 96 mm in thirty years.\n\nNobody sees it turn.';

/** Keeps a text as a source and marks some of its words; `mark` marks more. */
export async function keepMarked(page: Page, title: string, quotes: readonly string[]) {
  const file = { name: `${title}.txt`, mimeType: 'text/plain', buffer: Buffer.from(`${TEXT}\n\n${title}.`) };
  await page.request.post(`/api/uploads/${v7()}`, { multipart: { file } });
  const kept = async () =>
    ((await (await page.request.get('/api/sources')).json()) as SourcePage).sources.find((s) => s.title === title);
  await expect.poll(kept).toBeDefined();
  const { id: sourceId } = (await kept())!;
  const { versionId, text } = (await (await page.request.get(`/api/sources/${sourceId}/text`)).json()) as SourceText;
  const mark = async (exact: string): Promise<string> => {
    const start = text.indexOf(exact);
    const end = start + exact.length;
    const quote = { exact, prefix: text.slice(Math.max(0, start - 9), start), suffix: text.slice(end, end + 9) };
    const data = { sourceId, versionId, kind: 'claim', note: '', tags: [], classIds: [] };
    const id = v7();
    const anchor = { quote, position: { start, end } };
    const answer = await page.request.put(`/api/annotations/${id}`, { data: { ...data, anchor } });
    expect(answer.status(), await answer.text()).toBe(200);
    return id;
  };
  const ids: string[] = [];
  for (const quote of quotes) ids.push(await mark(quote));
  return { sourceId, ids, mark };
}
