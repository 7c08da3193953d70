import { UAParser } from 'ua-parser-js';

/** "Firefox on Linux", from what a browser calls itself (RFC 9110, User-Agent). */
export function browserName(agent: string): string {
  const { browser, os } = UAParser(agent);
  if (!browser.name) return 'A browser that does not say which';
  return os.name ? `${browser.name} on ${os.name}` : browser.name;
}
