import type { LineCut } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import { inChange, makeChange, rows } from '../database/index.js';
import type { Maker } from '../people/index.js';
import { problems } from '../wording/problems.js';
import { findResponse } from './responses.js';
import { linesTexts } from '../wording/coding.js';

/** Parts or joins a line of an answer, or leaves it as the text has it. */
export async function editLine(
  em: EntityManager,
  maker: Maker,
  responseId: number,
  { at, line }: { at: number; line: 'split' | 'joined' | 'as_written' },
) {
  await inChange(em, async (tx) => {
    const { text } = await findResponse(tx, maker.studyId, responseId);
    if (at >= text.length) throw problems.passageOutside();
    const [standing] = await rows<LineCut>(
      tx,
      `select response_id as "responseId", at, joined from line_cut where response_id = :responseId and at = :at`,
      { responseId, at },
    );
    const wanted: LineCut | null =
      line === 'as_written' ? null : { responseId, at, joined: line === 'joined' };
    if (standing?.joined === wanted?.joined) return;
    await makeChange(tx, {
      ...maker,
      summary: line === 'joined' ? linesTexts.joiningTwoLines : linesTexts.partingLine,
      diff: {
        line_cut: {
          added: wanted && !standing ? [wanted] : [],
          updated: wanted && standing ? [{ from: standing, to: wanted }] : [],
          removed: standing && !wanted ? [standing] : [],
        },
      },
    });
  });
}
