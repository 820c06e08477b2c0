import { randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import path from 'node:path';
import { INKS, STITCHES } from '@yellow-thread/core/codebook';
import { NO_ANSWERS } from '@yellow-thread/core/sheet';
import type { EntityManager } from '@mikro-orm/postgresql';
import { z } from 'zod';
import {
  copyRows,
  rows,
  MembershipEntity,
  QuestionEntity,
  SampleEntity,
  StudyEntity,
} from '../database/index.js';
import { enqueueJob } from '../jobs/index.js';
import { enqueueEncoding } from '../sentences/index.js';
import { TRAINING_SEED } from '../learning/index.js';
import { importFile } from '../sheet/index.js';

const SHEET = 'brindle-sound.csv';

/** What `demo/` makes beside the sheet: the codebook and the hand-coded sample. */
const demoSchema = z.object({
  name: z.string(),
  purpose: z.string(),
  labels: z.array(z.string()),
  themes: z.array(
    z.object({
      name: z.string(),
      codes: z.array(
        z.object({
          key: z.string(),
          name: z.string(),
          definition: z.string(),
          include: z.string(),
          exclude: z.string(),
        }),
      ),
    }),
  ),
  samples: z.array(
    z.object({
      seed: z.number(),
      answers: z.array(
        z.object({
          row: z.number(),
          mentions: z.array(
            z.object({
              code: z.string(),
              start: z.number().nullable(),
              end: z.number().nullable(),
            }),
          ),
        }),
      ),
    }),
  ),
});

/**
 * Brings the demo study in once: the sheet by the same way as any other, its codebook, a random sample
 * coded by the demo researcher, and the first training of each question.
 *
 * @param folder where the demo's files are
 * @param members accounts that may enter it; the first one is the coder
 */
export async function loadDemoStudy(em: EntityManager, folder: string, members: number[]) {
  await em.transactional(async (tx) => {
    const [loaded] = await rows(
      tx,
      `insert into setting (key, value) values ('demo_loaded', 'yes')
       on conflict do nothing returning key`,
    );
    if (!loaded) return;
    const content = await readFile(path.join(folder, SHEET));
    const study = demoSchema.parse(
      JSON.parse(await readFile(path.join(folder, 'study.json'), 'utf8')),
    );
    const coderId = members[0]!;
    const studyId = await tx.insert(StudyEntity, {
      name: study.name,
      purpose: study.purpose,
      noAnswers: [...NO_ANSWERS],
    });
    for (const accountId of members)
      await tx.insert(MembershipEntity, { studyId, accountId, role: 'owner' });

    const written = await importFile(tx, {
      studyId,
      accountId: coderId,
      fileName: SHEET,
      content,
    });
    const questions = await tx.find(
      QuestionEntity,
      { studyId },
      { fields: ['id'], orderBy: { position: 'asc' } },
    );
    const codeIds = await writeCodebook(tx, studyId, study.themes);
    for (const [q, question] of questions.entries()) {
      await tx.nativeUpdate(QuestionEntity, { id: question.id }, { label: study.labels[q]! });
      const sampleId = await tx.insert(SampleEntity, {
        questionId: question.id,
        kind: 'random',
        seed: study.samples[q]!.seed,
      });
      const now = new Date().toISOString();
      const coded = study.samples[q]!.answers.map((answer) => ({
        id: written.first + q * written.respondents + answer.row,
        mentions: answer.mentions,
      }));
      await copyRows(
        tx,
        'sample_member',
        ['sample_id', 'response_id'],
        coded.map(({ id }) => [sampleId, id]),
      );
      await copyRows(
        tx,
        'settlement',
        ['response_id', 'coder_id', 'settled_at'],
        coded.map(({ id }) => [id, coderId, now]),
      );
      await copyRows(
        tx,
        'mention',
        ['id', 'response_id', 'code_id', 'coder_id', 'start', 'end', 'origin', 'created_at'],
        coded.flatMap(({ id, mentions }) =>
          mentions.map(({ code, start, end }) => [
            randomUUID(),
            id,
            codeIds.get(code)!,
            coderId,
            start,
            end,
            'hand',
            now,
          ]),
        ),
      );
      await enqueueJob(tx, {
        kind: 'train',
        studyId,
        questionId: question.id,
        accountId: coderId,
        payload: { seed: TRAINING_SEED },
      });
    }
    await enqueueEncoding(tx, { studyId, accountId: coderId });
  });
}

/** @returns the ids of the codes by their keys in the demo's files */
async function writeCodebook(
  em: EntityManager,
  studyId: number,
  themes: z.infer<typeof demoSchema>['themes'],
): Promise<Map<string, string>> {
  const codeIds = new Map<string, string>();
  const placed = themes.map((theme, position) => ({ ...theme, id: randomUUID(), position }));
  await copyRows(
    em,
    'theme',
    ['id', 'study_id', 'name', 'ink', 'stitch', 'position'],
    placed.map(({ id, name, position }) => [
      id,
      studyId,
      name,
      INKS[position % INKS.length]!,
      STITCHES[position % STITCHES.length]!,
      position,
    ]),
  );
  const codes = placed.flatMap((theme) =>
    theme.codes.map((code) => ({ ...code, themeId: theme.id })),
  );
  await copyRows(
    em,
    'code',
    ['id', 'study_id', 'theme_id', 'name', 'definition', 'include', 'exclude', 'position'],
    codes.map((code, position) => {
      const id = randomUUID();
      codeIds.set(code.key, id);
      const { themeId, name, definition, include, exclude } = code;
      return [id, studyId, themeId, name, definition, include, exclude, position];
    }),
  );
  return codeIds;
}
