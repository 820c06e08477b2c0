import { Migration } from '@mikro-orm/migrations';

/** Where each person stopped in a study; studies that are archived, and those being deleted; words set aside. */
export class Migration20261130100000_where_one_stopped extends Migration {
  override async up(): Promise<void> {
    await this.execute(`
      alter table membership
        add column opened_at timestamptz,
        -- the address within the study
        add column place text,
        add column hides_next_steps boolean not null default false;
      alter table study
        add column archived_at timestamptz,
        -- nobody can open it any more; a job deletes what is in it
        add column deleted_at timestamptz,
        -- words that a first look leaves out; null for none
        add column set_aside jsonb;
      alter table job drop constraint job_kind_check;
      alter table job add constraint job_kind_check
        check (kind in ('read', 'import', 'undo_import', 'restore_import', 'train', 'delete_study'));
    `);
  }
}
