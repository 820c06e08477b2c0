import type { MentionOrderQuery } from '@yellow-thread/contract';
import { blankAsides } from '@yellow-thread/core/text';
import type { EntityManager } from '@mikro-orm/postgresql';
import { StudyEntity } from '../database/index.js';
import type { Threads } from '../jobs/index.js';
import { vectorsOfTexts } from '../sentences/index.js';
import { readMentionsOfCode } from './mentionsOfCode.js';

/**
 * The mentions of some codes as they are sorted into piles: each beside those like it, or those first that are most like
 * some of them; in meaning too, where the study is read for it.
 *
 * @throws Problem not_found for a code of another study
 */
export async function orderMentions(
  em: EntityManager,
  threads: Threads,
  studyId: number,
  { codes, like }: MentionOrderQuery,
): Promise<{ mentions: string[] }> {
  const { asides } = await em.findOneOrFail(StudyEntity, studyId);
  const ids: string[] = [];
  const texts: string[] = [];
  for (const code of codes)
    for (const one of (await readMentionsOfCode(em, studyId, code)).mentions) {
      ids.push(one.id);
      texts.push(blankAsides(one.text, asides).slice(one.start ?? 0, one.end ?? one.text.length));
    }
  const vectors = await vectorsOfTexts(em, studyId, texts);
  if (!like) {
    const { order } = await threads.run('orderAlike', { texts, vectors, unread: texts });
    return { mentions: order.map((i) => ids[i]!) };
  }
  const liked = new Set(like);
  const these = texts.filter((_, i) => liked.has(ids[i]!));
  const likeness = await threads.run('alikeTo', { texts, vectors, unread: texts, these });
  const order = [...likeness.keys()].sort((x, y) => likeness[y]! - likeness[x]! || x - y);
  return { mentions: order.map((i) => ids[i]!) };
}
