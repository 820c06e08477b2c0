import { z } from 'zod';

const onOrOff = z.enum(['on', 'off']);
const listOf = (text: string) =>
  text
    .split(',')
    .map((one) => one.trim())
    .filter((one) => one !== '');

const schema = z.object({
  DATABASE_URL: z.string({
    error: 'it is not set: start with `npm start`, which sets up a database',
  }),
  HOST: z.string().default('127.0.0.1'),
  PORT: z.coerce.number().int().min(0).max(65535).default(4310),
  PUBLIC_URL: z
    .string()
    .default('')
    .transform(listOf)
    .pipe(z.array(z.url({ protocol: /^https?$/, error: 'it must be an address like https://…' })))
    .transform((addresses) => addresses.map((address) => new URL(address))),
  TRUST_PROXY: z.string().default('').transform(listOf),
  DEMO: onOrOff.default('on').transform((value) => value === 'on'),
  DEMO_FOLDER: z.string().optional(),
  DATA_FOLDER: z.string().optional(),
  LOG: z
    .enum(['off', 'on', 'error', 'warn', 'info', 'debug'])
    .default('info')
    .transform((level) => (level === 'on' ? 'info' : level)),
  METRICS: onOrOff.default('off').transform((value) => value === 'on'),
  WATCH_EVENT_LOOP: onOrOff.default('off').transform((value) => value === 'on'),
});

/** What the environment may set; README and `docs/security.md` say what each is for. */
export interface Settings {
  databaseUrl: string;
  host: string;
  port: number;
  /** Addresses that people open the app at, where it stands behind a proxy. */
  publicUrls: URL[];
  /** Addresses of proxies whose word on who asks is taken: IP addresses, ranges, or `loopback`. */
  trustProxy: string[];
  /** Whether the demo may be entered without a password by who sits at this machine. */
  demo: boolean;
  demoFolder: string | undefined;
  dataFolder: string | undefined;
  logLevel: 'off' | 'error' | 'warn' | 'info' | 'debug';
  metrics: boolean;
  watchEventLoop: boolean;
}

const LOOPBACK = ['127.0.0.1', '::1', 'localhost'];

/**
 * Reads the settings.
 *
 * @throws Error with a sentence that names what cannot be read
 */
export function readSettings(env: NodeJS.ProcessEnv): Settings {
  const read = schema.safeParse(env);
  if (!read.success) {
    const { path, message } = read.error.issues[0]!;
    throw new Error(`${String(path[0])} cannot be used: ${message}.`);
  }
  const { data } = read;
  return {
    databaseUrl: data.DATABASE_URL,
    host: data.HOST,
    port: data.PORT,
    publicUrls: data.PUBLIC_URL,
    trustProxy: data.TRUST_PROXY,
    // whoever opens the server to others does not offer them a way in without a password
    demo: data.DEMO && data.PUBLIC_URL.length === 0 && LOOPBACK.includes(data.HOST),
    demoFolder: data.DEMO_FOLDER,
    dataFolder: data.DATA_FOLDER,
    logLevel: data.LOG,
    metrics: data.METRICS,
    watchEventLoop: data.WATCH_EVENT_LOOP,
  };
}
