import { Migration } from '@mikro-orm/migrations';

/** Excluded words and current runs are called so everywhere, in what is kept of changes, too. */
export class Migration20261201100000_excluded_words extends Migration {
  override async up(): Promise<void> {
    await this.execute(`
      alter table struck_word rename to excluded_word;
      alter table training_run rename column struck to excluded;
      alter table training_run rename column in_force_since to current_since;
      alter view run_in_force rename to current_run;
      update change set
        diff = replace(diff::text, '"struck_word":', '"excluded_word":')::json,
        touched = case when jsonb_exists(touched, 'struck_word')
          then touched - 'struck_word' || jsonb_build_object('excluded_word', touched->'struck_word')
          else touched end
      where jsonb_exists(touched, 'struck_word');
    `);
  }
}
