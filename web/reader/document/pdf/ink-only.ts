/**
 * Takes the paper out of a picture of a page, in place: white becomes clear, and every colour as clear as it is white,
 * so that the picture over white is what it was and over a tint is tinted. With `dark` its lightness is turned round
 * first, hue kept (HSL), and what is black becomes clear, for a page over black. RGBA, four bytes a pixel.
 */
export function inkOnly(pixels: Uint8ClampedArray, dark: boolean): void {
  for (let at = 0; at < pixels.length; at += 4) {
    let r = pixels[at]!;
    let g = pixels[at + 1]!;
    let b = pixels[at + 2]!;
    if (dark) {
      const turn = 255 - Math.max(r, g, b) - Math.min(r, g, b);
      r += turn;
      g += turn;
      b += turn;
    }
    const alpha = dark ? Math.max(r, g, b) : 255 - Math.min(r, g, b);
    if (alpha > 0) {
      const paper = dark ? 0 : 255 - alpha;
      const share = 255 / alpha;
      pixels[at] = (r - paper) * share;
      pixels[at + 1] = (g - paper) * share;
      pixels[at + 2] = (b - paper) * share;
    }
    pixels[at + 3] = alpha;
  }
}
