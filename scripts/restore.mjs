// npm run restore -- FILE [--replace] [--trust] | --undo: puts a backup into the database that DATABASE_URL names, whole
// or not at all; or brings back what the last restore replaced.
import { runBuilt } from './lib/backupCommands.mjs';

runBuilt('restore');
