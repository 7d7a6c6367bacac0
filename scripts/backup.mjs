// npm run backup -- FILE: everything of the database that DATABASE_URL names, as one compressed file.
import { runBuilt } from './lib/backupCommands.mjs';

runBuilt('backup');
