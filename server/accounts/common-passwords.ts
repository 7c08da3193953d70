let known: Promise<ReadonlySet<string>> | undefined;

/** Whether a password is one of the some fifty thousand that are tried first (list of the package `@zxcvbn-ts/language-common`), also with digits or signs around it. */
export async function isCommon(password: string): Promise<boolean> {
  known ??= import('@zxcvbn-ts/language-common').then(
    ({ dictionary }) => new Set<string>(dictionary['passwords-common'] as readonly string[]),
  );
  const list = await known;
  const plain = password.toLowerCase();
  return (
    [plain, plain.replace(/[\d\W_]+$/u, ''), plain.replace(/^[\d\W_]+|[\d\W_]+$/gu, '')].some(
      (form) => form !== '' && list.has(form),
    ) || new Set(plain).size <= 3
  );
}
