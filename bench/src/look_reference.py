"""What `npm run bench -- look` is compared with: scikit-learn's counts of words and phrases and its k-means with the
silhouette, and networkx's Louvain, each the best of as many runs as ours."""

import json
import sys
import time

import networkx
import numpy as np
from sklearn.cluster import KMeans
from sklearn.feature_extraction.text import CountVectorizer
from sklearn.metrics import silhouette_score

with open(sys.argv[1]) as file:
    given = json.load(file)


def timed(work):
    begun = time.perf_counter()
    result = work()
    return result, 1000 * (time.perf_counter() - begun)


_, words = timed(lambda: CountVectorizer(ngram_range=(1, 4), binary=True, min_df=3).fit_transform(given["texts"]))

graph = networkx.Graph()
graph.add_weighted_edges_from(given["links"])


def communities():
    runs = [networkx.community.louvain_communities(graph, weight="weight", seed=seed) for seed in range(20)]
    return max(networkx.community.modularity(graph, run, weight="weight") for run in runs)


modularity, topics = timed(communities)

rows = np.array(given["rows"], dtype=np.float32).reshape(-1, given["size"])
rows = rows[np.linalg.norm(rows, axis=1) > 0]


def clusters():
    best = -1.0
    for k in range(2, given["most"] + 1):
        labels = KMeans(k, n_init=1, max_iter=25, random_state=1).fit_predict(rows)
        best = max(best, silhouette_score(rows, labels, metric="cosine", sample_size=600, random_state=1))
    return best


silhouette, clustered = timed(clusters)
print(json.dumps({
    "words": words,
    "topics": topics,
    "clusters": clustered,
    "modularity": modularity,
    "silhouette": float(silhouette),
}))
