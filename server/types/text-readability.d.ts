declare module 'text-readability' {
  const readability: { fleschReadingEase(text: string): number };
  export default readability;
}
