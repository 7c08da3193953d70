import { randomBytes } from 'node:crypto';

/** 144 bits that nobody guesses, as they stand in an address (RFC 4648, base64url). */
export const linkToken = (): string => randomBytes(18).toString('base64url');
