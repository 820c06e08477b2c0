import { Migration } from '@mikro-orm/migrations';

/** What the ids of a study that was opened from a copy were in the study that it was copied from first. */
export class Migration20261205140000_copied_ids extends Migration {
  override async up(): Promise<void> {
    await this.execute(`
      create table copied_id (
        study_id integer not null references study on delete cascade,
        id uuid not null,
        origin uuid not null,
        primary key (study_id, id)
      );
    `);
  }
}
