import { openDatabase } from '../src/database/index.js';

const orm = await openDatabase(process.env['DATABASE_URL']!);
await orm.close();
