import { Migration } from '@mikro-orm/migrations';

export class Migration20261126020000_pictures extends Migration {
  override async up(): Promise<void> {
    await this.execute(`
      -- charts in write-ups; never changed, so that a frozen copy can share them
      create table picture (
        id uuid primary key,
        study_id int not null references study on delete cascade,
        png bytea not null,
        kept_at timestamptz not null default now()
      );
      create index on picture (study_id);
    `);
  }
}
