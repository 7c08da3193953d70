import { array, boolean, number, object, string, type InferType } from 'yup';

/** What can be set, each by one environment variable; docs/operations.md says what for. */
const configSchema = object({
  port: number().integer().min(0).max(65_535).required(),
  host: string().required(),
  dataFile: string().required(),
  webFolder: string().required(),
  signUp: boolean().required(),
  secureCookies: boolean().required(),
  /** `suffix=host:port`: names that lead to a fixed place instead of what DNS says. */
  names: array(object({ suffix: string().required(), host: string().required(), port: number().required() })).required(),
  /** Hosts, as written in addresses, that may lie in a private network. */
  privateHosts: array(string().required()).required(),
  behindProxy: boolean().required(),
  /** Where letters come in over SMTP; null for an installation that takes none. */
  mailPort: number().integer().min(0).max(65_535).nullable().defined(),
  mailHost: string().required(),
  /** What stands after the @ of the addresses at which letters come in. */
  mailDomain: string().required(),
});

export type Config = InferType<typeof configSchema>;

export function readConfig(env: Readonly<Record<string, string | undefined>>): Config {
  return configSchema.validateSync({
    port: Number(env.AVRELLE_PORT ?? 4800),
    host: env.AVRELLE_HOST ?? '127.0.0.1',
    dataFile: env.AVRELLE_DATA ?? 'var/avrelle.db',
    webFolder: env.AVRELLE_WEB ?? 'web/dist',
    signUp: yesNo('AVRELLE_SIGN_UP', env.AVRELLE_SIGN_UP ?? 'yes'),
    secureCookies: yesNo('AVRELLE_HTTPS', env.AVRELLE_HTTPS ?? 'no'),
    behindProxy: yesNo('AVRELLE_PROXY', env.AVRELLE_PROXY ?? 'no'),
    names: list(env.AVRELLE_NAMES).map(readName),
    privateHosts: list(env.AVRELLE_PRIVATE_HOSTS),
    mailPort: env.AVRELLE_MAIL_PORT ? Number(env.AVRELLE_MAIL_PORT) : null,
    mailHost: env.AVRELLE_MAIL_HOST ?? '127.0.0.1',
    mailDomain: env.AVRELLE_MAIL_DOMAIN ?? 'intake.localhost',
  }, { strict: true });
}

const list = (text: string | undefined): string[] => (text ?? '').split(',').map((part) => part.trim()).filter(Boolean);

function yesNo(name: string, value: string): boolean {
  if (value !== 'yes' && value !== 'no') throw new Error(`${name} is "${value}"; write yes or no.`);
  return value === 'yes';
}

function readName(text: string): { suffix: string; host: string; port: number } {
  const match = /^([^=]+)=([^=:]+):(\d+)$/.exec(text);
  if (!match) throw new Error(`AVRELLE_NAMES holds "${text}"; write suffix=host:port, parted by commas.`);
  return { suffix: match[1]!, host: match[2]!, port: Number(match[3]) };
}
