import { createHash } from 'node:crypto';
import { forEachInBoth, has } from '@yellow-thread/core/groups';
import { foldForSearch } from '@yellow-thread/core/text';
import type { EntityManager } from '@mikro-orm/postgresql';
import { asCode } from '../codebook/index.js';
import { CodeEntity, QuestionEntity, rows, VariableEntity } from '../database/index.js';
import { readLabels, readMaterial, readPeople } from '../groups/index.js';
import type { RespondentField, RespondentValue } from './files/index.js';
import { respondentTableTexts } from '../wording/report.js';

export interface RespondentTable {
  fields: RespondentField[];
  pages: () => AsyncGenerator<RespondentValue[][]>;
}

/** Rows are read in pages of so many values, whatever their number of columns. */
const PAGE_VALUES = 100_000;
const MOST_ROWS = 500;
type Value = string | number | boolean | null;

/**
 * One row a respondent: id, weight, background, and for each question whether it was answered and settled, how many
 * mentions there are, and a column of 0 and 1 a code; empty where that is not decided.
 *
 * @param within ids of the respondents that are wanted; null for everybody
 */
export async function readRespondentTable(
  em: EntityManager,
  studyId: number,
  within: readonly number[] | null,
): Promise<RespondentTable> {
  const people = await readPeople(em, studyId);
  const variables = await em.find(VariableEntity, { studyId }, { orderBy: { position: 'asc' } });
  const questions = await em.find(QuestionEntity, { studyId }, { orderBy: { position: 'asc' } });
  const stored = await em.find(CodeEntity, { studyId }, { orderBy: { position: 'asc' } });
  const codes = stored.map(asCode);
  const name = namer();
  const fields: RespondentField[] = [
    {
      ...{ name: name('id'), type: 'string', title: respondentTableTexts.respondent },
      description: respondentTableTexts.surveysOwnId,
    },
  ];
  const readers: ((i: number, background: Record<string, Value>, id: string) => RespondentValue)[] =
    [(_, __, id) => id];
  if (people.weights) {
    const { weights } = people;
    fields.push({
      ...{ name: name('weight'), type: 'number', title: respondentTableTexts.weight },
      description: respondentTableTexts.howManyRespondentsOne,
    });
    readers.push((i) => weights[i]!);
  }
  for (const { id, name: title, kind, derived } of variables) {
    const isCategory = kind === 'category' || derived;
    const labelOf = isCategory ? await readLabels(em, studyId, id) : null;
    fields.push({
      name: name(title),
      type: isCategory
        ? 'string'
        : ({ number: 'number', date: 'date', yes_no: 'integer', category: 'string' } as const)[
            kind
          ],
      title,
      description:
        kind === 'yes_no' ? respondentTableTexts.background1Yes0 : respondentTableTexts.background,
    });
    readers.push((i, background) => {
      if (labelOf) return labelOf(people.ids[i]!);
      const value = background[id] ?? null;
      return typeof value === 'boolean' ? Number(value) : value;
    });
  }
  for (const [q, question] of questions.entries()) {
    const material = await readMaterial(em, people, question.id);
    const prefix = `q${q + 1}`;
    const add = (
      suffix: string,
      description: string,
      read: (i: number) => RespondentValue,
      title = question.label,
    ) => {
      fields.push({ name: name(`${prefix}_${suffix}`), type: 'integer', title, description });
      readers.push(read);
    };
    const flag = (holds: boolean) => (holds ? 1 : 0);
    add('asked', respondentTableTexts.n1WhenAsked(question.wording), (i) =>
      flag(has(material.asked, i)),
    );
    add('answered', respondentTableTexts.n1WhenAnswered, (i) => flag(has(material.answered, i)));
    add('settled', respondentTableTexts.n1WhenCodesAnswer, (i) => flag(has(material.decided, i)));
    const counts = new Map<number, number>();
    const count = (i: number) => counts.set(i, (counts.get(i) ?? 0) + 1);
    for (const id of material.codes.keys()) {
      const { mentioned, again } = material.rowOf(id, 'decided');
      forEachInBoth(mentioned, material.answered, count);
      for (const i of again) if (has(material.answered, i)) count(i);
    }
    add('mentions', respondentTableTexts.howManyMentionsAnswer, (i) =>
      has(material.answered, i) ? (counts.get(i) ?? 0) : null,
    );
    for (const code of codes) {
      if (!material.codes.has(code.id)) continue;
      const { mentioned, undecided } = material.rowOf(code.id, 'decided');
      add(
        code.name,
        `1 when the answer mentions “${code.name}”, 0 when not, empty where that is not decided${code.definition && `. ${code.definition}`}`,
        (i) =>
          has(material.answered, i) && !(undecided && has(undecided, i))
            ? flag(has(mentioned, i))
            : null,
        `${question.label}: ${code.name}`,
      );
    }
  }
  const wanted = within ? [...within].sort((x, y) => x - y) : [...people.ids];
  const size = Math.max(1, Math.min(MOST_ROWS, Math.floor(PAGE_VALUES / fields.length)));
  return {
    fields,
    pages: async function* () {
      for (let at = 0; at < wanted.length; at += size) {
        const ids = wanted.slice(at, at + size);
        const page = await rows<{
          id: number;
          externalId: string;
          background: Record<string, Value>;
        }>(
          em,
          `select id, external_id as "externalId", background from respondent
           where id = any(?::int[]) order by id`,
          [ids],
        );
        yield page.map(({ id, externalId, background }) => {
          const i = people.indexOf(id);
          return readers.map((read) => read(i, background, externalId));
        });
      }
    },
  };
}

const LONGEST = 32;

/** Names that statistics packages take: letters, digits and underscores, each once, no longer than 32. */
function namer(): (wanted: string) => string {
  const taken = new Set<string>();
  return (wanted) => {
    const plain = foldForSearch(wanted)
      .replaceAll(/[^a-z0-9]+/gu, '_')
      .replaceAll(/^_+|_+$/gu, '');
    // a name in letters that are not Latin keeps its place by a mark of its own
    const marked =
      plain.replace(/^q\d+$/u, '') ||
      `${plain}_${createHash('sha256').update(wanted).digest('hex').slice(0, 6)}`;
    const start = (/^[a-z]/u.test(marked) ? marked : `v_${marked}`).replaceAll(/_+/gu, '_');
    for (let i = 1; ; i++) {
      const end = i === 1 ? '' : `_${i}`;
      const name = start.slice(0, LONGEST - end.length) + end;
      if (taken.has(name)) continue;
      taken.add(name);
      return name;
    }
  };
}
