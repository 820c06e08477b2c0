import type { MessagePort } from 'node:worker_threads';
import type { NearCodes } from '@yellow-thread/contract';
import { codesOfNearest } from '@yellow-thread/core/coding';
import { mostTelling } from '@yellow-thread/core/sampling';
import { readTermLines, readTerms, type TermLines, type TermTexts } from '@yellow-thread/core/look';
import {
  placeThresholds,
  trainCodes,
  type OwnOutcome,
  type PlacedThreshold,
  type TrainedCodes,
  type TrainingInput,
} from '@yellow-thread/core/learning';
import type { SheetOutcome } from '@yellow-thread/core/sheet';
import { Problem } from '../../wording/problems.js';
import { readListed, type ListedCodes } from '../../exchange/readListed.js';
import type { RespondentFile } from '../../report/files/respondentFile.js';
import {
  checkSheetWork,
  readSheetWork,
  stageSheetWork,
  writeSheetWork,
  type CheckInput,
  type ReadInput,
  type StageInput,
  type WriteInput,
} from '../../sheet/sheetWork.js';
import type { helpWork } from '../../assistant/helpWork.js';
import { clustersWork, representativesWork } from '../../look/clusterWork.js';
import { contrastWork, lookWork, networkWork } from '../../look/lookWork.js';
import { sentenceEncoder } from '../../sentences/encoder.js';
import { isEnglish } from '../../sentences/isEnglish.js';
import { alikeTo, orderAlike, type ComparedTexts } from '../../sentences/alike.js';
import type { NearestTexts } from '../../sentences/nearestTexts.js';
import { storedVectors, type SharedVectors } from '../../sentences/storedVectors.js';
import type { toneLinesWork, trainToneWork } from '../../tone/toneWork.js';
import { openChannel } from './threadChannel.js';
import { englishWords } from './englishWords.js';

/** Sentence vectors as they go to a thread. */
type WithShared<Input> = Omit<Input, 'vectors'> & { vectors: SharedVectors | null };
/** The same as they are looked up there. */
const withStored = <Input extends { vectors: SharedVectors | null }>(input: Input) => ({
  ...input,
  vectors: input.vectors && storedVectors(input.vectors),
});

/** What can be asked of a thread, by name. */
export interface ThreadWork {
  readSheet: { input: ReadInput; result: Awaited<ReturnType<typeof readSheetWork>> };
  checkSheet: { input: CheckInput; result: SheetOutcome };
  writeSheet: { input: WriteInput; result: Awaited<ReturnType<typeof writeSheetWork>> };
  stageSheet: { input: StageInput; result: void };
  weaknessOf: { input: { password: string; about: string[] }; result: string | null };
  readListed: { input: { fileName: string; content: Uint8Array }; result: ListedCodes };
  readTerms: { input: { texts: string[] }; result: TermTexts };
  readTermLines: { input: { texts: string[] }; result: TermLines };
  look: { input: Parameters<typeof lookWork>[0]; result: ReturnType<typeof lookWork> };
  contrast: { input: Parameters<typeof contrastWork>[0]; result: ReturnType<typeof contrastWork> };
  network: { input: Parameters<typeof networkWork>[0]; result: ReturnType<typeof networkWork> };
  clusters: {
    input: WithShared<Parameters<typeof clustersWork>[0]>;
    result: ReturnType<typeof clustersWork>;
  };
  representatives: {
    input: WithShared<Parameters<typeof representativesWork>[0]>;
    result: ReturnType<typeof representativesWork>;
  };
  orderAlike: { input: ComparedTexts; result: Awaited<ReturnType<typeof orderAlike>> };
  nearCodes: {
    input: {
      text: string;
      coded: { text: string; codeIds: string[] }[];
      vectors: SharedVectors | null;
    };
    result: NearCodes['codes'];
  };
  toneLines: {
    input: Parameters<typeof toneLinesWork>[0];
    result: Awaited<ReturnType<typeof toneLinesWork>>;
  };
  trainTone: {
    input: WithShared<Parameters<typeof trainToneWork>[0]>;
    result: ReturnType<typeof trainToneWork>;
  };
  helpWithAnswer: {
    input: WithShared<Parameters<typeof helpWork>[0]>;
    result: Awaited<ReturnType<typeof helpWork>>;
  };
  mostTelling: {
    input: ComparedTexts & { distance: number[]; size: number };
    result: number[];
  };
  alikeTo: { input: ComparedTexts & { these: string[] }; result: Float64Array };
  trainCodes: {
    input: { input: TrainingInput; vectors: SharedVectors | null };
    result: TrainedCodes;
  };
  placeThresholds: {
    input: { outcomes: OwnOutcome[]; settledTexts: string[]; seed: number };
    result: PlacedThreshold[];
  };
  encode: {
    input: { texts: string[]; others: string[] };
    result: (Float32Array | null)[];
  };
  nearest: { input: { vectors: SharedVectors; codes: string[][] }; result: NearestTexts };
  writeRespondents: { input: RespondentFile; result: void };
}
export type WorkResult<Name extends keyof ThreadWork> = ThreadWork[Name]['result'];

