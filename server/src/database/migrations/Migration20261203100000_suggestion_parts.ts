import { Migration } from '@mikro-orm/migrations';

/**
 * What a suggestion's score is made of; null for those of earlier runs, whose parts are not known. Samples of answers
 * near in meaning to codes without examples.
 */
export class Migration20261203100000_suggestion_parts extends Migration {
  override async up(): Promise<void> {
    await this.execute(`
      alter table suggestion
        -- what its words together and the meaning of its line add to the log-odds
        add column from_words double precision,
        add column from_meaning double precision,
        -- the place of the line that it is for; null for the whole answer
        add column line smallint;
      create or replace view open_suggestion as
        select s.* from suggestion s
        where s.state = 'open'
          and exists (select 1 from code c where c.id = s.code_id)
          and not exists (select 1 from settlement t where t.response_id = s.response_id)
          and not exists (
            select 1 from mention m where m.response_id = s.response_id and m.code_id = s.code_id);
      alter table sample
        drop constraint sample_kind_check,
        add check (kind in ('random', 'stratified', 'most_telling', 'first_examples', 'check'));
    `);
  }
}
