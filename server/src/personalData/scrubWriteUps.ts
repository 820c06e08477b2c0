import { promisify } from 'node:util';
import { gunzip, gzip } from 'node:zlib';
import { maskDetails } from '@yellow-thread/core/text';
import type { WriteUpContent, WriteUpNode } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import { FrozenAnswersEntity, rows, WriteUpEntity } from '../database/index.js';
import { personalDataTexts as texts } from '../wording/study.js';
import type { Traces } from './traces.js';

interface StoredWords {
  id: string;
  content: WriteUpContent;
  frozen: { quotes?: { text: string }[] } | null;
}

/**
 * Takes a respondent's words out of the write-ups and frozen copies of a study: out of their text where it quotes them,
 * out of the quotes to choose from, and out of the answers that a frozen copy keeps. Figures stay as they are.
 *
 * @returns how many held some
 */
export async function scrubWriteUps(
  em: EntityManager,
  studyId: number,
  traces: Traces,
): Promise<number> {
  const stored = await rows<StoredWords>(
    em,
    'select id, content, frozen from write_up where study_id = :studyId order by id',
    { studyId },
  );
  const touched = new Set<string>();
  for (const { id, content, frozen } of stored) {
    const isQuoted = quotesOf(traces, content.names);
    const body = content.body && withoutQuotes(content.body, isQuoted);
    const quotes = frozen?.quotes?.filter(({ text }) => !isQuoted(text, true));
    const isSame =
      JSON.stringify(body) === JSON.stringify(content.body) &&
      quotes?.length === frozen?.quotes?.length;
    if (isSame) continue;
    touched.add(id);
    await em.nativeUpdate(
      WriteUpEntity,
      { id },
      { content: { ...content, body }, ...(frozen && { frozen: { ...frozen, quotes } }) },
    );
  }
  for (const id of await scrubAnswers(em, studyId, traces)) touched.add(id);
  return touched.size;
}

/** Whether a text is, or holds in quotation marks, what a respondent said, as it is or masked. */
function quotesOf({ texts: whole, passages }: Traces, names: readonly string[]) {
  const said = [...whole, ...passages].map((text) => text.trim()).filter((text) => text !== '');
  const all = new Set(said.flatMap((text) => [text, maskDetails(text, names)]));
  return (text: string, isQuote: boolean): boolean =>
    (isQuote && all.has(text.trim())) ||
    [...all].some((one) => text.includes(`“${one}”`) || text.includes(`"${one}"`));
}

/** A text with each block of it replaced that quotes a respondent. */
function withoutQuotes(
  node: WriteUpNode,
  isQuoted: (text: string, isQuote: boolean) => boolean,
  isQuote = false,
): WriteUpNode {
  const within = isQuote || node.type === 'blockquote';
  if (node.type === 'paragraph' && isQuoted(plainText(node), within))
    return { ...node, content: [{ type: 'text', text: texts.wordsRemoved }] };
  const { content } = node;
  return {
    ...node,
    ...(content && { content: content.map((one) => withoutQuotes(one, isQuoted, within)) }),
  };
}

const plainText = ({ text = '', content = [] }: WriteUpNode): string =>
  text + content.map(plainText).join('');

/** Empties the rows of a respondent among the answers that frozen copies keep. */
async function scrubAnswers(
  em: EntityManager,
  studyId: number,
  { externalId }: Traces,
): Promise<Set<string>> {
  const touched = new Set<string>();
  const pages = await rows<{ writeUpId: string; page: number }>(
    em,
    `select f.write_up_id as "writeUpId", f.page from frozen_answers f
     join write_up w on w.id = f.write_up_id where w.study_id = :studyId order by 1, 2`,
    { studyId },
  );
  for (const key of pages) {
    // a page is let go of when the next is read
    const found = await em.findOneOrFail(FrozenAnswersEntity, key, { disableIdentityMap: true });
    const answers = JSON.parse(String(await promisify(gunzip)(found.rows))) as {
      respondent: string;
    }[];
    if (!answers.some(({ respondent }) => respondent === externalId)) continue;
    touched.add(key.writeUpId);
    const kept = answers.map((answer) =>
      answer.respondent === externalId
        ? { ...answer, respondent: texts.deleted, answer: texts.wordsRemoved, passage: '' }
        : answer,
    );
    await em.nativeUpdate(FrozenAnswersEntity, key, {
      rows: await promisify(gzip)(JSON.stringify(kept)),
    });
  }
  return touched;
}
