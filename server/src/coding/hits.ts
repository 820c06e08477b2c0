import { randomUUID } from 'node:crypto';
import type { CodeHits, Hits, LedgerQuery, Mention } from '@yellow-thread/contract';
import { lineOfPassage, linesOf, type Cut } from '@yellow-thread/core/coding';
import { blankAsides, hitFinder, type Span } from '@yellow-thread/core/text';
import type { EntityManager } from '@mikro-orm/postgresql';
import {
  type ChangeDiff,
  cutsAsJson,
  findMentions,
  inChange,
  makeChange,
  rows,
  StudyEntity,
} from '../database/index.js';
import type { Threads } from '../jobs/index.js';
import type { Maker } from '../people/index.js';
import { problems } from '../wording/problems.js';
import { startTimeSlice } from '../timeSlice.js';
import { codeIdsAsJson } from './answers.js';
import { readLedger } from './ledger.js';
import { nameOrDraft } from './mentions.js';
import { hitsTexts } from '../wording/coding.js';

const MOST_ANSWERS = 2000;

/** Every place where words stand in the answers that the filter leaves. */
export async function readHits(
  em: EntityManager,
  {
    threads,
    studyId,
    questionId,
    query,
    accountId,
  }: {
    threads: Threads;
    studyId: number;
    questionId: number;
    query: LedgerQuery;
    accountId: number;
  },
): Promise<Hits> {
  const apart = { ...query, same: 'apart', order: 'imported' } as const;
  const { ids } = await readLedger(em, threads, { studyId, questionId, accountId }, apart);
  const found = await rows<Omit<Hits['answers'][number], 'hits'>>(
    em,
    `select r.id, p.external_id as "externalId", r.text,
       ${codeIdsAsJson} as "codeIds"
     from response r join respondent p on p.id = r.respondent_id
     where r.id = any(:ids::int[]) and not r.no_answer order by r.respondent_id`,
    { ids, reader: accountId },
  );
  const { asides } = await em.findOneOrFail(StudyEntity, studyId);
  const hitsIn = hitFinder(query.words, query.match);
  const slice = startTimeSlice();
  const answers: Hits['answers'] = [];
  for (const answer of found) {
    if (slice.isOver()) await slice.next();
    // the interviewer's words are not what was answered
    const hits = hitsIn(blankAsides(answer.text, asides));
    if (hits.length > 0) answers.push({ ...answer, hits });
  }
  return {
    answers: answers.slice(0, MOST_ANSWERS),
    found: {
      answers: answers.length,
      hits: answers.reduce((sum, answer) => sum + answer.hits.length, 0),
    },
  };
}

/** Applies a code to many hits as one change; where the code stands already nothing is added. */
export async function codeHits(
  em: EntityManager,
  maker: Maker,
  questionId: number,
  { on, hits, ...code }: CodeHits,
): Promise<number> {
  return inChange(em, async (tx) => {
    const answers = await rows<{ id: number; text: string; cuts: Cut[] }>(
      tx,
      `select r.id, r.text, ${cutsAsJson} as cuts
       from response r where r.question_id = :questionId and not r.no_answer and r.id = any(:ids::int[])`,
      { questionId, ids: [...new Set(hits.map((hit) => hit.responseId))] },
    );
    const { asides } = await tx.findOneOrFail(StudyEntity, maker.studyId);
    const placesIn = new Map(
      answers.map(({ id, text, cuts }) => {
        const lines = linesOf(text, asides, cuts).filter((line) => !line.isAside);
        const place = (hit: Span) => {
          if (hit.end > text.length) throw problems.passageOutside();
          if (on === 'answer') return null;
          return on === 'line' ? (lines[lineOfPassage(lines, hit)] ?? null) : hit;
        };
        return [id, place];
      }),
    );
    const diff: ChangeDiff = {};
    const name = await nameOrDraft(tx, maker, code, diff);
    const standing = await findMentions(
      tx,
      'm.code_id = :codeId and m.response_id = any(:responseIds::int[])',
      { codeId: code.codeId, responseIds: [...placesIn.keys()] },
    );
    const key = (one: Pick<Mention, 'responseId' | 'start' | 'end'>) =>
      `${one.responseId} ${one.start} ${one.end}`;
    const taken = new Set(standing.map(key));
    const createdAt = new Date().toISOString();
    const added = hits.flatMap(({ responseId, start, end }): Mention[] => {
      const placeOf = placesIn.get(responseId);
      if (!placeOf) throw problems.notFound('answer');
      const place = placeOf({ start, end });
      const mention: Mention = {
        id: randomUUID(),
        responseId,
        codeId: code.codeId,
        coderId: maker.accountId,
        start: place?.start ?? null,
        end: place?.end ?? null,
        origin: 'words',
        createdAt,
        typical: false,
      };
      if (taken.has(key(mention))) return [];
      taken.add(key(mention));
      return [mention];
    });
    if (added.length === 0) return 0;
    diff.mention = { added, updated: [], removed: [] };
    await makeChange(tx, {
      ...maker,
      summary: hitsTexts.codingSearchWords(name, added.length),
      diff,
    });
    return added.length;
  });
}
