import { Migration } from '@mikro-orm/migrations';

export class Migration20261126010000_fewer_indexes extends Migration {
  override async up(): Promise<void> {
    await this.execute(`
      -- a study's respondents are read whole anyway; every import paid for it
      drop index respondent_import_id_idx;
    `);
  }
}
