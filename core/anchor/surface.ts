/** What can be drawn on: a page of a PDF by its number, from 1, or a picture by its content (SHA-256, hex). */
export type Surface = { readonly page: number } | { readonly picture: string };
