import type { EntityManager } from '@mikro-orm/postgresql';
import { rows } from '../database/index.js';

/** Where a respondent is found: in the study, and among what was deleted with an import and can still be restored. */
export interface Traces {
  externalId: string;
  respondentIds: number[];
  responseIds: number[];
  /** Every text of theirs, as it is and as it was before a correction. */
  texts: string[];
  /** Passages of these that a code was given to. */
  passages: string[];
  /** What is known of them now and was before, by the variables' ids. */
  backgrounds: Record<string, unknown>[];
}

/** The rows `b` of the bin that are a study's. */
const BIN_OF_STUDY = 'b.import_id in (select i.id from import i where i.study_id = :studyId)';

/** The rows `b` of the bin that are those of `:respondentIds` and `:responseIds` in the study `:studyId`. */
export const BIN_OF_RESPONDENT = `${BIN_OF_STUDY} and (
  (b."table" = 'respondent' and (b.row->>'id')::int = any(:respondentIds::int[]))
  or (b."table" = 'response' and (b.row->>'id')::int = any(:responseIds::int[]))
  or (b.row->>'respondent_id')::int = any(:respondentIds::int[])
  or (b.row->>'response_id')::int = any(:responseIds::int[]))`;

/** Finds a respondent by the id that the survey gave them. */
export async function findTraces(
  em: EntityManager,
  studyId: number,
  externalId: string,
): Promise<Traces> {
  const people = await rows<{ id: number }>(
    em,
    `select id from respondent where study_id = :studyId and external_id = :externalId
     union select (b.row->>'id')::int from bin_row b
       where ${BIN_OF_STUDY} and b."table" = 'respondent' and b.row->>'external_id' = :externalId`,
    { studyId, externalId },
  );
  const respondentIds = people.map(({ id }) => id);
  const answers = await rows<{ id: number; text: string }>(
    em,
    `select id, text from response where respondent_id = any(:respondentIds::int[])
     union select r.id, o.text from import_before_response o join response r on r.id = o.response_id
       where r.respondent_id = any(:respondentIds::int[]) and o.text is not null
     union select (b.row->>'id')::int, b.row->>'text' from bin_row b
       where ${BIN_OF_STUDY} and b."table" = 'response'
         and (b.row->>'respondent_id')::int = any(:respondentIds::int[])`,
    { studyId, respondentIds },
  );
  const responseIds = [...new Set(answers.map(({ id }) => id))];
  const textsOf = (id: number) => answers.filter((one) => one.id === id).map(({ text }) => text);
  const places = await rows<{ responseId: number; start: number; end: number }>(
    em,
    `select response_id as "responseId", start, "end" from mention
       where response_id = any(:responseIds::int[]) and start is not null
     union select (b.row->>'response_id')::int, (b.row->>'start')::int, (b.row->>'end')::int
       from bin_row b where ${BIN_OF_STUDY} and b."table" = 'mention'
         and (b.row->>'response_id')::int = any(:responseIds::int[]) and b.row->>'start' is not null`,
    { studyId, responseIds },
  );
  const known = await rows<{ background: Record<string, unknown> }>(
    em,
    `select background from respondent where id = any(:respondentIds::int[])
     union all select background from import_before where respondent_id = any(:respondentIds::int[])
     union all select b.row->'background' from bin_row b
       where ${BIN_OF_STUDY} and b."table" = 'respondent'
         and (b.row->>'id')::int = any(:respondentIds::int[])
     union all select side.one->'background' from change c
       cross join lateral jsonb_array_elements(c.diff::jsonb->'respondent'->'updated') u
       cross join lateral (values (u->'from'), (u->'to')) side (one)
       where c.study_id = :studyId and jsonb_exists(c.touched, 'respondent')
         and (side.one->>'id')::int = any(:respondentIds::int[])`,
    { studyId, respondentIds },
  );
  const passages = places.flatMap(({ responseId, start, end }) =>
    textsOf(responseId).map((text) => text.slice(start, end)),
  );
  return {
    ...{ externalId, respondentIds, responseIds },
    texts: [...new Set(answers.map(({ text }) => text))],
    passages: [...new Set(passages)],
    backgrounds: known.map(({ background }) => background),
  };
}
