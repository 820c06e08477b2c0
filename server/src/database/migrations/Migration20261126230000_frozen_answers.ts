import { Migration } from '@mikro-orm/migrations';

/** The answers and their codes as they were when a write-up was frozen, some thousand rows a page, as gzipped JSON. */
export class Migration20261126230000_frozen_answers extends Migration {
  override async up(): Promise<void> {
    await this.execute(`
      create table frozen_answers (
        write_up_id uuid not null references write_up on delete cascade,
        page int not null,
        rows bytea not null,
        primary key (write_up_id, page)
      );
    `);
  }
}
