import { Migration } from '@mikro-orm/migrations';

export class Migration20261126030000_learnt_from_bulk extends Migration {
  override async up(): Promise<void> {
    await this.execute(`
      alter table training_run add column learnt_from_bulk boolean not null default false;
    `);
  }
}
