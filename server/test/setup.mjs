// Jest loads a TypeScript setup as CommonJS: tsx loads it as what it is.
import { tsImport } from 'tsx/esm/api';

export default async () => {
  const { prepareTemplate } = await tsImport('./databases.ts', import.meta.url);
  await prepareTemplate();
};
