import { Migration } from '@mikro-orm/migrations';

/**
 * Which transactions wrote who there is, or who answered what: so many rows are seen by whoever sees what they wrote.
 * Coding changes all the time and these hardly ever, so that what was read of them is kept meanwhile.
 */
export class Migration20261126080000_written extends Migration {
  override async up(): Promise<void> {
    await this.execute(`
      create table written (
        what text not null check (what in ('people', 'answers')),
        xact xid8 not null default pg_current_xact_id(),
        primary key (what, xact)
      );
      create function note_written() returns trigger language plpgsql as $$
      begin
        insert into written (what) values (tg_argv[0]) on conflict do nothing;
        return null;
      end $$;
      create trigger written after insert or delete or truncate
        or update of id, study_id, weight, background
        on respondent for each statement execute function note_written('people');
      create trigger written after insert or update or delete or truncate
        on variable for each statement execute function note_written('people');
      create trigger written after insert or update or delete or truncate
        on category for each statement execute function note_written('people');
      create trigger written after insert or delete or truncate
        or update of id, question_id, respondent_id, no_answer
        on response for each statement execute function note_written('answers');
      -- an import, which checks its keys itself, sets other triggers aside
      alter table respondent enable always trigger written;
      alter table variable enable always trigger written;
      alter table category enable always trigger written;
      alter table response enable always trigger written;
    `);
  }
}
