import { Migration } from '@mikro-orm/migrations';

export class Migration20261125230000_reports extends Migration {
  override async up(): Promise<void> {
    await this.execute(`
      -- a write-up with its tables; a frozen one keeps its figures as they were
      create table write_up (
        id uuid primary key,
        study_id int not null references study on delete cascade,
        name text not null,
        -- goes up with every saving, so that nobody writes over what they have not seen
        version int not null default 1,
        content jsonb not null,
        frozen jsonb,
        frozen_at timestamptz,
        copy_of uuid references write_up on delete set null,
        saved_by int not null references account,
        saved_at timestamptz not null default now(),
        check ((frozen is null) = (frozen_at is null))
      );
      create index on write_up (study_id, saved_at);
    `);
  }
}
