import { createWriteStream, openAsBlob, writeFileSync } from 'node:fs';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { ReadableStream } from 'node:stream/web';
import { answersOf13 } from './encoding.js';
import { heldIn } from './held.js';
import { rounded } from './material.js';
import { address, bringIn, enter, FOLDER, timedAsync, withProduct } from './product.js';

const ANSWERS = 100_000;

/** A study of 100,000 answers, each with a code, saved as a file, opened again, and compared: how long, and with how much memory. */
export async function copying(args: string[]) {
  const count = Number(args.find((one) => /^\d+$/u.test(one)) ?? ANSWERS);
  const texts = answersOf13(count);
  return withProduct(async (product) => {
    const file = `${FOLDER}/answers.csv`;
    writeFileSync(
      file,
      [
        'id,Home,Why?,Late,Dear,Cold,Full',
        ...texts.map((text, i) => `${i},Tye,"${text}",${i % 2},${i % 3 ? 0 : 1},0,0`),
      ].join('\n'),
    );
    const { call, cookie } = await enter();
    const { study } = await bringIn(call, file);
    const path = `${FOLDER}/copy.zip`;
    await product.restart({ watch: args.includes('--watch') });
    product.peak();
    const saved = await timedAsync(async () => {
      const reply = await fetch(`${address}/api/studies/${study}/copy`, {
        headers: { cookie: cookie() },
      });
      // what fetch gives is a stream of the web
      await pipeline(Readable.fromWeb(reply.body as ReadableStream), createWriteStream(path));
    });
    const saving = product.peak();
    const copy = await openAsBlob(path);
    const opened = await timedAsync(() => {
      const form = new FormData();
      form.append('file', copy, 'copy.zip');
      return call('POST', '/study-copies', form);
    });
    const opening = product.peak();
    // what it brings back to the study that it was copied from: nothing, since nobody worked on it
    const compared = await timedAsync(() => {
      const form = new FormData();
      form.append('file', copy, 'copy.zip');
      return call('POST', `/studies/${study}/merges/preview`, form);
    });
    for (const { ms, requests } of heldIn(product.lines()))
      console.error(`${Math.round(ms)} ms: ${requests.join(', ')}`);
    const size = rounded(copy.size / 1024 ** 2, 1);
    return [
      { step: 'saved', seconds: rounded(saved / 1000, 1), 'peak, MB': saving, 'file, MB': size },
      {
        step: 'opened',
        seconds: rounded(opened / 1000, 1),
        'peak, MB': opening,
        'file, MB': size,
      },
      {
        step: 'compared',
        seconds: rounded(compared / 1000, 1),
        'peak, MB': product.peak(),
        'file, MB': size,
      },
    ];
  });
}
