import type { ToneCell, ToneReport } from '@yellow-thread/contract';
import { writeCsv } from '@yellow-thread/core/exchange';
import { toneFileTexts as texts } from '../wording/tone.js';

/** The tone of themes and codes as a table: a row for each of them in each group. */
export function toneFile({ columns, rows }: ToneReport): string {
  const tones = [texts.positive, texts.negative];
  return writeCsv([
    [
      ...[texts.of, texts.column, texts.people, texts.sampled],
      ...tones.flatMap((tone) => [tone, texts.low(tone), texts.high(tone)]),
    ],
    ...rows.flatMap(({ name, cells }) =>
      cells.map((cell, c) => [
        ...[name, columns[c]!.label, cell.people, cell.sampled],
        ...shareOf(cell.positive),
        ...shareOf(cell.negative),
      ]),
    ),
  ]);
}

function shareOf(share: ToneCell['positive']): (number | null)[] {
  if (!share) return [null, null, null];
  const { value, interval } = share.estimate ?? {
    value: share.sampleShare,
    interval: share.sampleInterval,
  };
  return [value, ...interval];
}
