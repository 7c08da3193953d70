// `node demo/make/documents.mjs`: makes the demo's PDF, EPUB, recording, table and picture from the texts beside it.
// Wants Debian's chromium and espeak-ng, ffmpeg; what it makes is committed.
import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { chromium } from '@playwright/test';
import JSZip from 'jszip';
import { toHtml } from 'hast-util-to-html';
import { fromMarkdown } from 'mdast-util-from-markdown';
import { toHast } from 'mdast-util-to-hast';

const HERE = path.dirname(new URL(import.meta.url).pathname);
const ROOT = path.join(HERE, '../..');
const FILES = path.join(ROOT, 'demo/files');
const SITES = path.join(ROOT, 'standins/web/sites');
const text = (name) => fs.readFileSync(path.join(HERE, 'texts', name), 'utf8');
const font = (name) =>
  fs.readFileSync(path.join(ROOT, `node_modules/@fontsource-variable/literata/files/${name}`)).toString('base64');
const markdown = { render: (text) => toHtml(toHast(fromMarkdown(text))) };
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu'] });

await report();
await picture();
await booklet();
recording();
table();
await browser.close();

/** Words of more than nine letters may be parted in the report's narrow columns. */
function hyphenated(html) {
  return html.replace(/\b\p{L}{9,}\b/gu, (word) =>
    word.replace(/([aeiouy][^aeiouy\W\d])(?=[^aeiouy\W\d][aeiouy]\p{L})/giu, '$1\u00AD'),
  );
}

