export { clusterTexts, type TextCluster, type TextClusters } from './clusterTexts.js';
export { bestClusters, clusterRows, silhouetteOf, type Clusters } from './clusterRows.js';
export { denseRows, type DenseRows } from './denseRows.js';
export { LIKE, likeChosen, representatives } from './representatives.js';
