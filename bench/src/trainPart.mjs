// On Node 20 `--import tsx` does not reach a worker's module loader: the thread registers tsx for itself.
import { register } from 'tsx/esm/api';
register();
await import('./trainPart.ts');
