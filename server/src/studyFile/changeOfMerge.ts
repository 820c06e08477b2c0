import { randomUUID } from 'node:crypto';
import type {
  Code,
  Mention,
  Note,
  SecondReading,
  SecondReadingAnswer,
  Settlement,
  Theme,
} from '@yellow-thread/contract';
import { keyOfSettled } from '@yellow-thread/core/merge';
import type { EntityManager } from '@mikro-orm/postgresql';
import { rows, type ChangeDiff } from '../database/index.js';
import type { Maker } from '../people/index.js';
import { accountFor } from './accounts.js';
import { readingsOf, type Merge } from './readMerge.js';

const nothing = () => ({ added: [], updated: [], removed: [] });

/**
 * A merge as a change of the study's records.
 *
 * @returns with it, the ids that records get here by those that they have in the copy
 */
export async function changeOfMerge(
  tx: EntityManager,
  { studyId, accountId }: Maker,
  merge: Merge,
): Promise<{ diff: ChangeDiff; copied: Map<string, string> }> {
  const { our, their, merged } = merge;
  const { records } = our;
  const copied = new Map<string, string>();
  /** The id here: of what is here already, or one that nothing has. */
  const idFor = (origin: string): string => {
    const known = our.idHere(origin);
    if (known !== origin || isHere(our, origin)) return known;
    const made = copied.get(origin) ?? randomUUID();
    copied.set(origin, made);
    return made;
  };
  const accounts = new Map(our.accounts);
  const accountOf = async (name: string): Promise<number> => {
    const id = accounts.get(name) ?? (await accountFor(tx, name));
    accounts.set(name, id);
    return id;
  };
  const last = Math.max(0, ...[...records.codes.values()].map(({ position }) => position));
  const lastTheme = Math.max(0, ...[...records.themes.values()].map(({ position }) => position));

  const themes = merged.newThemes.map((id, i): Theme => {
    const { name, ink, stitch } = their.records.themes.get(id)!;
    return { ...{ id: idFor(id), studyId, name, ink, stitch }, position: lastTheme + 1 + i };
  });
  const themeId = (origin: string | null) => {
    const here = merged.themeHere(origin);
    return here === null ? null : idFor(here);
  };
  const codes = merged.newCodes.map((id, i): Code => {
    const code = their.records.codes.get(id)!;
    const questions = code.questions?.flatMap((one) => their.questionHere(one) ?? []) ?? null;
    return {
      ...{ id: idFor(id), studyId, themeId: themeId(code.theme_id), name: code.name },
      ...{ definition: code.definition, include: code.include, exclude: code.exclude },
      ...{ position: last + 1 + i, archived: code.archived, questions },
    };
  });
  const updatedCodes = merged.updated.map(({ id, there }) => {
    const from = records.codes.get(id)!;
    return { from, to: { ...from, ...there, themeId: there.themeId && idFor(there.themeId) } };
  });

  const mentions: Mention[] = [];
  for (const [id, { answer, codeId, coder, start, end, typical }] of merged.mentions.added) {
    const { origin, created_at } = their.records.mentions.get(id)!;
    mentions.push({
      ...{ id: idFor(id), responseId: answer, codeId: idFor(codeId) },
      ...{ coderId: await accountOf(coder), start, end, typical, origin },
      createdAt: new Date(created_at).toISOString(),
    });
  }
  const updatedMentions = merged.mentions.updated.map(([id, { codeId, start, end, typical }]) => {
    const from = records.mentions.get(id)!;
    return { from, to: { ...from, codeId: idFor(codeId), start, end, typical } };
  });
  const settlements: Settlement[] = [];
  for (const { answer, coder } of merged.settlements) {
    const { settled_at, assisted } = their.records.settlements.get(
      keyOfSettled({ answer, coder }),
    )!;
    settlements.push({
      ...{ responseId: answer, coderId: await accountOf(coder), assisted },
      settledAt: new Date(settled_at).toISOString(),
    });
  }
  const notes: Note[] = [];
  for (const id of merged.notes.added) {
    const note = their.records.notes.get(id)!;
    notes.push({
      ...{ id: idFor(id), studyId, text: note.text, unsure: note.unsure },
      ...{ responseId: their.answerHere(note.response_id), start: note.start, end: note.end },
      respondentId: their.respondentHere(note.respondent_id),
      codeId: note.code_id === null ? null : idFor(merged.codeHere(note.code_id)),
      authorId: await accountOf(their.coderOf(note.author_id)),
      createdAt: new Date(note.created_at).toISOString(),
    });
  }
  const updatedNotes = merged.notes.updated.map((id) => {
    const from = records.notes.get(id)!;
    const { text, unsure } = their.records.notes.get(id)!;
    return { from, to: { ...from, text, unsure } };
  });
  const { readings, answers } = await secondReadings(tx, { studyId, accountId }, merge, {
    ...{ idFor, accountOf },
  });
  return {
    copied,
    diff: {
      theme: { ...nothing(), added: themes },
      code: { ...nothing(), added: codes, updated: updatedCodes },
      mention: {
        added: mentions,
        updated: updatedMentions,
        removed: merged.mentions.removed.map((id) => records.mentions.get(id)!),
      },
      settlement: { ...nothing(), added: settlements },
      note: {
        added: notes,
        updated: updatedNotes,
        removed: merged.notes.removed.map((id) => records.notes.get(id)!),
      },
      second_reading: { ...nothing(), added: readings },
      second_reading_answer: { ...nothing(), added: answers },
    },
  };
}

const isHere = ({ records }: Merge['our'], origin: string): boolean =>
  records.themes.has(origin) ||
  records.codes.has(origin) ||
  records.mentions.has(origin) ||
  records.notes.has(origin);

/** Answers that both settled apart, as readings that are done: ours first, theirs second. */
async function secondReadings(
  tx: EntityManager,
  { studyId, accountId }: Maker,
  { our, merged }: Merge,
  {
    idFor,
    accountOf,
  }: { idFor: (origin: string) => string; accountOf: (name: string) => Promise<number> },
): Promise<{ readings: SecondReading[]; answers: SecondReadingAnswer[] }> {
  const readings: SecondReading[] = [];
  const answers: SecondReadingAnswer[] = [];
  for (const { questionId, coder, answers: double } of readingsOf(merged, our)) {
    const id = randomUUID();
    const first = await rows<{ coderId: number }>(
      tx,
      `select distinct coder_id as "coderId" from settlement
       where response_id = any(:responses::int[]) order by 1`,
      { responses: double.map(({ answer }) => answer) },
    );
    readings.push({
      ...{ id, studyId, questionId, readerId: await accountOf(coder) },
      firstCoders: first.map(({ coderId }) => coderId),
      ...{ drawnFrom: double.length, drawn: double.length, drawnBy: accountId },
      drawnAt: new Date().toISOString(),
    });
    for (const { answer, here, there } of double)
      answers.push({
        ...{ readingId: id, responseId: answer, verdicts: {} },
        firstCodes: here.map(idFor),
        secondCodes: there.map(idFor),
      });
  }
  return { readings, answers };
}
