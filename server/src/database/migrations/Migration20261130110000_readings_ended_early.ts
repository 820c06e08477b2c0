import { Migration } from '@mikro-orm/migrations';

/** How many answers of a second reading were drawn, which tells one that was ended early. */
export class Migration20261130110000_readings_ended_early extends Migration {
  override async up(): Promise<void> {
    // null for readings that were drawn before: how many of these were ended early is not known
    await this.execute('alter table second_reading add column drawn int');
  }
}
