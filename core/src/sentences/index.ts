export { dotProduct } from './dotProduct.js';
export {
  encoderHead,
  packEmbeddings,
  packMatrix,
  readEncoder,
  writeEncoder,
  type EncoderWeights,
  type PlainMatrix,
} from './encoderFile.js';
export { encoderId, type SentenceEncoder } from './sentenceEncoder.js';
export { TransformerEncoder } from './transformerEncoder.js';
export { packVector, unpackVector } from './packedVector.js';
export { projection } from './projection.js';
export { nearnessTo } from './nearness.js';
export { drawnToNeighbours } from './neighbourhood.js';
export { centredVectors } from './centredVectors.js';
export {
  NO_SENTENCES,
  sentenceBlock,
  type SentenceBlock,
  type SentenceVectors,
} from './sentenceBlock.js';
