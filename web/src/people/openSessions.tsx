import { useEndSession, useOpenSessions } from '../data/people.js';
import { asDate } from '../lib/numbers.js';
import { Button } from '../parts/button.js';
import { ProblemNote } from '../parts/notices.js';
import { openSessionsTexts as texts } from './texts.js';

/** Where one is signed in; each can be ended but the one that asks. */
export function OpenSessions() {
  const sessions = useOpenSessions();
  const end = useEndSession();
  return (
    <section aria-labelledby="sessions">
      <h2 id="sessions">{texts.whereSignedIn}</h2>
      <ul className="mt-2 border-t border-rule">
        {sessions.data?.sessions.map(({ id, startedAt, usedAt, browser, address, isThis }) => (
          <li key={id} className="flex items-center gap-3 border-b border-rule py-2">
            <span className="min-w-0">
              <span className="block truncate" title={browser ?? undefined}>
                {browserName(browser)}
                {address && <span className="text-soft"> · {address}</span>}
              </span>
              <span className="text-[13px] text-soft">
                {isThis ? texts.thisOne : texts.used(asDate(usedAt))}{' '}
                {texts.since(asDate(startedAt))}
              </span>
            </span>
            {!isThis && (
              <Button
                className="ml-auto shrink-0"
                disabled={end.isPending}
                onClick={() => end.mutate(id)}
              >
                {texts.end}
              </Button>
            )}
          </li>
        ))}
      </ul>
      {end.error && <ProblemNote error={end.error} />}
    </section>
  );
}

const BROWSERS = ['Edg', 'OPR', 'Firefox', 'Chrome', 'Safari'] as const;
const SYSTEMS = ['Android', 'iPhone', 'iPad', 'Windows', 'Mac OS', 'Linux'] as const;

/** What a browser says of itself, in two words (common practice, no source). */
function browserName(agent: string | null): string {
  if (!agent) return texts.unknownBrowser;
  const browser = BROWSERS.find((one) => agent.includes(one));
  const system = SYSTEMS.find((one) => agent.includes(one));
  if (!browser) return agent;
  const name = { Edg: 'Edge', OPR: 'Opera' }[browser as string] ?? browser;
  return system ? texts.browserOn(name, system) : name;
}
