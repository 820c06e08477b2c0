import { doneSchema } from '@yellow-thread/contract';
import { useEffect } from 'react';
import { toast } from 'sonner';
import { z } from 'zod';
import { sendRequest } from './client.js';
import { failureKind } from '../lib/problem.js';
import { useSession } from './people.js';
import { refresh } from './queryClient.js';
import { outboxTexts } from './texts.js';

/** A change on its way to the server. Sending it twice does what sending it once does. */
const sendingSchema = z.object({
  id: z.string(),
  method: z.enum(['GET', 'POST', 'PUT', 'PATCH', 'DELETE']),
  path: z.string(),
  body: z.unknown().optional(),
});
type Sending = z.infer<typeof sendingSchema>;

const keyOf = (account: number) => `yellow-thread outbox ${account}`;

/** What this person did in this browser and the server has not said yes or no to. */
function kept(account: number): Sending[] {
  try {
    return z.array(sendingSchema).parse(JSON.parse(localStorage.getItem(keyOf(account)) ?? '[]'));
  } catch {
    // written by a version that kept it otherwise, or by somebody else: nothing of ours
    return [];
  }
}

function keep(account: number, change: (before: Sending[]) => Sending[]): void {
  const after = change(kept(account));
  try {
    if (after.length === 0) localStorage.removeItem(keyOf(account));
    else localStorage.setItem(keyOf(account), JSON.stringify(after));
  } catch {
    // no room in the browser: it is sent all the same, and only a page closed at this moment would lose it
  }
}

const forget = (account: number, id: string) =>
  keep(account, (before) => before.filter((one) => one.id !== id));

/**
 * Sends a change and keeps it in the browser until the server has answered: a page that is closed or loaded
 * again in between sends it when it comes back.
 *
 * @throws ProblemError, TypeError; what was not refused for good stays kept
 */
export async function sendKept(account: number, sending: Sending): Promise<void> {
  keep(account, (before) => [...before.filter((one) => one.id !== sending.id), sending]);
  const { id, ...request } = sending;
  await drawn();
  try {
    await sendRequest(request, doneSchema);
    forget(account, id);
  } catch (error) {
    if (failureKind(error) === 'refused') forget(account, id);
    throw error;
  }
}

/**
 * Resolves once what was just changed is drawn: sending takes the browser's time, and the server's where that is the
 * same machine. A page that nobody sees draws nothing, and is not waited for.
 */
const drawn = () =>
  new Promise<void>((resolve) => {
    if (document.hidden) return resolve();
    requestAnimationFrame(() => setTimeout(resolve));
    setTimeout(resolve, 100);
  });

/** Sends what an earlier page left, in order. @returns how many changes there were */
async function sendLeft(account: number): Promise<number> {
  const left = kept(account);
  for (const sending of left)
    try {
      await sendKept(account, sending);
    } catch (error) {
      // refused: somebody changed it meanwhile, and the page shows what there is now
      if (failureKind(error) !== 'refused') throw error;
    }
  return left.length;
}

/** Sends, when a page opens, what the page before it could not. */
export function useSendLeft(): void {
  const account = useSession().data?.account?.id;
  useEffect(() => {
    if (account === undefined) return;
    sendLeft(account)
      .then((sent) => {
        if (sent === 0) return;
        toast(outboxTexts.whatSavedWhenPage);
        void refresh(({ queryKey }) => queryKey[0] !== 'session');
      })
      // the server does not answer: it stays kept, and is sent when the page opens next
      .catch(() => {});
  }, [account]);
}
