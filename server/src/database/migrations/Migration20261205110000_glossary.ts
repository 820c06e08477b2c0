import { Migration } from '@mikro-orm/migrations';

/** Words of a study's own, with what they mean there. */
export class Migration20261205110000_glossary extends Migration {
  override async up(): Promise<void> {
    await this.execute(`
      create table glossary_term (
        id uuid primary key,
        study_id integer not null references study on delete cascade,
        term text not null,
        meaning text not null
      );
      create unique index on glossary_term (study_id, lower(term));
    `);
  }
}
