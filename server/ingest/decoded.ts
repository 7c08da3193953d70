/** Percent-encoded text as it reads; as it stands where it is not encoded rightly, as in `#100%`. */
export function decoded(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}
