/** In the page's own CSS pixels. */
export interface Area {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

const SHARPNESS = 2;

/**
 * An area of a page in its frame as a PNG picture. The page is drawn by the browser itself, as SVG with everything it
 * needs inside: it was kept complete, so nothing is fetched but its own parts. Rejects where the browser cannot draw it.
 */
export async function pictureOfArea(frame: HTMLIFrameElement, { x, y, width, height }: Area): Promise<Blob> {
  const page = frame.contentDocument!;
  const { clientWidth, scrollHeight } = page.documentElement;
  const copy = page.documentElement.cloneNode(true) as HTMLElement;
  const css = [...page.adoptedStyleSheets]
    .map((sheet) => [...sheet.cssRules].map((rule) => rule.cssText).join('\n'))
    .join('\n');
  copy.querySelector('head')!.append(Object.assign(page.createElement('style'), { textContent: css }));
  let markup = new XMLSerializer().serializeToString(copy);
  const base = page.baseURI;
  const parts = new Set([...markup.matchAll(/asset\/[0-9a-f]{64}/g)].map(([name]) => name));
  for (const name of parts) markup = markup.replaceAll(name, await asData(new URL(name, base).href));
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${clientWidth}" height="${scrollHeight}"><foreignObject width="100%" height="100%">${markup}</foreignObject></svg>`;
  const picture = new Image();
  picture.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`;
  await picture.decode();
  const canvas = Object.assign(document.createElement('canvas'), {
    width: Math.max(1, Math.round(width * SHARPNESS)),
    height: Math.max(1, Math.round(height * SHARPNESS)),
  });
  const pen = canvas.getContext('2d')!;
  pen.fillStyle = '#fff';
  pen.fillRect(0, 0, canvas.width, canvas.height);
  pen.drawImage(picture, x, y, width, height, 0, 0, canvas.width, canvas.height);
  return new Promise((resolve, reject) =>
    canvas.toBlob(
      (blob) => (blob ? resolve(blob) : reject(new Error('The area could not be drawn. Choose a smaller one.'))),
      'image/png',
    ),
  );
}

async function asData(address: string): Promise<string> {
  const blob = await (await fetch(address)).blob();
  return new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(String(reader.result));
    reader.onerror = () => reject(new Error('A part of the page could not be read.'));
    reader.readAsDataURL(blob);
  });
}
