/** Tags as they are typed: words parted by space or comma, with or without `#`. */
export const tagsIn = (text: string): string[] =>
  text
    .split(/[\s,]+/)
    .map((tag) => tag.replace(/^#/, '').toLowerCase())
    .filter(Boolean);
