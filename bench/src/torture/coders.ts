import { openAsBlob } from 'node:fs';
import { writeFiles } from '../importing.js';
import { bringInto, enter, FOLDER, type Product } from '../product.js';
import { newCode, save, smallStudy, waits, type Trial } from './people.js';

const CODERS = 50;

/** Fifty people code a study, others code elsewhere and come in, while 100,000 rows come into the first. */
export async function coders(_: Product, hard: number): Promise<Trial[]> {
  const { call } = await enter();
  const coded = await smallStudy(call, CODERS * 4);
  const other = await smallStudy(call);
  const codes = await Promise.all(
    Array.from({ length: CODERS * 4 }, (_unused, c) => newCode(call, coded.id, `Code ${c}`)),
  );
  const elsewhere = await newCode(call, other.id, 'Late');
  const file = `${FOLDER}/coders.csv`;
  await writeFiles(file, null);
  const [inSame, inOther, atTheDoor] = [waits(), waits(), waits()];
  for (let round = 0; round < hard; round++) {
    const content = await openAsBlob(file);
    let isOver = false;
    const importing = bringInto(call, coded.id, content, 'large.csv').finally(() => {
      isOver = true;
    });
    // each as fast as a person who codes: an answer takes seconds, here one
    const people = Array.from({ length: CODERS }, async (_unused, p) => {
      for (let n = 0; !isOver; n++) {
        const answer = coded.answers[(p * 4 + n) % coded.answers.length]!;
        await inSame.of(() => save(call, coded.id, answer, codes[(p + n) % codes.length]!));
        await rest();
      }
    });
    const besides = (async () => {
      for (let n = 0; !isOver; n++) {
        await inOther.of(() =>
          save(call, other.id, other.answers[n % other.answers.length]!, elsewhere),
        );
        await atTheDoor.of(() => call('GET', '/session'));
        await rest();
      }
    })();
    await Promise.all([importing, ...people, besides]);
  }
  return [
    inSame.told(`saves of ${CODERS} coders while 100,000 rows come into their study`),
    inOther.told('saves in another study meanwhile'),
    atTheDoor.told('the sign-in page meanwhile'),
  ];
}

const rest = () => new Promise((resolve) => setTimeout(resolve, 1000));
