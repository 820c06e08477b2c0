import { Migration } from '@mikro-orm/migrations';

/** What is kept of answers while people code them is their words, too: they count as written where these change. */
export class Migration20261126220000_written_texts extends Migration {
  override async up(): Promise<void> {
    await this.execute(`
      drop trigger written on response;
      create trigger written after insert or delete or truncate
        or update of id, question_id, respondent_id, no_answer, text, same
        on response for each statement execute function note_written('answers');
      alter table response enable always trigger written;
    `);
  }
}
