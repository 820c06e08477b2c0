import { randomUUID } from 'node:crypto';
import type { Decide, Decision, Mention, SettleLine, Suggestion } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import { CodeEntity, findMentions, makeChange, rows, type ChangeDiff } from '../database/index.js';
import { runInForce } from '../learning/index.js';
import type { Maker } from '../people/index.js';
import { problems } from '../problems.js';

interface Place {
  questionId: number;
  codeId: string;
}

const columns = `s.code_id as "codeId", s.response_id as "responseId", s.state,
  s.decided_by as "decidedBy", s.decided_at as "decidedAt", s.bulk`;

/** Decides one suggestion: accepted makes a mention, refused none; open takes the decision back. */
export async function decideSuggestion(
  em: EntityManager,
  maker: Maker,
  { questionId, codeId }: Place,
  { responseId, state }: Decide,
) {
  await em.transactional(async (tx) => {
    const name = await nameOf(tx, maker.studyId, codeId);
    const [stored] = await rows<Suggestion & { isOpen: boolean }>(
      tx,
      `select ${columns}, exists (select 1 from open_suggestion o
         where o.code_id = s.code_id and o.response_id = s.response_id) as "isOpen"
       from suggestion s
       where s.question_id = ? and s.code_id = ? and s.response_id = ? for update of s`,
      [questionId, codeId, responseId],
    );
    if (!stored) throw problems.notFound('suggestion');
    const { isOpen, ...suggestion } = { ...stored, decidedAt: asIso(stored.decidedAt) };
    if (suggestion.state === state) return;
    // settled by a person in the meantime: what they decided stands
    if (suggestion.state === 'open' && !isOpen) throw problems.changedMeanwhile();
    const summary = {
      accepted: `accepting “${name}”`,
      refused: `refusing “${name}”`,
      open: `taking back a decision on “${name}”`,
    }[state];
    const given =
      suggestion.state === 'accepted' ? await mentionsByAcceptance(tx, codeId, responseId) : [];
    const diff = decide([suggestion], state, { by: maker.accountId, bulk: false });
    diff.mention = { updated: [], added: diff.mention?.added ?? [], removed: given };
    await makeChange(tx, { ...maker, summary, diff });
  });
}

/**
 * Accepts every open suggestion above a line, or refuses every one below it, as one change. Answers that
 * a person settled, or gave the code to, are never touched.
 *
 * @returns how many were decided
 */
export async function settleLine(
  em: EntityManager,
  maker: Maker,
  { questionId, codeId }: Place,
  { runId, line, side }: SettleLine,
): Promise<number> {
  return em.transactional(async (tx) => {
    const name = await nameOf(tx, maker.studyId, codeId);
    if ((await runInForce(tx, questionId))?.id !== runId) throw problems.runReplaced();
    const open = await rows<Suggestion>(
      tx,
      `select ${columns} from open_suggestion s
       where s.question_id = ? and s.code_id = ? and s.probability ${side === 'above' ? '>=' : '<'} ?
       order by s.response_id`,
      [questionId, codeId, line],
    );
    const state = side === 'above' ? 'accepted' : 'refused';
    const verb = side === 'above' ? 'accepting' : 'refusing';
    await makeChange(tx, {
      ...maker,
      summary: `${verb} ${open.length} suggestions of “${name}”`,
      diff: decide(
        open.map((one) => ({ ...one, decidedAt: asIso(one.decidedAt) })),
        state,
        { by: maker.accountId, bulk: true },
      ),
    });
    return open.length;
  });
}

/** The change that decides suggestions. */
function decide(
  suggestions: Suggestion[],
  state: Decision,
  { by, bulk }: { by: number; bulk: boolean },
): ChangeDiff {
  const now = new Date().toISOString();
  const decided = state !== 'open';
  const mention = ({ codeId, responseId }: Suggestion): Mention => ({
    id: randomUUID(),
    responseId,
    codeId,
    coderId: by,
    start: null,
    end: null,
    origin: bulk ? 'bulk' : 'accepted',
    createdAt: now,
    typical: false,
  });
  return {
    suggestion: {
      added: [],
      removed: [],
      updated: suggestions.map((from) => ({
        from,
        to: {
          ...from,
          state,
          decidedBy: decided ? by : null,
          decidedAt: decided ? now : null,
          bulk: decided && bulk,
        },
      })),
    },
    mention: {
      added: state === 'accepted' ? suggestions.map(mention) : [],
      updated: [],
      removed: [],
    },
  };
}

const mentionsByAcceptance = (em: EntityManager, codeId: string, responseId: number) =>
  findMentions(em, `m.code_id = ? and m.response_id = ? and m.origin in ('accepted', 'bulk')`, [
    codeId,
    responseId,
  ]);

const asIso = (date: string | null) => date && new Date(date).toISOString();

async function nameOf(em: EntityManager, studyId: number, codeId: string): Promise<string> {
  const code = await em.findOne(CodeEntity, { id: codeId, studyId });
  if (!code) throw problems.notFound('code');
  return code.name;
}
