import type { ProblemCode } from '@yellow-thread/contract';
import type { MikroORM } from '@mikro-orm/postgresql';
import type { Threads } from './jobs/index.js';
import type { Settings } from './settings.js';

/** What the server is put together from. */
export interface AppOptions extends Partial<
  Pick<
    Settings,
    'publicUrls' | 'trustProxy' | 'dataFolder' | 'metrics' | 'logLevel' | 'watchEventLoop'
  >
> {
  orm: MikroORM;
  threads: Threads;
  /** Whether the demo may be entered without a password by who sits at this machine. */
  demo: boolean;
  /** When each runner of this server last reached the database; none where others do the jobs. */
  beats?: () => (Date | null)[];
  /** Largest file that may be uploaded, in bytes. */
  largestSheet?: number;
  /** Folder of the built web app; left out in tests of the API alone. */
  web?: string;
  /** Called for a problem that the contract does not declare for its operation: tests fail by it. */
  onUndeclaredProblem?: (operation: string, code: ProblemCode) => void;
  /** Where log lines go; left out, nothing is logged. */
  log?: { write: (line: string) => void };
}