async function report() {
  const [head, ...rest] = text('report.md').split(/^## /m);
  const [title, ...by] = head.trim().split('\n');
  const [abstract, ...sections] = rest.map((part) => markdown.render(`## ${part}`));
  const style = `@font-face{font-family:L;src:url(data:font/woff2;base64,${font('literata-latin-wght-normal.woff2')});font-weight:200 900}
    @page{size:A4;margin:22mm 18mm 22mm} body{font:10pt/14pt L;margin:0;hyphens:manual} h1{font-size:20pt;line-height:24pt;margin:0 0 6pt} .by{margin:0 0 10pt} .abstract{border-top:.6pt solid #888;border-bottom:.6pt solid #888;padding:4pt 0 6pt;margin-bottom:10pt} .abstract h2{font-size:10pt;margin:4pt 0}
    .columns{columns:2;column-gap:9mm;text-align:justify} h2{font-size:12pt;line-height:14pt;margin:10pt 0 4pt;break-after:avoid} p{margin:0 0 6pt;orphans:2;widows:2} table{border-collapse:collapse;margin:8pt 0} td,th{padding:2pt 12pt 2pt 0;text-align:left;border-bottom:.4pt solid #999}`;
  const lines =
    '<h2>Appendix: gain by line</h2><table><tr><th>Line</th><th>Pegs</th><th>1994–2024, mm a year</th><th>2025, mm</th></tr><tr><td>A</td><td>8</td><td>3.9</td><td>3.8</td></tr><tr><td>B</td><td>8</td><td>3.3</td><td>3.1</td></tr><tr><td>C</td><td>8</td><td>2.6</td><td>2.4</td></tr><tr><td>D</td><td>8</td><td>2.5</td><td>2.2</td></tr><tr><td>E</td><td>6</td><td>-1.1</td><td>-1.3</td></tr><tr><td>F</td><td>8</td><td>3.7</td><td>4.4</td></tr></table>';
  const page = await browser.newPage();
  await page.setContent(
    `<!doctype html><html lang="en"><head><title>${title.slice(2)}</title><meta name="author" content="Odile Farrant; Tilda Wick; Jonas Tarn"><style>${style}</style></head><body><h1>${title.slice(2)}</h1><p class="by">${by.filter(Boolean).join('<br>')}</p><div class="abstract">${abstract}</div><div class="columns">${hyphenated(sections.join(''))}</div>${lines}</body></html>`,
  );
  await page.evaluate(() => document.fonts.ready);
  const folder = path.join(SITES, 'survey.saltmere.test');
  fs.mkdirSync(folder, { recursive: true });
  await page.pdf({
    path: path.join(folder, 'state-of-the-marsh-2025.pdf'),
    preferCSSPageSize: true,
    tagged: true,
    outline: true,
    displayHeaderFooter: true,
    headerTemplate: '<span></span>',
    footerTemplate:
      '<div style="font:8pt serif;width:100%;text-align:center">Saltmere College, Survey of the Marsh &#160; <span class="pageNumber"></span></div>',
  });
  await page.close();
}

/** The gate at dawn, drawn as a picture for marking areas on. */
async function picture() {
  const page = await browser.newPage({ viewport: { width: 1200, height: 800 } });
  const reeds = Array.from({ length: 90 }, (_, n) => {
    const x = (n * 137) % 1200;
    const h = 40 + ((n * 53) % 90);
    return `<path d="M${x} 800q${(n % 7) - 3} -${h / 2} ${(n % 11) - 5} -${h}" stroke="#3d4a3a" stroke-width="2" fill="none"/>`;
  }).join('');
  await page.setContent(
    `<body style="margin:0"><svg width="1200" height="800"><rect width="1200" height="800" fill="#e6dcc6"/><rect width="1200" height="330" fill="#dfe3dc"/><circle cx="860" cy="300" r="46" fill="#e9b48a"/><path d="M0 330h1200v40H0z" fill="#8f9b8c"/><path d="M0 370C300 350 420 420 640 400s340-40 560-20v420H0z" fill="#a9a184"/><path d="M520 380C560 480 700 540 640 640s-160 90-180 160h260c20-60 130-120 120-210s-130-120-150-200z" fill="#b9c4c4"/><g fill="#4a3b30"><rect x="300" y="250" width="22" height="190"/><rect x="470" y="250" width="22" height="190"/><rect x="290" y="270" width="212" height="16"/><rect x="318" y="300" width="156" height="120" fill="#6a5644"/><path d="M318 300l156 120M474 300L318 420" stroke="#4a3b30" stroke-width="8"/></g><g stroke="#8a6a2c" stroke-width="5"><path d="M820 560v-70M880 575v-70M940 590v-70M1000 606v-70"/></g>${reeds}</svg></body>`,
  );
  await page.screenshot({ path: path.join(FILES, 'sluice-nine-at-dawn.png') });
  await page.close();
}

async function booklet() {
  const [head, ...chapters] = text('booklet.md').split(/^## /m);
  const [title, by] = head.trim().split(/\n+/);
  const xhtml = (name, body, extra = '') =>
    `<?xml version="1.0" encoding="utf-8"?>\n<!DOCTYPE html>\n<html xmlns="http://www.w3.org/1999/xhtml" xmlns:epub="http://www.idpf.org/2007/ops" lang="en" xml:lang="en"><head><title>${name}</title><link rel="stylesheet" type="text/css" href="book.css"/></head><body${extra}>${body}</body></html>`;
  const zip = new JSZip();
  const name = title.slice(2);
  const cover = fs.readFileSync(path.join(FILES, 'sluice-nine-at-dawn.png'));
  zip.file('mimetype', 'application/epub+zip', { compression: 'STORE' });
  zip.file(
    'META-INF/container.xml',
    '<?xml version="1.0"?><container version="1.0" xmlns="urn:oasis:names:tc:opendocument:xmlns:container"><rootfiles><rootfile full-path="OEBPS/book.opf" media-type="application/oebps-package+xml"/></rootfiles></container>',
  );
  const files = chapters.map((chapter, n) => ({
    id: `c${n + 1}`,
    file: `chapter-${n + 1}.xhtml`,
    title: chapter.split('\n')[0],
    body: markdown.render(`## ${chapter}`).replace('<p>', '<p class="first">'),
  }));
  for (const { file, title: heading, body } of files) zip.file(`OEBPS/${file}`, xhtml(heading, body));
  zip.file(
    'OEBPS/title.xhtml',
    xhtml(
      name,
      `<section epub:type="titlepage"><h1>${name}</h1><p class="by">${by}</p><p><img src="cover.png" alt="Sluice Nine at dawn"/></p></section>`,
    ),
  );
  zip.file(
    'OEBPS/nav.xhtml',
    xhtml(
      'Contents',
      `<nav epub:type="toc"><h1>Contents</h1><ol>${files.map((f) => `<li><a href="${f.file}">${f.title}</a></li>`).join('')}</ol></nav>`,
    ),
  );
  zip.file(
    'OEBPS/book.css',
    'body{font-family:serif;margin:5%} .first{text-indent:0} p{text-indent:1.2em;margin:0} .by{font-style:italic;text-indent:0;margin:1em 0} h2{margin:2em 0 1em}',
  );
  zip.file('OEBPS/cover.png', cover);
  zip.file(
    'OEBPS/book.opf',
    `<?xml version="1.0" encoding="utf-8"?><package xmlns="http://www.idpf.org/2007/opf" version="3.0" unique-identifier="id" xml:lang="en"><metadata xmlns:dc="http://purl.org/dc/elements/1.1/"><dc:identifier id="id">urn:uuid:2f6d8f7a-9a5b-4d0c-8b3e-5a1c7e6d4b20</dc:identifier><dc:title>${name}</dc:title><dc:creator>${by}</dc:creator><dc:publisher>Saltmere Shore Society</dc:publisher><dc:language>en</dc:language><dc:date>2024-04-01</dc:date><meta property="dcterms:modified">2024-04-01T00:00:00Z</meta></metadata><manifest><item id="nav" href="nav.xhtml" media-type="application/xhtml+xml" properties="nav"/><item id="title" href="title.xhtml" media-type="application/xhtml+xml"/>${files.map((f) => `<item id="${f.id}" href="${f.file}" media-type="application/xhtml+xml"/>`).join('')}<item id="css" href="book.css" media-type="text/css"/><item id="cover" href="cover.png" media-type="image/png" properties="cover-image"/></manifest><spine><itemref idref="title"/>${files.map((f) => `<itemref idref="${f.id}"/>`).join('')}</spine></package>`,
  );
  fs.writeFileSync(
    path.join(FILES, 'walkers-booklet.epub'),
    await zip.generateAsync({ type: 'nodebuffer', compression: 'DEFLATE' }),
  );
}

/** The walk, spoken; each line begins at its own second, or when the one before it has ended. */
function recording() {
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'avrelle-walk-'));
  const voices = {
    'Bram Oake': ['-v', 'en-gb', '-p', '30', '-s', '150'],
    'Ines Kestle': ['-v', 'en-gb+f3', '-p', '55', '-s', '160'],
    'Tomas Rell': ['-v', 'en-gb+m4', '-p', '48', '-s', '160'],
  };
  const stamp = (seconds) => new Date(seconds * 1000).toISOString().slice(11, 23);
  const list = [];
  let at = 0;
  let vtt = 'WEBVTT\n\n';
  text('walk.txt')
    .trim()
    .split('\n')
    .forEach((line, n) => {
      const [, speaker, words] = line.split('|');
      const wav = path.join(folder, `${n}.wav`);
      execFileSync('espeak-ng', [...voices[speaker], '-w', wav, words]);
      const length = Number(
        execFileSync('ffprobe', ['-v', 'error', '-show_entries', 'format=duration', '-of', 'csv=p=0', wav], {
          encoding: 'utf8',
        }),
      );
      vtt += `${stamp(at)} --> ${stamp(at + length)}\n<v ${speaker}>${words}\n\n`;
      list.push(`file '${wav}'`, `file '${path.join(folder, 'pause.wav')}'`);
      at += length + 0.7;
    });
  execFileSync('ffmpeg', [
    '-v',
    'error',
    '-y',
    '-f',
    'lavfi',
    '-i',
    'anullsrc=r=22050:cl=mono',
    '-t',
    '0.7',
    path.join(folder, 'pause.wav'),
  ]);
  fs.writeFileSync(path.join(folder, 'list.txt'), list.join('\n'));
  execFileSync('ffmpeg', [
    '-v',
    'error',
    '-y',
    '-f',
    'concat',
    '-safe',
    '0',
    '-i',
    path.join(folder, 'list.txt'),
    '-c:a',
    'libopus',
    '-b:a',
    '24k',
    path.join(FILES, 'walk-along-the-bank.ogg'),
  ]);
  fs.writeFileSync(path.join(FILES, 'walk-along-the-bank.vtt'), vtt);
}

const wetness = (line, k) => {
  if (line === 'E' && k > 5) return '"under water, read from a door"';
  return k % 3 === 0 ? 'firm' : 'soft';
};

function table() {
  const rows = ['A', 'B', 'C', 'D', 'E', 'F'].flatMap((line, n) =>
    Array.from({ length: 8 }, (_, k) => [
      n * 8 + k + 1,
      line,
      ((n * 7 + k * 13) % 90) + 8,
      (3.9 - n * 0.5 + ((k * 37) % 11) / 10 - (line === 'E' ? 3.2 : 0) + (line === 'F' ? 2.6 : 0)).toFixed(1),
      wetness(line, k),
    ]),
  );
  fs.writeFileSync(
    path.join(FILES, 'peg-readings-2025.csv'),
    `${['peg,line,metres from the creek,gain in mm,how wet', ...rows.map((row) => row.join(','))].join('\r\n')}\r\n`,
  );
}