/** What a thread sends back. A problem goes as plain values: an error's own fields do not cross threads. */
export type Outcome<Result> =
  | { state: 'done'; result: Result }
  | {
      state: 'problem';
      problem: ConstructorParameters<typeof Problem>;
    };

type Message = {
  [Name in keyof ThreadWork]: { name: Name; input: ThreadWork[Name]['input']; port: MessagePort };
}[keyof ThreadWork];

export default async function work(message: Message): Promise<Outcome<unknown>> {
  try {
    return { state: 'done', result: await compute(message) };
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    const { status, code, message: sentence, details } = error;
    return { state: 'problem', problem: [status, code, sentence, details] };
  } finally {
    // an open port would keep the thread from ever resting
    message.port.close();
  }
}

async function compute(message: Message): Promise<unknown> {
  const channel = openChannel(message.port);
  switch (message.name) {
    case 'readSheet':
      return readSheetWork(message.input, channel);
    case 'checkSheet':
      return checkSheetWork(message.input, channel);
    case 'writeSheet':
      return writeSheetWork(message.input, channel);
    case 'stageSheet':
      return stageSheetWork(message.input, channel);
    case 'weaknessOf': {
      // its dictionaries take longer to load than all else that threads do
      const { weaknessOf } = await import('../../people/passwordStrength.js');
      return weaknessOf(message.input.password, message.input.about);
    }
    case 'readListed':
      return readListed(message.input.fileName, message.input.content);
    case 'readTerms':
      return readTerms(message.input.texts);
    case 'readTermLines':
      return readTermLines(message.input.texts);
    case 'look':
      return lookWork(message.input);
    case 'contrast':
      return contrastWork(message.input);
    case 'network':
      return networkWork(message.input);
    case 'clusters':
      return clustersWork(withStored(message.input), channel.report);
    case 'representatives':
      return representativesWork(withStored(message.input));
    case 'orderAlike':
      return orderAlike(message.input);
    case 'nearCodes': {
      const { text, coded, vectors } = message.input;
      const shares = codesOfNearest(text, coded, vectors && storedVectors(vectors));
      return [...shares]
        .map(([codeId, share]) => ({ codeId, share }))
        .sort((x, y) => y.share - x.share);
    }
    case 'toneLines': {
      const { toneLinesWork } = await import('../../tone/toneWork.js');
      return toneLinesWork(message.input, isEnglish);
    }
    case 'trainTone': {
      const { trainToneWork } = await import('../../tone/toneWork.js');
      return trainToneWork(withStored(message.input), await englishWords(), channel.report);
    }
    case 'helpWithAnswer': {
      // its languages and dictionaries take longer to load than all else that threads do
      const { helpWork } = await import('../../assistant/helpWork.js');
      return helpWork(withStored(message.input), { sentenceEncoder, isEnglish });
    }
    case 'mostTelling': {
      const { texts, distance, size, vectors } = message.input;
      return mostTelling(texts, distance, size, vectors && storedVectors(vectors));
    }
    case 'alikeTo':
      return alikeTo(message.input);
    case 'placeThresholds': {
      const { outcomes, settledTexts, seed } = message.input;
      return placeThresholds(outcomes, settledTexts, seed);
    }
    case 'trainCodes':
      return trainCodes(
        message.input.input,
        {
          table: await englishWords(),
          sentences: message.input.vectors && storedVectors(message.input.vectors),
        },
        channel.report,
      );
    case 'nearest': {
      const { nearestTexts } = await import('../../sentences/nearestTexts.js');
      return nearestTexts(message.input);
    }
    case 'encode': {
      // its languages take longer to load than all else that threads do
      const { encodeTexts } = await import('../../sentences/encodeTexts.js');
      return encodeTexts(message.input);
    }
    case 'writeRespondents': {
      // what writes workbooks takes longer to load than all else that threads do
      const { writeRespondentFile } = await import('../../report/files/respondentFile.js');
      return writeRespondentFile(message.input, channel);
    }
  }
}
