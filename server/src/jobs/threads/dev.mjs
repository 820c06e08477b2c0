// Development and tests only: on Node 20 `--import tsx` does not reach a worker's module loader, so the
// thread starts from this plain file, registers tsx inside, then loads the TypeScript.
import { register } from 'tsx/esm/api';
register();
const { default: work } = await import('./thread.ts');
export default work;
