import { hash, verify } from '@node-rs/argon2';

/** Argon2id with the parameters of RFC 9106's second recommendation: 64 MiB, three passes; one lane, as we serve many. */
const OPTIONS = { memoryCost: 65_536, timeCost: 3, parallelism: 1, algorithm: 2 } as const;

export const hashPassword = (password: string): Promise<string> => hash(password, OPTIONS);
export const verifyPassword = (stored: string, password: string): Promise<boolean> => verify(stored, password);

/** Checked when there is no such account, so that the answer takes as long. */
let nobody: Promise<string> | undefined;
export const verifyNobody = async (password: string): Promise<false> => {
  nobody ??= hashPassword('nobody has this password');
  await verify(await nobody, password);
  return false;
};
