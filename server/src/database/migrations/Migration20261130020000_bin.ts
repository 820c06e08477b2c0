import { Migration } from '@mikro-orm/migrations';

/** What was deleted lies in a bin for some time: imports that were taken back row by row, write-ups where they were. */
export class Migration20261130020000_bin extends Migration {
  override async up(): Promise<void> {
    await this.execute(`
      create table bin_row (
        import_id int not null references import on delete cascade,
        -- deleted; cut: only its link to something deleted; overwritten: what it was before
        what text not null check (what in ('deleted', 'cut', 'overwritten')),
        "table" text not null,
        "column" text,
        row jsonb not null
      );
      create index on bin_row (import_id, "table");
      alter table write_up
        add column binned_at timestamptz,
        add column binned_by int references account;
      alter table job drop constraint job_kind_check;
      alter table job add constraint job_kind_check
        check (kind in ('read', 'import', 'undo_import', 'restore_import', 'train'));
    `);
  }
}
