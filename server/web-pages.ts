import fs from 'node:fs';
import path from 'node:path';

interface Chunk {
  readonly file: string;
  readonly imports?: readonly string[];
}

/** The code of the pages that people come to from outside, as `web/pages.tsx` fetches it. */
export const CODE: readonly (readonly [RegExp, string])[] = [
  [/^\/desk$|^\/$/, 'desk/DeskPage.tsx'],
  [/^\/library$/, 'library/LibraryPage.tsx'],
  [/^\/source\/[^/]+$/, 'reader/ReaderPage.tsx'],
  [/^\/find$/, 'find/FindPage.tsx'],
];

/** What a page asks for first, in the order in which it needs it. */
const asked = (address: string): string[] => {
  const id = /^\/source\/([0-9a-f-]{36})$/.exec(address)?.[1];
  return [
    '/api/welcome',
    ...(id ? [`/api/sources/${id}`, `/api/sources/${id}/text`, '/api/classes', `/api/sources/${id}/annotations`] : []),
  ];
};

/**
 * The one HTML page of the application, as `vite build` left it in `folder`, with the browser told beforehand what the
 * page at an address is going to fetch: its code and, where it will ask for what is newest, its data.
 */
export function webPages(folder: string): (address: string, withData: boolean) => string {
  const html = fs.readFileSync(path.join(folder, 'index.html'), 'utf8');
  const manifestFile = path.join(folder, '.vite/manifest.json');
  const manifest = fs.existsSync(manifestFile)
    ? (JSON.parse(fs.readFileSync(manifestFile, 'utf8')) as Record<string, Chunk>)
    : {};
  const filesOf = (name: string, known: Set<string>): Set<string> => {
    const chunk = manifest[name];
    if (chunk && !known.has(chunk.file)) {
      known.add(chunk.file);
      chunk.imports?.forEach((each) => filesOf(each, known));
    }
    return known;
  };
  const links = CODE.map(
    ([address, name]) =>
      [
        address,
        [...filesOf(name, new Set())]
          .filter((file) => !html.includes(file))
          .map((file) => `<link rel="modulepreload" crossorigin href="/${file}">`)
          .join(''),
      ] as const,
  );
  return (address, withData) => {
    const code = links.find(([of]) => of.test(address))?.[1] ?? '';
    const data = withData
      ? asked(address)
          .map((url) => `<link rel="preload" as="fetch" crossorigin href="${url}">`)
          .join('')
      : '';
    return html.replace('</head>', () => `${code}${data}</head>`);
  };
}
