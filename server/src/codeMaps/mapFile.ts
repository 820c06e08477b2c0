import type { Code, DrawnMap, MapFormat, Theme } from '@yellow-thread/contract';
import { writeCsv } from '@yellow-thread/core/exchange';
import { writeGraphml } from '../exchange/index.js';
import { mapFileTexts as texts } from '../wording/codeMaps.js';

/** A map as a file: its relations as a table, or all of it as a graph. */
export function mapFile(
  { nodes, relations, pins }: DrawnMap,
  { codes, themes }: { codes: readonly Code[]; themes: readonly Theme[] },
  format: MapFormat,
): string {
  const codeOf = new Map(codes.map((code) => [code.id, code]));
  const themeOf = new Map(themes.map((theme) => [theme.id, theme]));
  const nameOf = new Map(
    nodes.map(({ id, codeId, themeId }) => [
      id,
      codeId === null ? themeOf.get(themeId!)!.name : codeOf.get(codeId)!.name,
    ]),
  );
  const pinned = (id: string) => pins.filter((pin) => (pin.nodeId ?? pin.relationId) === id);
  if (format === 'csv')
    return writeCsv([
      [texts.from, texts.relation, texts.to, texts.direction, texts.note, texts.answers],
      ...relations.map(({ id, fromNode, toNode, label, directed, note }) => [
        nameOf.get(fromNode)!,
        label,
        nameOf.get(toNode)!,
        directed ? texts.directed : texts.undirected,
        note,
        pinned(id)
          .map(({ text }) => text)
          .join('\n'),
      ]),
    ]);
  return writeGraphml({
    id: 'codes',
    nodes: nodes.map(({ id, codeId, themeId, x, y }) => {
      const theme = codeId === null ? null : themeOf.get(codeOf.get(codeId)!.themeId ?? '');
      return {
        id: `n${id}`,
        data: {
          ...{ label: nameOf.get(id)!, kind: themeId === null ? 'code' : 'theme' },
          ...{ theme: theme?.name ?? null, x, y, pinned: pinned(id).length },
        },
      };
    }),
    edges: relations.map(({ id, fromNode, toNode, label, directed, note }) => ({
      ...{ from: `n${fromNode}`, to: `n${toNode}`, directed },
      data: { label, note: note === '' ? null : note, pinned: pinned(id).length },
    })),
  });
}
