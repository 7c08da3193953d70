/** The tint of a tag: its own, or that of the nearest tag it stands beneath; undefined where none has one. */
export function tintOfTag(tints: Readonly<Record<string, string>>, tag: string): string | undefined {
  for (let name = tag; ; name = name.slice(0, name.lastIndexOf('/'))) {
    if (Object.hasOwn(tints, name)) return tints[name];
    if (!name.includes('/')) return undefined;
  }
}
