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
import type { TableDiff } from '@yellow-thread/core/coding';
import { keyOfSettled } from '@yellow-thread/core/merge';
import type { EntityManager } from '@mikro-orm/postgresql';
import { rows, type ChangeDiff } from '../database/index.js';
import type { Maker } from '../people/index.js';
import { accountFor } from './accounts.js';
import { readingsOf, type Merge } from './readMerge.js';

const nothing = () => ({ added: [], updated: [], removed: [] });

/** What the records of the copy become here. */
interface Placing {
  studyId: number;
  /** The id here: of what is here already, or a new one. */
  idFor: (origin: string) => string;
  /** The account of somebody, by the name under which both sides know them. */
  accountOf: (name: string) => Promise<number>;
}

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
  const copied = new Map<string, string>();
  const accounts = new Map(merge.our.accounts);
  const placing: Placing = {
    studyId,
    idFor(origin) {
      const known = merge.our.idHere(origin);
      if (known !== origin || isHere(merge.our, origin)) return known;
      const made = copied.get(origin) ?? randomUUID();
      copied.set(origin, made);
      return made;
    },
    async accountOf(name) {
      const id = accounts.get(name) ?? (await accountFor(tx, name));
      accounts.set(name, id);
      return id;
    },
  };
  const { readings, answers } = await secondReadings(tx, accountId, merge, placing);
  const diff: ChangeDiff = {
    theme: { ...nothing(), added: newThemes(merge, placing) },
    code: changedCodes(merge, placing),
    mention: await changedMentions(merge, placing),
    settlement: { ...nothing(), added: await newSettlements(merge, placing) },
    note: await changedNotes(merge, placing),
    second_reading: { ...nothing(), added: readings },
    second_reading_answer: { ...nothing(), added: answers },
  };
  return { diff, copied };
}

const afterAll = (records: ReadonlyMap<string, { position: number }>): number =>
  Math.max(0, ...[...records.values()].map(({ position }) => position)) + 1;

function newThemes({ our, their, merged }: Merge, { studyId, idFor }: Placing): Theme[] {
  const first = afterAll(our.records.themes);
  return merged.newThemes.map((id, i) => {
    const { name, ink, stitch } = their.records.themes.get(id)!;
    return { ...{ id: idFor(id), studyId, name, ink, stitch }, position: first + i };
  });
}

function changedCodes({ our, their, merged }: Merge, { studyId, idFor }: Placing): TableDiff<Code> {
  const first = afterAll(our.records.codes);
  const added = merged.newCodes.map((id, i): Code => {
    const code = their.records.codes.get(id)!;
    const themeId = merged.themeHere(code.theme_id);
    const questions = code.questions?.flatMap((one) => their.questionHere(one) ?? []) ?? null;
    return {
      ...{ id: idFor(id), studyId, themeId: themeId && idFor(themeId), name: code.name },
      ...{ definition: code.definition, include: code.include, exclude: code.exclude },
      ...{ position: first + i, archived: code.archived, questions },
    };
  });
  const updated = merged.updated.map(({ id, there }) => {
    const from = our.records.codes.get(id)!;
    return { from, to: { ...from, ...there, themeId: there.themeId && idFor(there.themeId) } };
  });
  return { added, updated, removed: [] };
}

async function changedMentions(
  { our, their, merged }: Merge,
  { idFor, accountOf }: Placing,
): Promise<TableDiff<Mention>> {
  const { mentions } = merged;
  const added: Mention[] = [];
  for (const [id, { answer, codeId, coder, start, end, typical }] of mentions.added) {
    const { origin, created_at } = their.records.mentions.get(id)!;
    added.push({
      ...{ id: idFor(id), responseId: answer, codeId: idFor(codeId) },
      ...{ coderId: await accountOf(coder), start, end, typical, origin },
      createdAt: new Date(created_at).toISOString(),
    });
  }
  const updated = mentions.updated.map(([id, { codeId, start, end, typical }]) => {
    const from = our.records.mentions.get(id)!;
    return { from, to: { ...from, codeId: idFor(codeId), start, end, typical } };
  });
  return { added, updated, removed: mentions.removed.map((id) => our.records.mentions.get(id)!) };
}

async function newSettlements(
  { their, merged }: Merge,
  { accountOf }: Placing,
): Promise<Settlement[]> {
  const added: Settlement[] = [];
  for (const one of merged.settlements) {
    const { settled_at, assisted } = their.records.settlements.get(keyOfSettled(one))!;
    added.push({
      ...{ responseId: one.answer, coderId: await accountOf(one.coder), assisted },
      settledAt: new Date(settled_at).toISOString(),
    });
  }
  return added;
}

async function changedNotes(
  { our, their, merged }: Merge,
  { studyId, idFor, accountOf }: Placing,
): Promise<TableDiff<Note>> {
  const added: Note[] = [];
  for (const id of merged.notes.added) {
    const note = their.records.notes.get(id)!;
    added.push({
      ...{ id: idFor(id), studyId, text: note.text, unsure: note.unsure },
      ...{ responseId: their.answerHere(note.response_id), start: note.start, end: note.end },
      respondentId: their.respondentHere(note.respondent_id),
      codeId: note.code_id === null ? null : idFor(merged.codeHere(note.code_id)),
      authorId: await accountOf(their.coderOf(note.author_id)),
      createdAt: new Date(note.created_at).toISOString(),
    });
  }
  const updated = merged.notes.updated.map((id) => {
    const from = our.records.notes.get(id)!;
    const { text, unsure } = their.records.notes.get(id)!;
    return { from, to: { ...from, text, unsure } };
  });
  return { added, updated, removed: merged.notes.removed.map((id) => our.records.notes.get(id)!) };
}

const isHere = ({ records }: Merge['our'], origin: string): boolean =>
  records.themes.has(origin) ||
  records.codes.has(origin) ||
  records.mentions.has(origin) ||
  records.notes.has(origin);

/** Answers that both settled apart, as readings that are done: ours first, theirs second. */
async function secondReadings(
  tx: EntityManager,
  drawnBy: number,
  { our, merged }: Merge,
  { studyId, idFor, accountOf }: Placing,
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
      ...{ drawnFrom: double.length, drawn: double.length, drawnBy },
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
