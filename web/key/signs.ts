/** Signs our typefaces have, to choose from; any other character can be typed. */
export const SIGNS = ['§', '∴', '?', '¶', '≠', '◆', '‡', '!', '+', '→', '≈', '∞', '○', '□', '△', '%', '&', '※', '✓', '★'] as const;
