import { randomUUID } from 'node:crypto';
import { bringInto, type Caller } from '../product.js';

/** What became of what was tried. */
export interface Trial {
  what: string;
  tried: number;
  survived: number;
  lost: number;
  /** In ms; null where nobody waits. */
  longestWait: number | null;
}

/** The longest of some waits, and how many things were tried. */
export function waits() {
  let longest = 0;
  let tried = 0;
  let failed = 0;
  return {
    /** Runs something and notes how long it took, whatever became of it. */
    async of<Result>(work: () => Promise<Result>): Promise<Result | null> {
      const before = performance.now();
      tried += 1;
      try {
        return await work();
      } catch {
        failed += 1;
        return null;
      } finally {
        longest = Math.max(longest, performance.now() - before);
      }
    },
    told: (what: string) => ({
      what,
      tried,
      survived: tried - failed,
      lost: 0,
      longestWait: Math.round(longest),
    }),
  };
}

export interface SmallStudy {
  id: number;
  question: number;
  answers: number[];
}

/** A study of its own with a few answers. */
export async function smallStudy(call: Caller, size = 60): Promise<SmallStudy> {
  const { id } = await call<{ id: number }>('POST', '/studies', { name: 'Torture', purpose: '' });
  const rows = Array.from({ length: size }, (_, i) => `${i},the boat is late on day ${i}`);
  await bringInto(call, id, new Blob([`id,Why?\n${rows.join('\n')}\n`]), 'small.csv');
  const { questions } = await call<{ questions: { id: number }[] }>('GET', `/studies/${id}`);
  const question = questions[0]!.id;
  const path = `/studies/${id}/questions/${question}/ledger`;
  const { ids } = await call<{ ids: number[] }>('GET', path);
  return { id, question, answers: ids };
}

/** A save as a page makes it: sent again with the same id until it is acknowledged. @returns the mention's id */
export async function save(call: Caller, study: number, responseId: number, codeId: string) {
  const id = randomUUID();
  const mention = { id, responseId, codeId, start: null, end: null };
  for (let failed = 0; ; failed++)
    try {
      await call('POST', `/studies/${study}/mentions`, mention);
      return id;
    } catch (error) {
      if (failed > 600) throw error;
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
}

export async function newCode(call: Caller, study: number, name: string): Promise<string> {
  const id = randomUUID();
  await call('POST', `/studies/${study}/codes`, { id, name, themeId: null });
  return id;
}
