import type { EntityManager } from '@mikro-orm/postgresql';
import type { AuditEntry } from '@yellow-thread/contract';
import { AuditEntity, isoTime, rows } from '../database/index.js';

/** What is noted of who did what: never what was written, or what something is called. */
export type AuditAction =
  | 'signed_in'
  | 'sign_in_refused'
  | 'entered_demo'
  | 'signed_out'
  | 'password_chosen'
  | 'password_reset_offered'
  | 'password_reset'
  | 'session_ended'
  | 'invited'
  | 'invitation_withdrawn'
  | 'invitation_used'
  | 'role_changed'
  | 'member_removed'
  | 'respondent_deleted'
  | 'study_archived'
  | 'study_unarchived'
  | 'study_deleted'
  | 'import_taken_back'
  | 'import_restored'
  | 'write_up_deleted'
  | 'write_up_restored'
  | 'exported';

export interface AuditNote {
  action: AuditAction;
  accountId: number | null;
  studyId?: number;
  /** Ids, kinds and addresses. */
  details?: Record<string, string | number>;
}

/** Notes that something was done. Within a change it is noted only if the change is kept. */
export const noteInAudit = (
  em: EntityManager,
  { action, accountId, studyId, details = {} }: AuditNote,
): Promise<unknown> =>
  em.insert(AuditEntity, { action, accountId, studyId: studyId ?? null, details });

/** What was noted before an entry, latest first. */
export const readAudit = (
  em: EntityManager,
  { before = Number.MAX_SAFE_INTEGER, most }: { before?: number | undefined; most: number },
): Promise<AuditEntry[]> =>
  rows(
    em,
    `select a.id::int as id, ${isoTime('a.at')} as at, a.action, a.account_id as "accountId",
       c.name as account, a.study_id as "studyId", a.details
     from audit a left join account c on c.id = a.account_id
     where a.id < :before order by a.id desc limit :most`,
    { before, most },
  );
